import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { COUNTING_SYSTEM_IDS } from '../counting/countingSystems.ts';
import { everydayPattern, patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { wavFile } from '../sound/wav.ts';
import { audioTime, changeRate, goOn, tableTime } from './playback.ts';
import { type Plan, READY_PLANS } from './plan.ts';
import { type TrackOptions, TRACK_LEAD_SECONDS, practiceTrack, trackFrames } from './practiceTrack.ts';
import { synthesise } from '../sound/sounds.ts';
import { recordingOf } from './spokenWords.ts';
import { timetable } from './timetable.ts';
import { CHANNEL_IDS, type Channel, soundOf } from './cueSounds.ts';

const PLAN: Plan = {
  ...READY_PLANS()[1]!,
  passes: [{ activity: 'clap', who: 'together' }],
  ladder: [{ bpm: 77, passes: 3 }],
  divided: true,
  twoLines: true,
};
const loud = (level: number, only?: Channel) =>
  Object.fromEntries(CHANNEL_IDS.map((id) => [id, only === undefined || only === id ? level : 0])) as Record<
    Channel,
    number
  >;
const RATE = 8000;

function rendered(plan: Plan, levels: Record<Channel, number>, words: TrackOptions['words'] = new Map()) {
  const made = timetable(patternOf('4/4 q e e (q) q | h 3{e e e} q'), plan, { school: 'numbers' });
  if (!made.ok) throw new Error(made.trouble.code);
  const options = { sampleRate: RATE, seconds: made.timetable.seconds, levels, words };
  const blocks = [...practiceTrack(made.timetable.cues, options)];
  const samples = Float32Array.from(blocks.flatMap(({ block }) => [...block]));
  return { samples, blocks, options, cues: made.timetable.cues };
}

describe('the practice track', () => {
  it('has every click on its own sample', () => {
    const { samples, cues, options } = rendered(PLAN, loud(1, 'click'));
    expect(samples.length).toBe(trackFrames(options));
    for (const { time } of cues.filter(({ kind }) => kind === 'click')) {
      const at = Math.round((time + TRACK_LEAD_SECONDS) * RATE);
      expect(Math.abs(samples[at]!)).toBeGreaterThan(0.25);
      expect(Math.abs(samples[at - 1]!)).toBeLessThan(0.02);
    }
  });
  it('puts the vowel of a word on the beat', () => {
    const word = { samples: new Float32Array(400).fill(0.01, 0, 160).fill(0.5, 160), vowel: 160 / RATE };
    const { samples, cues } = rendered(
      { ...PLAN, passes: [{ activity: 'say', who: 'together' }] },
      loud(1, 'syllables'),
      new Map(['1', '2', '3', '4', '&'].map((text) => [text, word])),
    );
    const said = cues.find(({ kind, text }) => kind === 'syllable' && text === '2')!;
    const at = Math.round((said.time + TRACK_LEAD_SECONDS) * RATE);
    expect(samples[at]).toBeCloseTo(0.5, 5);
    expect(samples[at - 1]).toBeCloseTo(0.01, 5);
  });
  it('never goes over full scale, tells how far it is, and leaves out what is muted', () => {
    const { samples, blocks } = rendered(PLAN, loud(3));
    expect(samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)).toBeLessThanOrEqual(1);
    expect(blocks.at(-1)!.done).toBe(1);
    expect(rendered(PLAN, loud(0)).samples.some((sample) => sample !== 0)).toBe(false);
  });
  it('becomes a WAV file', () => {
    const file = new DataView(wavFile(Float32Array.of(0, 1, -1, 2), 44_100).buffer);
    expect([
      file.getUint32(24, true),
      file.getUint32(40, true),
      file.getInt16(46, true),
      file.getInt16(48, true),
      file.getInt16(50, true),
    ]).toEqual([44_100, 8, 32_767, -32_767, 32_767]);
  });
});

describe('sounds', () => {
  it.each([['clap'], ['wood'], ['stamp'], ['pat'], ['snap'], ['low-wood']] as const)(
    '%s strikes at once and dies away',
    (kind) => {
      const samples = synthesise({ kind }, 48_000);
      const energy = (from: number, to: number) =>
        samples.slice(from, to).reduce((sum, sample) => sum + sample * sample, 0);
      expect(energy(0, 960)).toBeGreaterThan(energy(samples.length - 960, samples.length) * 4);
    },
  );
  it('every syllable of every school has a recording', () => {
    fc.assert(
      fc.property(everydayPattern, fc.constantFrom(...COUNTING_SYSTEM_IDS), (pattern, school) => {
        const made = timetable(
          pattern,
          { ...PLAN, passes: [{ activity: 'say', who: 'together' }], ladder: [{ bpm: 90, passes: 1 }] },
          { school },
        );
        if (!made.ok) return;
        for (const cue of made.timetable.cues)
          if (cue.kind === 'syllable' || cue.kind === 'count-in')
            expect([cue.text, soundOf(cue)?.sound.kind]).toEqual([cue.text, 'word']);
      }),
    );
    expect(recordingOf('haus')).toBeUndefined();
  });
});

describe('the course of a run', () => {
  const start = [{ at: 10, from: 0, to: 60, rate: 1 }];
  it('changes tempo without moving what came before', () => {
    const half = changeRate(start, 8, 0.5);
    expect(tableTime(half, 17).time).toBe(7);
    expect(tableTime(half, 20).time).toBe(9);
    expect(audioTime(half[1]!, 12)).toBe(26);
  });
  it('goes round in a loop', () => {
    const loop = goOn(goOn([{ at: 0, from: 0, to: 4, rate: 1 }], 2, 4, 1), 2, 4, 2);
    expect([1, 3.5, 4.5, 6.5, 9].map((audio) => tableTime(loop, audio).time)).toEqual([1, 3.5, 2.5, 3, 4]);
  });
  it('never goes back while no one asks it to, however often the tempo changes', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            after: fc.double({ min: 0, max: 20, noNaN: true }),
            rate: fc.double({ min: 0.25, max: 4, noNaN: true }),
          }),
          { maxLength: 8 },
        ),
        (changes) => {
          let course: ReturnType<typeof changeRate> = start;
          for (const { after, rate } of changes) course = changeRate(course, course.at(-1)!.from + after, rate);
          let before = 0;
          for (let audio = 0; audio < 120; audio += 0.37) {
            const { time } = tableTime(course, audio);
            expect(time).toBeGreaterThanOrEqual(before - 1e-9);
            before = time;
          }
        },
      ),
    );
  });
});
