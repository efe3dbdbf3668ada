import { useEffect, useRef, useState } from 'react';
import type { SavedPattern } from '../../../contract/school.ts';
import { barCheck, barSentence, type BarReport } from '../../../core/rhythm/barCheck.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { type TextError, parseRhythm } from '../../../core/rhythm/text.ts';
import { put } from '../../api/client.ts';
import { useRefresh } from '../../api/hooks.ts';
import { readStored, writeStored } from '../../ui/stored.ts';

export interface Draft {
  readonly title: string;
  readonly text: string;
}

/** What is wrong, if anything, and the last reading that made sense. */
export interface DraftParse {
  readonly pattern: Pattern | undefined;
  readonly error: TextError | undefined;
  readonly bars: readonly BarReport[];
  readonly barTrouble: readonly string[];
}

export type SaveState = 'saved' | 'saving' | 'on-device' | 'unfinished';

const SAVE_AFTER_MS = 700;
const AGAIN_MS = 4_000;
export const UNTITLED = 'Untitled';

const keyOf = (id: string) => `draft:${id}`;

function storedDraft(id: string): Draft | undefined {
  try {
    const draft = JSON.parse(readStored(keyOf(id)) ?? 'null') as Partial<Draft> | null;
    return draft && typeof draft.title === 'string' && typeof draft.text === 'string'
      ? { title: draft.title, text: draft.text }
      : undefined;
  } catch {
    return undefined;
  }
}

export function parseDraft(text: string, before: Pattern | undefined): DraftParse {
  if (text.trim() === '') return { pattern: undefined, error: undefined, bars: [], barTrouble: [] };
  const parsed = parseRhythm(text);
  if (!parsed.ok) return { pattern: before, error: parsed.at, bars: [], barTrouble: [] };
  const bars = barCheck(parsed.pattern);
  return { pattern: parsed.pattern, error: undefined, bars, barTrouble: bars.flatMap((bar) => barSentence(bar) ?? []) };
}

/**
 * A pattern being written. Each keystroke is kept on this device at once, and sent to the server when the text makes
 * sense and the typing rests; what the server does not have yet stays here, through a reload too.
 */
export function useDraft(
  id: string,
  saved: SavedPattern | undefined,
): { draft: Draft; reading: DraftParse; state: SaveState; problem: Error | undefined; change: (draft: Draft) => void } {
  const [draft, setDraft] = useState<Draft>(
    () => storedDraft(id) ?? { title: saved?.title ?? '', text: saved?.text ?? '' },
  );
  const [reading, setReading] = useState(() =>
    parseDraft(draft.text, saved && parseDraft(saved.text, undefined).pattern),
  );
  const [kept, setKept] = useState<Draft | undefined>(saved && { title: saved.title, text: saved.text });
  const [problem, setProblem] = useState<Error>();
  const [attempt, setAttempt] = useState(0);
  const refresh = useRefresh();
  // The list at hand may be older than the pattern: what arrives later fills a page on which nothing was written yet.
  if (saved && kept === undefined && draft.title === '' && draft.text === '') {
    setDraft({ title: saved.title, text: saved.text });
    setReading(parseDraft(saved.text, undefined));
    setKept({ title: saved.title, text: saved.text });
  }
  const title = draft.title.trim() || UNTITLED;
  const complete = reading.pattern !== undefined && !reading.error && reading.barTrouble.length === 0;
  const isKept = kept?.text === draft.text && kept.title === title;

  const sendRef = useRef<() => Promise<void>>(async () => {});
  useEffect(() => {
    sendRef.current = async () => {
      const sent = { title, text: draft.text };
      try {
        await put(`/patterns/${id}`, sent);
        setKept(sent);
        setProblem(undefined);
        // Only what is still on the page: the next keystroke may have come meanwhile.
        if (storedDraft(id)?.text === sent.text) writeStored(keyOf(id), undefined);
        await refresh('/patterns');
      } catch (error) {
        setProblem(error as Error);
        setTimeout(() => setAttempt((n) => n + 1), AGAIN_MS);
      }
    };
  });
  useEffect(() => {
    if (!complete || isKept) return undefined;
    const timer = setTimeout(() => void sendRef.current(), SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [complete, isKept, draft, attempt]);
  // Leaving the view must not wait for the timer.
  const unsent = useRef(false);
  useEffect(() => {
    unsent.current = complete && !isKept;
  });
  useEffect(() => () => void (unsent.current && sendRef.current()), []);

  const change = (next: Draft) => {
    setDraft(next);
    writeStored(keyOf(id), JSON.stringify(next));
    if (next.text !== draft.text) setReading((before) => parseDraft(next.text, before.pattern));
  };
  const state: SaveState = !complete ? 'unfinished' : isKept ? 'saved' : problem ? 'on-device' : 'saving';
  return { draft, reading, state, problem, change };
}
