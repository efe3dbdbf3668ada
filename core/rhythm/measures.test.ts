import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyPattern, everydayPattern, fullPattern, patternOf } from './arbitrary.test-helper.ts';
import { type BarReport, barCheck, barsAddUp } from './barCheck.ts';
import { add, equal, frac, mixed, sum, toNumber } from './fraction.ts';
import { beamGroups, beatOf, beatsInMeasure, meterKind, meterLength } from './meter.ts';
import { eventsPlayed, placePattern, playPattern, playingOrder, unfold } from './place.ts';
import { type SoundSpan, writeMeasure } from './spell.ts';
import { printRhythm } from './text.ts';
import { barTroubleText } from '../wording/troubles.ts';

describe('meters', () => {
  it.each([
    [2, 4, 'simple', '1/4', 2],
    [4, 4, 'simple', '1/4', 4],
    [2, 2, 'simple', '1/2', 2],
    [3, 2, 'simple', '1/2', 3],
    [3, 8, 'simple', '1/8', 3],
    [6, 8, 'compound', '3/8', 2],
    [9, 8, 'compound', '3/8', 3],
    [12, 8, 'compound', '3/8', 4],
    [6, 16, 'compound', '3/16', 2],
    [5, 8, 'unequal', '1/8', 5],
    [7, 8, 'unequal', '1/8', 7],
    [5, 4, 'unequal', '1/4', 5],
    [6, 4, 'simple', '1/4', 6],
    [7, 4, 'unequal', '1/4', 7],
    [11, 8, 'unequal', '1/8', 11],
  ] as const)('%i/%i is %s, counted in %s', (upper, lower, kind, beat, beats) => {
    expect(meterKind({ upper, lower })).toBe(kind);
    expect(mixed(beatOf({ upper, lower }).length)).toBe(beat);
    expect(toNumber(beatsInMeasure({ upper, lower }))).toBe(beats);
  });
  it('6/8 can be counted in eighths', () => expect(toNumber(beatsInMeasure({ upper: 6, lower: 8 }, 'e'))).toBe(6));
});

describe('bar check', () => {
  it.each([
    ['4/4 q q q q', [['4', '4', 'full']]],
    ['4/4 q q q e', [['3 1/2', '4', 'short']]],
    ['4/4 q q q q e', [['4 1/2', '4', 'over']]],
    ['6/8 q. q e e', [['2 1/3', '2', 'over']]],
    ['4/4 3{e e e} h.', [['4', '4', 'full']]],
    ['4/4 3{e e} h.', [['3 2/3', '4', 'short']]],
    ['2/2 h q', [['1 1/2', '2', 'short']]],
    [
      '4/4 ^ q | q q q q | h.',
      [
        ['1', '4', 'pickup'],
        ['4', '4', 'full'],
        ['3', '3', 'full'],
      ],
    ],
    [
      '4/4 ^ q | q q q q | h',
      [
        ['1', '4', 'pickup'],
        ['4', '4', 'full'],
        ['2', '4', 'short'],
      ],
    ],
    [
      '4/4 ^ q |: h. :|',
      [
        ['1', '4', 'pickup'],
        ['3', '3', 'full'],
      ],
    ],
    [
      '4/4 h. | h.',
      [
        ['3', '4', 'short'],
        ['3', '4', 'short'],
      ],
    ],
    [
      '4/4 ^ w e | w',
      [
        ['4 1/2', '4', 'over'],
        ['4', '4', 'full'],
      ],
    ],
    [
      '3/4 (M2) | 4/4 w',
      [
        ['3', '3', 'full'],
        ['3', '3', 'full'],
        ['4', '4', 'full'],
      ],
    ],
  ])('%s', (text, expected) => {
    const reports = barCheck(patternOf(text));
    expect(reports.map(({ total, expected: full, verdict }) => [mixed(total), mixed(full), verdict])).toEqual(expected);
    expect(barsAddUp(reports)).toBe(expected.every(([, , verdict]) => verdict === 'full' || verdict === 'pickup'));
  });
  it('finds every measure full that was filled, in every meter, its events one after the other', () => {
    fc.assert(
      fc.property(fullPattern, (pattern) => {
        expect(
          barCheck(pattern).every(({ verdict }, i) => verdict === (pattern.pickup && i === 0 ? 'pickup' : 'full')),
        ).toBe(true);
        for (const { events, onset, meter } of placePattern(pattern)) {
          const end = events.reduce((now, event) => {
            expect(mixed(event.onset)).toBe(mixed(now));
            return add(now, event.length);
          }, onset);
          expect(mixed(end)).toBe(mixed(meterLength(meter)));
        }
      }),
    );
  });
  it('finds what is taken away or put on, and by how much', () => {
    fc.assert(
      fc.property(fullPattern, fc.nat(4), fc.boolean(), (pattern, which, longer) => {
        const at = pattern.pickup ? 1 + (which % (pattern.measures.length - 1)) : which % pattern.measures.length;
        const measure = pattern.measures[at]!;
        const items = longer
          ? [...measure.items, { kind: 'rest' as const, value: { base: 's' as const, dots: 0 as const } }]
          : measure.items.slice(0, -1);
        fc.pre(items.length > 0 && !pattern.pickup);
        const measures = pattern.measures.map((one, i) => (i === at ? { ...measure, items } : one));
        const { verdict, total, expected } = barCheck({ ...pattern, measures })[at]!;
        expect([verdict, toNumber(total) > toNumber(expected)]).toEqual([longer ? 'over' : 'short', longer]);
      }),
    );
  });
  it('says by how much, in beats of the chosen value', () => {
    const said = (report: BarReport) => barTroubleText(report, 'quarters');
    expect(barCheck(patternOf('4/4 q q q q | q q q | h w')).map(said)).toEqual([
      undefined,
      'measure 2 is 1 beat short',
      'measure 3 is 2 beats too long',
    ]);
    expect(said(barCheck(patternOf('4/4 q q q e'), 'e')[0]!)).toBe('measure 1 is 1 beat short');
    expect(said(barCheck(patternOf('4/4 q q q e'))[0]!)).toBe('measure 1 is 1/2 beat short');
  });
});

describe('beats', () => {
  it.each([
    ['6/8', 3],
    ['9/8', 3],
    ['4/4', 2],
    ['7/8', 2],
    ['3/8', 2],
  ])('of %s divide in %i', (text, division) =>
    expect(beatOf(patternOf(`${text} (M1)`).measures[0]!.meter).division).toBe(division),
  );
  it.each([
    ['11/8', '3+3+3+2'],
    ['7/8', '2+2+3'],
    ['5/8', '3+2'],
    ['8/8[3+3+2]', '3+3+2'],
    ['6/8', '3+3'],
    ['3/8', '3'],
  ])('of %s are grouped in eighths %s', (text, groups) =>
    expect(
      beamGroups(patternOf(`${text} (M1)`).measures[0]!.meter)
        .map((group) => toNumber(group) * 8)
        .join('+'),
    ).toBe(groups),
  );
});

describe('places', () => {
  it('numbers measures from the first full one, and aligns a pickup with the end of its measure', () => {
    const placed = placePattern(patternOf('4/4 ^ e e | (M2) | w'));
    expect(placed.map(({ number, written }) => [number, written])).toEqual([
      [0, 0],
      [1, 1],
      [2, 1],
      [3, 2],
    ]);
    expect(placed[0]!.onset).toEqual(frac(3, 4));
    expect(placed.map(({ restNumber }) => restNumber)).toEqual([undefined, 1, 2, undefined]);
  });
  it.each([
    ['4/4 q q (h)', 3],
    ['4/4 |: q q h :| w', 7],
    ['4/4 3{e e e} q h', 5],
    ['4/4 (M7)', 0],
  ])('“%s” has %i notes and rests as it is played', (text, events) =>
    expect(eventsPlayed(patternOf(text))).toBe(events),
  );

  it('obeys repeats', () => {
    expect(playingOrder(patternOf('w |: h h :| w'))).toEqual([0, 1, 1, 2]);
    // Written-out endings number their measures again: the second is the second time through.
    const again = playPattern(patternOf('w | h h | #1 w | #3 h h'));
    expect(again.map(({ measure, timeThrough }) => [measure.number, timeThrough])).toEqual([
      [1, 1],
      [2, undefined],
      [1, 2],
      [3, undefined],
    ]);
    expect(placePattern(patternOf('4/4 ^ q | #5 "A" w | (M2) | w')).map(({ number }) => number)).toEqual([
      0, 5, 6, 7, 8,
    ]);
    expect(playingOrder(patternOf('w | h h :| w :|'))).toEqual([0, 1, 0, 1, 2, 2]);
    expect(printRhythm(unfold(patternOf('4/4 |: q q h :| (M2)')))).toBe('4/4 q q h | q q h | (M1) | (M1)');
  });
  it('plays a pickup before time 0 and each measure after the one before', () => {
    fc.assert(
      fc.property(anyPattern, (pattern) => {
        const played = playPattern(pattern);
        expect(toNumber(played[0]!.at)).toBe(pattern.pickup ? -toNumber(played[0]!.measure.length) : 0);
        played
          .slice(1)
          .forEach(({ at }, i) => expect(equal(at, add(played[i]!.at, played[i]!.measure.length))).toBe(true));
      }),
    );
  });
  it('ties a note on only when the note played before ties to it', () => {
    const kinds = playPattern(patternOf('4/4 h. q~ |: q h. :|')).map(({ measure }) => measure.events[0]!.kind);
    expect(kinds).toEqual(['note', 'tied', 'note']);
  });
});

describe('writing a measure from stretches', () => {
  it('writes what it was given, exactly', () => {
    fc.assert(
      fc.property(fc.oneof(everydayPattern, fullPattern), (pattern) => {
        // A pickup is written from its own first event, not from the bar line.
        for (const measure of placePattern(pattern).filter(({ onset }) => equal(onset, frac(0)))) {
          const tuplets = [...new Set(measure.events.flatMap(({ tuplet }) => tuplet ?? []))];
          const spans: SoundSpan[] = [];
          for (const { kind, onset, length } of measure.events) {
            const before = kind === 'tied' ? spans.pop() : undefined;
            const from = before?.from ?? onset;
            spans.push({ kind: kind === 'rest' ? 'rest' : 'note', from, to: add(onset, length) });
          }
          const again = placePattern({
            pickup: false,
            measures: [writeMeasure(measure.meter, spans, tuplets)],
          })[0]!;
          const sounds = again.events.filter(({ kind }) => kind === 'note').map(({ onset }) => mixed(onset));
          expect(sounds).toEqual(spans.filter(({ kind }) => kind === 'note').map(({ from }) => mixed(from)));
          expect(sum(again.events.map(({ length }) => length))).toEqual(measure.length);
        }
      }),
    );
  });
  it('cuts a rest at the beat and ties what no one value can write', () => {
    const meter = { upper: 4, lower: 4 };
    const measure = writeMeasure(meter, [
      { kind: 'note', from: frac(0), to: frac(1, 8) },
      { kind: 'rest', from: frac(1, 8), to: frac(3, 8) },
      { kind: 'note', from: frac(3, 8), to: frac(1) },
    ]);
    expect(printRhythm({ pickup: false, measures: [measure] })).toBe('4/4 e (e) (e) e~ h');
  });
});
