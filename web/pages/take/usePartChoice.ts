import { useMemo } from 'react';
import { type TakePart, chosenParts, partChoices } from '../../take/takePart.ts';
import { useStored } from '../../store/stored.ts';
import type { TakeSettings } from './useTakeSettings.ts';

const YES = 'yes';
const NO = 'no';

/** Which part is heard, or which two, and whether the app plays the others: remembered on this device. */
export function usePartChoice(parts: readonly TakePart[], { method }: Pick<TakeSettings, 'method'>) {
  const [stored, choose] = useStored('take.part', '0');
  const [plays, setPlays] = useStored('take.others', YES);
  // Two at once are two keys: a microphone hears one.
  const choices = useMemo(
    () => partChoices(parts).filter(([choice]) => method === 'tap' || !choice.includes('+')),
    [parts, method],
  );
  const choice = choices.some(([one]) => one === stored) ? stored : '0';
  const [part, secondPart] = useMemo(() => chosenParts(choice, parts), [choice, parts]);
  return {
    choice,
    choices,
    choose,
    part,
    secondPart,
    playsOthers: plays !== NO,
    setPlaysOthers: (on: boolean) => setPlays(on ? YES : NO),
  };
}
