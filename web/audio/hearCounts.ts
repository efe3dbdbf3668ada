import type { CountOptions } from '../../core/counting/count.ts';
import { type Plan, oncePlan } from '../../core/leading/plan.ts';
import { timetable } from '../../core/leading/timetable.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { Bpm } from '../../core/timing/units.ts';
import { audioContext, awake } from './context.ts';
import { LeadPlayer } from './leadPlayer.ts';
import { Mixer, USUAL_LEVELS } from './mixer.ts';
import { SoundBank } from './soundBank.ts';

/** Says a line once, counted as a class counts, after a count-in. @returns what silences it */
export async function hearCounts(pattern: Pattern, bpm: Bpm, counts: CountOptions): Promise<() => void> {
  const plan: Plan = { ...oncePlan(bpm, 'say'), countIn: 'two-beats', countInEach: false };
  const made = timetable(pattern, plan, counts);
  const context = audioContext();
  if (!made.ok || !context || !(await awake(context))) return () => undefined;
  const bank = new SoundBank(context);
  await bank.prepare(made.timetable.cues, 'clap');
  const player = new LeadPlayer(context, bank, new Mixer(context, USUAL_LEVELS), made.timetable, 'clap');
  player.start();
  return () => player.stop();
}
