import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyScore, scoreOfText } from '../rhythm/arbitraryScore.test-helper.ts';
import { goingName, nextText } from '../wording/leadWords.ts';
import { MomentFinder } from './moment.ts';
import type { Plan } from './plan.ts';
import { practiceTrack, sideLevel } from './practiceTrack.ts';
import { soundOf } from './cueSounds.ts';
import { type Timetable, scoreTimetable } from './timetable.ts';

const PLAN: Plan = {
  title: 'x',
  passes: [{ activity: 'say-clap', who: 'together' }],
  chunks: { kind: 'whole' },
  ladder: [{ bpm: 60, passes: 1 }],
  restBeats: 0,
  countIn: 'measure',
  countInEach: false,
  divided: false,
  twoLines: true,
};
const TWO = '4/4 [clap] q q h [stamp] (q) e e h';

function table(text: string, change: Partial<Plan> = {}): Timetable {
  const made = scoreTimetable(scoreOfText(text), { ...PLAN, ...change }, { school: 'numbers' });
  if (!made.ok) throw new Error(made.trouble.code);
  return made.timetable;
}
const heard = ({ cues }: Timetable, section: number) =>
  cues.flatMap((cue) => {
    const sound = cue.section === section && cue.kind !== 'click' ? soundOf(cue)?.sound : undefined;
    return sound ? [`${cue.time} ${sound.kind === 'word' ? sound.word : sound.kind}`] : [];
  });

describe('a run of several parts', () => {
  it('goes through each alone and then all, every change counted in', () => {
    const { sections, cues, passes } = table(TWO);
    expect(sections.map(({ going }) => going)).toEqual([[0], [1], [0, 1]]);
    expect(sections.map(({ start, end }) => [start, end])).toEqual([
      [4, 8],
      [12, 16],
      [20, 24],
    ]);
    expect(passes).toBe(3);
    expect(cues.filter(({ kind }) => kind === 'count-in')).toHaveLength(12);
    expect(cues.every(({ time }, i) => i === 0 || time >= cues[i - 1]!.time)).toBe(true);
  });

  it('or all of them at once; the ladder is climbed together', () => {
    const ladder = [60, 120].map((bpm) => ({ bpm, passes: 1 }));
    const of = ({ sections }: Timetable) => sections.map(({ going, bpm }) => `${going.join('+')} at ${bpm}`);
    expect(of(table(TWO, { parts: 'together', ladder }))).toEqual(['0+1 at 60', '0+1 at 120']);
    expect(of(table(TWO, { ladder }))).toEqual(['0 at 60', '1 at 60', '0+1 at 60', '0+1 at 120']);
  });

  it('alone a part is spoken and heard with its own sound; together each has its sound and nobody speaks', () => {
    const made = table(TWO);
    const steps = (from: number) => [0, 1, 2, 3].map((beat) => `${from + beat} stamp`);
    const own = (section: number) => heard(made, section).filter((sound) => !steps(4 + section * 8).includes(sound));
    expect(own(0)).toContain('4 clap');
    expect(own(0)).toContain('4 1');
    const second = made.cues.filter(({ section, kind }) => section === 1 && kind === 'clap');
    expect(second.map((cue) => `${cue.time} ${soundOf(cue)?.sound.kind} ${cue.part}`)).toEqual([
      '13 stamp 1',
      '13.5 stamp 1',
      '14 stamp 1',
    ]);
    const all = made.cues.filter(({ section, kind }) => section === 2 && kind === 'clap');
    expect(all.map(({ time, part, sounds }) => `${time} ${part} ${sounds}`)).toEqual([
      '20 0 true',
      '21 0 true',
      '21 1 true',
      '21.5 1 true',
      '22 0 true',
      '22 1 true',
    ]);
    expect(made.cues.some(({ section, kind, sounds }) => section === 2 && kind === 'syllable' && sounds)).toBe(false);
    expect(made.cues.some(({ section, kind, part }) => section === 2 && kind === 'syllable' && part === 1)).toBe(true);
  });

  it('what one is silent in while the others answer stays silent', () => {
    const made = table(TWO, { parts: 'together', passes: [{ activity: 'clap', who: 'i-go' }] });
    const sounding = (section: number) =>
      made.cues.filter((cue) => cue.section === section && cue.kind === 'clap' && cue.sounds).length;
    expect([sounding(0), sounding(1)]).toEqual([6, 0]);
  });

  it('a change of tempo is counted in, the same tempo again is not', () => {
    const counted = (...tempos: number[]) =>
      table('4/4 w', { ladder: tempos.map((bpm) => ({ bpm, passes: 1 })) }).cues.filter(
        ({ kind }) => kind === 'count-in',
      ).length;
    expect([counted(60, 60), counted(60, 90)]).toEqual([4, 8]);
  });

  it('the feet sound where they are wanted, and not while the class answers', () => {
    const steps = (change: Partial<Plan>) =>
      table('4/4 w', change).sections.map(
        (_, i) =>
          table('4/4 w', change).cues.filter((cue) => cue.section === i && cue.kind === 'foot' && cue.sounds).length,
      );
    expect(steps({})).toEqual([4]);
    expect(steps({ twoLines: false })).toEqual([0]);
    expect(steps({ passes: [{ activity: 'clap', who: 'i-go' }] })).toEqual([4, 0]);
  });

  it('the beat is given once, whatever the number of parts', () => {
    const clicks = ({ cues }: Timetable, kind: string) =>
      cues.filter((cue) => cue.section === 0 && cue.kind === kind && cue.time >= 4).map(({ time }) => time);
    const four = table('4/4 [a] q q h [b] h h [c] w [d] e e q h', { parts: 'together' });
    expect(clicks(four, 'click')).toEqual([4, 5, 6, 7]);
    expect(clicks(four, 'foot')).toEqual([4, 5, 6, 7]);
  });

  it('says what each group does just now, and who waits', () => {
    const made = table(TWO);
    const at = (time: number) =>
      new MomentFinder(made).at(time).parts!.map(({ mouth, hands, goes }) => `${mouth} ${hands ?? '-'} ${goes}`);
    expect(at(4.1)).toEqual(['1 clap true', ' - false']);
    expect(at(13.6)).toEqual([' - false', '& clap true']);
    expect(at(20.1)).toEqual(['1 clap true', '(1) open true']);
    expect(at(21.6)).toEqual(['2 clap true', '& clap true']);
    expect(new MomentFinder(made).at(1.1)).toMatchObject({ leadIn: '2', parts: [{ mouth: '' }, { mouth: '' }] });
    expect(new MomentFinder(table('4/4 w')).at(5).parts).toBeUndefined();
  });

  it('sounds just what its parts sound, each on its own', () => {
    fc.assert(
      fc.property(anyScore, (score) => {
        const made = scoreTimetable(score, { ...PLAN, parts: 'together' }, { school: 'numbers' });
        if (!made.ok || score.parts.length < 2) return;
        score.parts.forEach((part, i) => {
          const alone = scoreTimetable({ parts: [part] }, PLAN, { school: 'numbers' });
          if (!alone.ok) throw new Error('alone');
          const strikes = ({ cues }: Timetable, own?: number) =>
            cues.filter((cue) => cue.kind === 'clap' && cue.part === own).map(({ time }) => time.toFixed(6));
          expect(strikes(made.timetable, i)).toEqual(strikes(alone.timetable));
        });
      }),
      { numRuns: 60 },
    );
  });
});

describe('who goes, in words', () => {
  it.each([
    [[0], ['clap', 'stamp'], 'clap alone'],
    [[0, 1], ['clap', 'stamp'], 'both together'],
    [[0, 1, 2], ['a', 'b', 'c'], 'all together'],
    [[0], [''], ''],
  ])('%j of %j: %s', (going, names, said) => expect(goingName({ going }, names)).toBe(said));

  it('is said of what comes next where it is others', () => {
    const { sections } = table(TWO);
    const next = (i: number) => nextText(sections[i]!, sections[i + 1]!, 1, 'quarters', ['clap', 'stamp']);
    expect(next(0)).toBe('stamp alone, say and clap');
    expect(next(1)).toBe('both together, say and clap');
  });
});

describe('a practice track of parts', () => {
  it.each([
    [0, 2, 1, 0],
    [1, 2, 0, 1],
    [1, 3, 0.5, 0.5],
    [undefined, 2, 1, 1],
  ])('part %s of %i is heard left %f and right %f', (part, parts, left, right) => {
    expect(sideLevel(part, { of: 'left', parts })).toBeCloseTo(left);
    expect(sideLevel(part, { of: 'right', parts })).toBeCloseTo(right);
  });

  it('leaves out the part that its hearer does, and no other', () => {
    const made = table(TWO, { parts: 'together', twoLines: false });
    const levels = { click: 0, count: 0, syllables: 0, claps: 1, feet: 0 };
    const loud = (more: object) => {
      const options = { sampleRate: 8000, seconds: made.seconds, levels, words: new Map(), ...more };
      const samples = [...practiceTrack(made.cues, options)].flatMap(({ block }) => [...block]);
      // Around the moments at which only one of the two strikes: clap at 4 s, stamp at 5.5 s.
      return [4, 5.5].map((time) => {
        const from = Math.round((time + 0.25) * 8000);
        return Math.max(...samples.slice(from, from + 800).map(Math.abs)) > 0.01;
      });
    };
    // The beat is nobody's part.
    const clicked = { levels: { ...levels, click: 1, claps: 0 } };
    expect(loud({ ...clicked, missing: 0 })[0]).toBe(true);
    expect(loud({})).toEqual([true, true]);
    expect(loud({ missing: 0 })).toEqual([false, true]);
    expect(loud({ missing: 1 })).toEqual([true, false]);
    expect(loud({ side: { of: 'left', parts: 2 } })).toEqual([true, false]);
    expect(loud({ side: { of: 'right', parts: 2 } })).toEqual([false, true]);
  });
});
