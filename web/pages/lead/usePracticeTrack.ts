import { t } from '../../../core/words/say.ts';
import { useEffect, useRef, useState } from 'react';
import type { Timetable } from '../../../core/leading/timetable.ts';
import { durationText } from '../../../core/wording/leadWords.ts';
import { makeTrack } from '../../audio/makeTrack.ts';
import { loudness } from '../../audio/mixer.ts';
import { saveFile } from '../../ui/saveFile.ts';
import type { SoundSettings } from './SoundPanel.tsx';
import { CHANNEL_IDS, type Channel } from '../../../core/leading/cueSounds.ts';

const LONGEST_SECONDS = 15 * 60;

/** Renders a run as a WAV file. `part` is how far it is, 0 to 1. */
export function usePracticeTrack() {
  const [part, setPart] = useState<number>();
  const [problem, setProblem] = useState<string>();
  const going = useRef<AbortController>(undefined);
  useEffect(() => () => going.current?.abort(), []);

  /** @param missing  index of the part that is left out, of several */
  const make = async (table: Timetable, { levels, clapAs }: SoundSettings, name: string, missing?: number) => {
    const { cues, seconds, sections } = table;
    if (seconds > LONGEST_SECONDS) {
      setProblem(t`A sound file is at most 15 minutes long; this run takes ${durationText(seconds)}.`);
      return;
    }
    setProblem(undefined);
    setPart(0);
    const { signal } = (going.current = new AbortController());
    const loud = Object.fromEntries(CHANNEL_IDS.map((id) => [id, loudness(levels[id])])) as Record<Channel, number>;
    const track = { cues, seconds, levels: loud, clapAs, parts: sections[0]!.parts.length, missing };
    try {
      saveFile(name, await makeTrack(track, setPart, signal));
    } catch {
      if (!signal.aborted) setProblem(t`The sound file could not be made. Reload the page and try again.`);
    }
    setPart(undefined);
  };
  return { part, problem, make };
}
