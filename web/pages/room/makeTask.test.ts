import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RoundEdit } from '../../../contract/room.ts';
import { validator } from '../../../contract/validate.ts';
import { soundKey } from '../../../core/rhythm/soundings.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { PLAIN_VOICE } from '../../../core/wording/voice.ts';
import { DOINGS, type Doing, canBeMade, needsRhythm, taskOf } from './makeTask.ts';

const check = validator(RoundEdit);
const ROPE = { id: '00000000-0000-4000-8000-000000000001', title: 'Rope', text: '4/4 h q q | q q h' } as never;
const PARTS = { ...(ROPE as object), title: 'Crews', text: '4/4 [clap] q q h [stamp] h h' } as never;
const wanted = (doing: Doing, more: object = {}) => ({
  doing,
  pattern: ROPE,
  bpm: 72,
  heardBy: 'tap' as const,
  met: ['quarter', 'eighth-pair', 'quarter-rest', 'half'] as const,
  voice: PLAIN_VOICE,
  seed: 1,
  ...more,
});
const all = Object.keys(DOINGS()) as Doing[];

describe('what is sent to all devices', () => {
  it('fits the contract, of a saved rhythm and of one that is made, from any seed', () =>
    fc.assert(
      fc.property(fc.constantFrom(...all), fc.nat(100_000), fc.boolean(), (doing, seed, saved) => {
        if (!saved && !canBeMade(doing)) return;
        const task = taskOf(wanted(doing, { seed, ...(saved ? {} : { pattern: undefined }) }));
        if (!task) throw new Error(`${doing} ${seed}`);
        const checked = check({ number: 1, task, phase: 'ready', startsAt: null });
        expect(checked).toMatchObject({ ok: true });
        if (task.kind !== 'question') return;
        expect(new Set(task.options.map(({ words, rhythm }) => rhythm ?? words)).size).toBe(task.options.length);
        expect(Math.max(...task.right)).toBeLessThan(task.options.length);
      }),
      { numRuns: 60 },
    ));

  it('of one who hears and chooses, the right one sounds like what is played', () => {
    for (let seed = 0; seed < 20; seed++) {
      const task = taskOf(wanted('choose', { seed }));
      if (task?.kind !== 'question') throw new Error('no question');
      const sound = (text: string) => {
        const read = parseRhythm(text);
        return read.ok ? soundKey(read.pattern) : '';
      };
      const same = task.options.filter(({ rhythm }) => sound(rhythm!) === sound(task.heard!.text));
      expect(same).toEqual([task.options[task.right[0]!]]);
    }
  });

  it('gives each device its part, and an echo has one', () => {
    expect(taskOf(wanted('take', { pattern: PARTS }))).toMatchObject({ parts: [{ name: 'clap' }, { name: 'stamp' }] });
    expect(taskOf(wanted('echo', { pattern: PARTS }))).toMatchObject({ echo: true, parts: [], text: '4/4 q q h' });
    expect(taskOf(wanted('take'))).toMatchObject({ patternId: (ROPE as { id: string }).id, parts: [], echo: false });
  });

  it('makes nothing of nothing', () => {
    expect(taskOf(wanted('write', { pattern: undefined, met: [] }))).toBeUndefined();
    expect(all.filter((doing) => !needsRhythm(doing))).toEqual(['signs', 'values']);
  });
});
