import { describe, expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import type { Cue } from './cue.ts';
import { countIn } from './countIn.ts';
import { soundOf } from './cueSounds.ts';
import { changeRate, legEnd } from './playback.ts';

const cue = (change: Partial<Cue>): Cue => ({
  time: 0,
  seconds: 0,
  kind: 'click',
  section: 0,
  text: '',
  accent: 'beat',
  whispered: false,
  sounds: true,
  ...change,
});

describe('what a cue sounds like', () => {
  it.each([
    [{ kind: 'click', accent: 'measure' }, 'click', { kind: 'click', accent: 'measure' }],
    [{ kind: 'count-in', text: 'ready' }, 'count', { kind: 'word', whispered: false }],
    [{ kind: 'syllable', text: 'ta', whispered: true }, 'syllables', { kind: 'word', whispered: true }],
    [{ kind: 'clap' }, 'claps', { kind: 'clap' }],
    [{ kind: 'tone', seconds: 2 }, 'claps', { kind: 'tone', seconds: 2 }],
    [{ kind: 'foot', text: 'R' }, 'feet', { kind: 'stamp' }],
  ] as const)('%j is heard on %s', (change, channel, sound) =>
    expect(soundOf(cue(change))).toMatchObject({ channel, sound }),
  );
  it('claps sound of wood where that was chosen', () =>
    expect(soundOf(cue({ kind: 'clap' }), 'wood')).toMatchObject({ sound: { kind: 'wood' } }));
  it.each([
    [{ kind: 'clap', sounds: false }],
    [{ kind: 'foot', sounds: false }],
    [{ kind: 'push' }],
    [{ kind: 'open' }],
    [{ kind: 'pass' }],
    [{ kind: 'syllable', text: 'nobody recorded this' }],
  ] as const)('%j is only shown', (change) => expect(soundOf(cue(change))).toBeUndefined());
});

describe('the accents of a count-in', () => {
  it.each([
    ['4/4 w', 'measure', [true, false, false, false]],
    ['3/4 h.', 'two-measures', [true, false, false, true, false, false]],
    ['4/4 w', 'two-beats', [false, false]],
    ['4/4 ^ q | w', 'measure', [false, true, false, false]],
  ] as const)('%s, %s: %j', (text, kind, accents) =>
    expect(countIn(patternOf(text), 60, { kind }).map(({ accent }) => accent)).toEqual(accents),
  );
});

describe('a change of tempo', () => {
  it('ends one leg where the next begins', () => {
    const [before, after] = changeRate([{ at: 10, from: 0, to: 8, rate: 1 }], 4, 2);
    expect([before!.to, legEnd(before!)]).toEqual([4, 14]);
    expect(after).toEqual({ at: 14, from: 4, to: 8, rate: 2 });
  });
});
