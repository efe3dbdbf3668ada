import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { barCheck, barsAddUp } from '../rhythm/barCheck.ts';
import { frac, mixed } from '../rhythm/fraction.ts';
import { placePattern } from '../rhythm/place.ts';
import { printRhythm } from '../rhythm/text.ts';
import type { ValueLetter } from '../rhythm/value.ts';
import {
  type Changed,
  type Strip,
  colourStrip,
  dotStrip,
  insertStrip,
  joinStrips,
  leftToFill,
  moveStrip,
  removeStrip,
  restStrip,
  soundingStrips,
  splitStrip,
  stripsPattern,
  stripsThatFit,
  tieStrip,
} from './strips.ts';

const LINE = frac(1);
const METER = { upper: 4, lower: 4 };
const strip = (text: string): Strip => ({
  kind: text.startsWith('(') ? 'rest' : 'note',
  value: { base: text.replace('(', '')[0] as ValueLetter, dots: text.includes('.') ? 1 : 0 },
});
const line = (text: string) => text.split(' ').map(strip);
const after = (change: Changed) =>
  change.ok ? printRhythm(stripsPattern(change.strips, METER)!) : `! ${change.reason}`;

describe('strips', () => {
  it.each([
    ['split a half', splitStrip(line('h q q'), 0), '4/4 q q q q'],
    ['split a dotted quarter', splitStrip(line('q. e h'), 0), '4/4 q e e h'],
    ['join two eighths', joinStrips(line('e e h.'), 0), '4/4 q h.'],
    ['join to a dotted half', joinStrips(line('h q q'), 0), '4/4 h. q'],
    ['dot', dotStrip(line('q h'), 0, LINE), '4/4 q. h (e)'],
    ['undot', dotStrip(line('q. e h'), 0, LINE), '4/4 q e h (e)'],
    ['rest', restStrip(line('q q h'), 1), '4/4 q (q) h'],
    ['tie', tieStrip(line('h q q'), 1), '4/4 h~ q q'],
    ['move', moveStrip(line('h q e e'), 0, 1), '4/4 q h e e'],
    ['take away', removeStrip(line('h q q'), 0), '4/4 q q (h)'],
    ['add', insertStrip(line('h q'), 1, strip('q'), LINE), '4/4 h q q'],
    ['no room', insertStrip(line('h h'), 1, strip('q'), LINE), '! there is not so much room left on the line'],
    [
      'no room for the dot',
      dotStrip(line('h h'), 0, LINE),
      '! the dot adds half, and there is not so much room left on the line',
    ],
    ['nothing to join', joinStrips(line('h h'), 1), '! there is no strip after this one to join'],
    ['no one value', joinStrips(line('h e q.'), 0), '! no single note is as long as both: tie them instead'],
    ['note and rest', joinStrips(line('h (h'), 0), '! a note and a rest cannot be joined'],
    ['tie to nothing', tieStrip(line('h h'), 0), '! a tie joins a note to the note before it'],
    ['shortest', splitStrip(line('t'), 0), '! this is the shortest strip there is'],
  ])('%s', (_what, change, text) => expect(after(change)).toBe(text));

  it('frees a strip whose note before it went away', () => {
    const tied = tieStrip(line('h q q'), 1);
    const gone = tied.ok && restStrip(tied.strips, 0);
    expect(gone && gone.ok && gone.strips[1]).toEqual(strip('q'));
  });
  it('colours and uncolours', () => {
    const once = colourStrip(line('h'), 0);
    expect(once.ok && once.strips[0]).toEqual({ ...strip('h'), second: true });
    expect(once.ok && colourStrip(once.strips, 0)).toEqual({ ok: true, strips: line('h') });
  });
  it.each([
    ['h q', frac(1), 2],
    ['h q q', frac(3, 4), 2],
    ['w', frac(1, 2), 0],
    ['q e e h', frac(3, 4), 3],
  ] as const)('of %s a line of %j keeps the first %i', (text, length, kept) =>
    expect(stripsThatFit(line(text), length)).toEqual(line(text).slice(0, kept)),
  );
  it('says how much is left', () => expect(mixed(leftToFill(line('q. e'), LINE))).toBe('1/2'));
  it('ties a strip over the bar', () =>
    expect(printRhythm(stripsPattern(line('h. h h.'), METER)!)).toBe('4/4 h. q~ | q h.'));

  const anyLine = fc
    .array(fc.constantFrom('w', 'h', 'q', 'e', 's', 'q.', '(q', '(h'), { minLength: 1, maxLength: 8 })
    .map((list) => list.map(strip));

  it('sound once for each sounded note of the pattern, over bar lines and ties too', () => {
    fc.assert(
      fc.property(
        anyLine,
        fc.array(fc.nat(7)),
        fc.constantFrom({ upper: 4, lower: 4 }, { upper: 3, lower: 4 }, { upper: 6, lower: 8 }),
        (strips, ties, meter) => {
          const tied = ties.reduce<readonly Strip[]>((list, place) => {
            const change = place < list.length ? tieStrip(list, place) : undefined;
            return change?.ok ? change.strips : list;
          }, strips);
          const sounded = placePattern(stripsPattern(tied, meter)!).flatMap(({ events }) =>
            events.filter(({ kind }) => kind === 'note'),
          );
          expect(soundingStrips(tied)).toHaveLength(sounded.length);
        },
      ),
    );
  });

  it('keep their length through every change but dot, add and take away, and always fill measures', () => {
    fc.assert(
      fc.property(
        anyLine,
        fc.nat(),
        fc.constantFrom(splitStrip, joinStrips, tieStrip, restStrip, colourStrip),
        (strips, place, change) => {
          const done = change(strips, place % strips.length);
          if (!done.ok) return;
          expect(leftToFill(done.strips, LINE)).toEqual(leftToFill(strips, LINE));
          expect(barsAddUp(barCheck(stripsPattern(done.strips, METER)!))).toBe(true);
        },
      ),
    );
  });
});
