import { useCallback, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Child } from '../../../contract/child.ts';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import type { Teacher } from '../../../contract/session.ts';
import type { SimulatedChild } from '../../../core/judging/simulatedChild.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { practise } from './practise.ts';
import type { RecordingTake } from './useRecordings.ts';
import { useHearing } from './useHearing.ts';
import { useAskedSettings, useTakeSettings } from './useTakeSettings.ts';

export type Session = ReturnType<typeof useSession>;

/** Whose turn it is. */
function useTurn(children: readonly Child[]) {
  const [search] = useSearchParams();
  const [childId, setChildId] = useState(search.get('child') ?? children[0]!.id);
  const found = children.findIndex(({ id }) => id === childId);
  const at = Math.max(0, found);
  const following = children[(at + 1) % children.length]!;
  return { child: children[at]!, nextChild: children.length > 1 ? following : undefined, following, setChildId };
}

interface Setting {
  readonly teacher: Teacher;
  readonly schoolClass: ClassDetail;
  readonly pattern: SavedPattern;
  readonly rhythm: Pattern;
}

/** Child after child on one pattern: whose turn it is, how it is heard, the take that was judged last. */
export function useSession({ teacher, schoolClass, pattern, rhythm }: Setting) {
  const { settings, set } = useTakeSettings();
  const [search] = useSearchParams();
  useAskedSettings(search, set);
  const { task } = settings;
  const { child, nextChild, following, setChildId } = useTurn(schoolClass.children);
  const voice = useMemo(() => voiceOf(schoolClass), [schoolClass]);
  const hearing = useHearing({ teacherId: teacher.id, schoolClass, pattern, rhythm, child, settings });
  const { run, show, judge } = hearing;
  const { cancel, showResult } = run;
  const again = useCallback(() => {
    show(undefined);
    cancel();
  }, [show, cancel]);
  const next = useCallback(() => {
    setChildId(following.id);
    again();
  }, [setChildId, following.id, again]);
  const practiseOnce = async (practiceChild: SimulatedChild) => {
    const taken = await practise(rhythm, hearing.plan.bpm, practiceChild, task, Date.now() % 2 ** 31);
    show(judge(taken, { childId: child.id, source: 'practice', free: false }));
    showResult();
  };
  const takeRecording = ({ childId, heard, start }: RecordingTake) => {
    const zero = start ?? 0;
    const onsets = heard.onsets.map((time) => Math.round((time - zero) * 1e4) / 1e4);
    const outline = { ...heard.outline, from: heard.outline.from - zero };
    return judge({ onsets, outline }, { childId, source: 'recording', free: start === undefined })?.mark;
  };
  const turn = { child, nextChild, setChildId };
  return { ...turn, ...hearing, settings, set, voice, again, next, practiseOnce, takeRecording };
}
