import { useCallback, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Child } from '../../../contract/child.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import type { Teacher } from '../../../contract/session.ts';
import type { SimulatedChild } from '../../../core/judging/simulatedChild.ts';
import type { Part } from '../../../core/rhythm/score.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { type TakePart, soundsOfOthers } from '../../take/takePart.ts';
import { practise } from './practise.ts';
import { usePartChoice } from './usePartChoice.ts';
import type { RecordingTake } from './useRecordings.ts';
import { bpmOf, useHearing } from './useHearing.ts';
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

/** The same child has both parts. */
export const SAME = 'same';

/** Who has the second part: the next in the list, the same child, or somebody who was chosen. */
function secondOf(children: readonly Child[], child: Child, chosen: string): Child {
  if (chosen === SAME) return child;
  const after = children[(children.indexOf(child) + 1) % children.length]!;
  return children.find(({ id }) => id === chosen && id !== child.id) ?? after;
}

interface Setting {
  readonly teacher: Teacher;
  readonly schoolClass: ClassDetail;
  readonly parts: readonly TakePart[];
  readonly scoreParts: readonly Part[];
}

/** Child after child on one pattern: whose turn it is, how it is heard, the take that was judged last. */
export function useSession({ teacher, schoolClass, parts, scoreParts }: Setting) {
  const { settings, set } = useTakeSettings();
  const [search] = useSearchParams();
  useAskedSettings(search, set);
  const { task } = settings;
  const { child, nextChild, following, setChildId } = useTurn(schoolClass.children);
  const voice = useMemo(() => voiceOf(schoolClass), [schoolClass]);
  const chosen = usePartChoice(parts, settings);
  const { part, secondPart } = chosen;
  const [withWhom, setWithWhom] = useState('');
  const other = secondOf(schoolClass.children, child, withWhom);
  const second = useMemo(() => secondPart && { part: secondPart, child: other }, [secondPart, other]);
  const bpm = bpmOf(settings.bpm, child, second);
  const plays = parts.length > 1 && chosen.playsOthers && settings.method === 'tap';
  const others = useMemo(
    () =>
      plays ? soundsOfOthers(scoreParts, [part.index, ...(secondPart ? [secondPart.index] : [])], bpm) : undefined,
    [plays, scoreParts, part, secondPart, bpm],
  );
  const hearing = useHearing({ teacherId: teacher.id, schoolClass, part, child, second, others, settings });
  const { run, show, judge, judgeNow } = hearing;
  const { cancel, showResult } = run;
  const again = useCallback(() => {
    show(undefined);
    cancel();
  }, [show, cancel]);
  // After two children come the two after them.
  const pairGoesOn = second !== undefined && second.child.id === following.id;
  const afterPair = secondOf(schoolClass.children, following, '');
  const next = useCallback(() => {
    setChildId(pairGoesOn ? afterPair.id : following.id);
    setWithWhom((before) => (before === SAME ? SAME : ''));
    again();
  }, [setChildId, following.id, afterPair.id, pairGoesOn, again]);
  const practiseOnce = async (practiceChild: SimulatedChild) => {
    const { bpm: tempo } = hearing.plan;
    const seed = Date.now() % 2 ** 31;
    const taken = await practise(part.rhythm, tempo, practiceChild, second ? 'claps' : task, seed);
    const beside = second && (await practise(second.part.rhythm, tempo, practiceChild, 'claps', seed + 1));
    show(judgeNow(beside ? { onsets: taken.onsets, feet: beside.onsets } : taken, 'practice', false));
    showResult();
  };
  const takeRecording = ({ childId, heard, start }: RecordingTake) => {
    const zero = start ?? 0;
    const onsets = heard.onsets.map((time) => Math.round((time - zero) * 1e4) / 1e4);
    const outline = { ...heard.outline, from: heard.outline.from - zero };
    const named = part.name === undefined ? undefined : { name: part.name };
    const origin = { childId, source: 'recording', free: start === undefined, part: named } as const;
    return judge({ onsets, outline }, origin)?.mark;
  };
  const turn = { child, nextChild: pairGoesOn ? afterPair : nextChild, setChildId, second, setWithWhom, chosen };
  return { ...turn, ...hearing, settings, set, voice, again, next, practiseOnce, takeRecording };
}
