import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { countPattern } from '../../core/counting/count.ts';
import { handsOf } from '../../core/leading/hands.ts';
import { patternOf } from '../../core/rhythm/arbitrary.test-helper.ts';
import { HeardLane, type HeardMark } from './HeardLane.tsx';
import { BeatsLane } from './BeatsLane.tsx';
import { StripsLane } from './StripsLane.tsx';
import { STEPS, SystemLanes } from './SystemLanes.tsx';
import { TokensLane, tokenParts } from './TokensLane.tsx';
import { layoutRuler } from '../../drawing/layout.ts';

/** Every element of a kind in a drawing, by its attributes and its text. */
function elements(markup: string, tag: string): { at: Record<string, string>; text: string }[] {
  return [...markup.matchAll(new RegExp(`<${tag}( [^>]*?)?/?>(?:(.*?)</${tag}>)?`, 'g'))].map(([, given, inside]) => ({
    at: Object.fromEntries(
      [...(given ?? '').matchAll(/([\w-]+)="([^"]*)"/g)].map(([, name, value]) => [name!, value!]),
    ),
    text: (inside ?? '').replace(/<[^>]*>/g, '').replaceAll('&amp;', '&'),
  }));
}

/** One line wide enough for all of it, in which a whole note is `scale` wide. */
function oneLine(text: string) {
  const layout = layoutRuler(patternOf(text), 1600, 'desk');
  expect(layout.systems).toHaveLength(1);
  const system = layout.systems[0]!;
  return { system, size: 'desk' as const, scale: layout.scale, zero: system.measures[0]!.x };
}

/** Where each element stands, in beats of a quarter from the first event. */
const quarters = (xs: readonly number[], { zero, scale }: { zero: number; scale: number }) =>
  xs.map((x) => Math.round(((x - zero) / scale) * 4 * 100) / 100);

function counted(text: string, school: 'numbers' | 'ta' = 'numbers') {
  const found = countPattern(patternOf(text), { school });
  if (!found.ok) throw new Error(found.reason);
  return found.measures;
}

describe('counts', () => {
  it('stand at the time of their notes', () => {
    const line = oneLine('4/4 q e e (q) q | h q. e');
    const { zero: _, ...props } = line;
    const words = elements(
      renderToStaticMarkup(<TokensLane {...props} measures={counted('4/4 q e e (q) q | h q. e')} name="Numbers" />),
      'text',
    );
    expect(words.map(({ text }) => text)).toEqual(['1', '2', '&', '(3)', '4', '1-2', '3-4', '&']);
    expect(
      quarters(
        words.map(({ at }) => Number(at['x'])),
        line,
      ),
    ).toEqual([0, 1, 1.5, 2, 3, 4, 6, 7.5]);
    expect(words[3]!.at['class']).toContain('token-rest');
    // The parenthesis hangs out to the left, so that the figure stands on the beat.
    expect(parseFloat(words[3]!.at['dx']!)).toBeLessThan(parseFloat(words[0]!.at['dx']!));
  });
  it('have their small figures small', () => {
    const markup = renderToStaticMarkup(<text>{tokenParts('1-₂&')}</text>);
    expect(markup).toBe('<text>1<tspan class="small-count">-2</tspan>&amp;</text>');
  });
});

describe('strips', () => {
  it('are as long as their time; rests are open, and a tie has no seam', () => {
    const line = oneLine('4/4 q (q) h~ | h h');
    const { zero: _, ...props } = line;
    const strips = elements(renderToStaticMarkup(<StripsLane {...props} />), 'rect');
    expect(strips.map(({ at }) => at['class'])).toEqual(
      ['note', 'rest', 'note', 'tied', 'note'].map((kind) => `strip strip-${kind}`),
    );
    const ends = strips.map(({ at }) => Number(at['x']) + Number(at['width']));
    const starts = strips.map(({ at }) => Number(at['x']));
    expect(quarters(starts, line).map(Math.round)).toEqual([0, 1, 2, 4, 6]);
    expect(starts[1]! - ends[0]!).toBeGreaterThan(1);
    expect(starts[3]! - ends[2]!).toBeLessThanOrEqual(0);
    expect(strips.map(({ at }) => at['rx'])).toEqual(['2', '2', '0', '0', '2']);
  });
});

describe('steps', () => {
  it.each([
    ['4/4 q e e h | w', 'RLRLRLRL', [0, 1, 2, 3, 4, 5, 6, 7]],
    ['4/4 ^ q | h.', 'LRLR', [0, 1, 2, 3]],
    ['6/8 q. q.', 'RL', [0, 1.5]],
  ])('%s: %s', (text, feet, at) => {
    const line = oneLine(text);
    const { zero: _, ...props } = line;
    const steps = elements(renderToStaticMarkup(<BeatsLane {...props} {...STEPS()} />), 'text');
    expect(steps.map((step) => step.text).join('')).toBe(feet);
    expect(
      quarters(
        steps.map((step) => Number(step.at['x'])),
        line,
      ),
    ).toEqual(at);
  });
});

describe('what was heard', () => {
  it('stands where it was heard, its window around the written place', () => {
    const line = oneLine('4/4 q q q q');
    const { zero: _, ...props } = line;
    const marks: HeardMark[] = [
      { measure: 0, onset: 0.3, shape: 'late', written: 0.25, window: { early: 0.02, late: 0.04 } },
      { measure: 0, onset: 0.9, shape: 'extra' },
      { measure: 1, onset: 0, shape: 'missed' },
    ];
    const markup = renderToStaticMarkup(<HeardLane {...props} marks={marks} />);
    const signs = elements(markup, 'path').map(({ at }) => at['class']);
    expect(signs).toEqual(['heard-sign heard-late', 'heard-sign heard-extra']);
    const xs = [...markup.matchAll(/translate\(([\d.]+) /g)].map(([, x]) => Number(x));
    expect(quarters(xs, line)).toEqual([1.2, 3.6]);
    const [window] = elements(markup, 'rect');
    expect(quarters([Number(window!.at['x'])], line)).toEqual([0.92]);
    expect(Number(window!.at['width']) / line.scale).toBeCloseTo(0.06, 6);
  });
});

describe('a line of the ruler', () => {
  const text = '4/4 q q h | w';
  const show = (change: object = {}) => {
    const { system, scale, size } = oneLine(text);
    const nothing = { heard: undefined, heardPlaced: undefined, onPick: undefined, pickName: 'Explain' };
    const lanes = [{ name: 'Numbers', measures: counted(text) }];
    const usual = { handSigns: false, notes: true, strips: true, beats: true, feet: false, lanes };
    return renderToStaticMarkup(<SystemLanes {...{ system, scale, size }} {...nothing} {...usual} {...change} />);
  };
  it('what the hands do is drawn where its words have no room', () => {
    const hands = [{ name: 'Hands', measures: handsOf(patternOf('4/4 q h (q)')) }];
    const shown = (handSigns: boolean) => show({ lanes: hands, handSigns });
    expect(elements(shown(false), 'text').map(({ text: said }) => said)).toEqual(['clap', 'clap-push', '(open)']);
    const drawn = elements(shown(true), 'path').map(({ at }) => at['class']);
    expect(drawn.filter((one) => one?.startsWith('hand-sign'))).toEqual([
      'hand-sign hand-clap',
      'hand-sign hand-clap',
      'hand-sign hand-open',
    ]);
    expect(elements(shown(true), 'text')).toEqual([]);
  });
  it('has the lanes that were asked for', () => {
    const names = (markup: string) => elements(markup, 'span').map((name) => name.text);
    expect(names(show())).toEqual(['Notes', 'Strips', 'Numbers']);
    expect(names(show({ notes: false, strips: false, feet: true, heard: [] }))).toEqual(['Numbers', 'Steps', 'Heard']);
    expect(names(show({ lanes: [{ name: 'Words', measures: [], refused: 'no words' }] }))).toEqual(['Notes', 'Strips']);
  });
  it('has a line on every beat, the first of a measure marked', () => {
    const beats = elements(show(), 'line').map(({ at }) => at['class']);
    expect(beats).toEqual(['beat-first', 'beat', 'beat', 'beat', 'beat-first', 'beat', 'beat', 'beat']);
    expect(elements(show({ beats: false }), 'line')).toEqual([]);
  });
  it('has a button over each sign where signs can be pressed', () => {
    const buttons = elements(show({ onPick: () => undefined }), 'button').map(({ at }) => at['aria-label']);
    expect(buttons).toEqual([
      'Explain measure 1, sign 1',
      'Explain measure 1, sign 2',
      'Explain measure 1, sign 3',
      'Explain measure 2, sign 1',
    ]);
    expect(elements(show(), 'button')).toEqual([]);
  });
});
