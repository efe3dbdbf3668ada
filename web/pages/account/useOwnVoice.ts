import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { put, remove } from '../../api/client.ts';
import { useSave } from '../../api/useSave.ts';
import { VOICE_PATH, useVoice } from '../../api/voice.ts';
import { WordQueue, replaced } from '../../store/wordQueue.ts';
import { later } from '../../ui/later.ts';

/** A teacher's voice while it is recorded: what the server has, and what is on its way there. */
export function useOwnVoice(teacherId: string) {
  const { data: voice, error, mutate } = useVoice();
  const [queue] = useState(
    () =>
      new WordQueue(teacherId, {
        send: (words) => put(`${VOICE_PATH}/words`, { words }),
        stored: (words) => mutate((now) => now && { ...now, words: replaced(now.words, words) }, { revalidate: false }),
        later: (action, ms) => void later(action, ms),
      }),
  );
  const { waiting, problem } = useSyncExternalStore(queue.subscribe, queue.moment);
  useEffect(() => queue.open(), [queue]);
  /** One word; all of them where none is named. */
  const removal = useSave(async (word: string | undefined) => {
    await queue.drop(word);
    await remove(word === undefined ? VOICE_PATH : `${VOICE_PATH}/words/${encodeURIComponent(word)}`);
    await mutate();
  });
  const said = useMemo(
    () => new Map(replaced(voice?.words ?? [], waiting).map((one) => [one.word, one] as const)),
    [voice, waiting],
  );
  const { keep } = queue;
  return {
    voice,
    said,
    waiting: waiting.length,
    error,
    mutate,
    problem: problem ?? removal.problem,
    keep,
    drop: removal.save,
  };
}

export type OwnVoice = ReturnType<typeof useOwnVoice>;
