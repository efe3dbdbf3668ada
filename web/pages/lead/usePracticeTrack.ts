import { useEffect, useRef, useState } from 'react';
import type { Recording } from '../../../core/leading/practiceTrack.ts';
import type { Timetable } from '../../../core/leading/timetable.ts';
import { durationText } from '../../../core/wording/leadWords.ts';
import { loudness } from '../../audio/mixer.ts';
import { SoundBank } from '../../audio/soundBank.ts';
import type { TrackAnswer, TrackRequest } from '../../audio/trackMessages.ts';
import { saveFile } from '../../ui/saveFile.ts';
import type { SoundSettings } from './SoundPanel.tsx';
import { CHANNEL_IDS, type Channel } from '../../../core/leading/cueSounds.ts';

const LONGEST_SECONDS = 15 * 60;
/** The rate most players take; the recordings are brought to it when they are decoded. */
const SAMPLE_RATE = 44_100;

/** Renders a run as a WAV file, in a worker. `part` is how far it is, 0 to 1. */
export function usePracticeTrack() {
  const [part, setPart] = useState<number>();
  const [problem, setProblem] = useState<string>();
  const worker = useRef<Worker>(undefined);
  useEffect(() => () => worker.current?.terminate(), []);

  /** @param missing  index of the part that is left out, of several */
  const make = async (table: Timetable, { levels, clapAs }: SoundSettings, name: string, missing?: number) => {
    if (table.seconds > LONGEST_SECONDS) {
      setProblem(`A sound file is at most 15 minutes long; this run takes ${durationText(table.seconds)}.`);
      return;
    }
    setProblem(undefined);
    setPart(0);
    const bank = new SoundBank(new OfflineAudioContext(1, 1, SAMPLE_RATE));
    await bank.prepare(table.cues, clapAs);
    const words = new Map(
      [...bank.words()].map(([word, { buffer, lead }]): [string, Recording] => [
        word,
        { samples: buffer.getChannelData(0).slice(), vowel: lead },
      ]),
    );
    const loud = Object.fromEntries(CHANNEL_IDS.map((id) => [id, loudness(levels[id])])) as Record<Channel, number>;
    const making = new Worker(new URL('../../workers/practiceTrack.worker.ts', import.meta.url), { type: 'module' });
    worker.current = making;
    making.addEventListener('message', ({ data }: MessageEvent<TrackAnswer>) => {
      if ('done' in data) {
        setPart(data.done);
        return;
      }
      saveFile(name, data.file);
      setPart(undefined);
      making.terminate();
    });
    making.addEventListener('error', () => {
      setProblem('The sound file could not be made. Reload the page and try again.');
      setPart(undefined);
    });
    const request: TrackRequest = {
      cues: table.cues,
      options: {
        sampleRate: SAMPLE_RATE,
        seconds: table.seconds,
        levels: loud,
        clapAs,
        words,
        ...(missing === undefined ? {} : { missing }),
      },
      parts: table.sections[0]!.parts.length,
    };
    making.postMessage(request);
  };
  return { part, problem, make };
}
