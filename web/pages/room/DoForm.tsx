import { perLanguage, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useSearchParams } from 'react-router';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { RoomTask } from '../../../contract/room.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { canBeLaid } from '../../../core/ear/written.ts';
import { unfold } from '../../../core/rhythm/place.ts';
import { leadingPart } from '../../../core/rhythm/score.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import { useHeardElements } from '../../domain/heardElements.ts';
import { useOfferedPatterns } from '../../domain/offeredPatterns.ts';
import { useStored } from '../../store/stored.ts';
import { SelectField, titled } from '../../ui/SelectField.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { DOINGS, type Doing, canBeMade, needsRhythm, taskOf } from './makeTask.ts';

interface DoFormProps {
  readonly schoolClass: ClassDetail;
  readonly voice: Voice;
  readonly onBegin: (task: RoomTask) => void;
}

const MADE = '';
const LONGEST_CHOSEN = 4;
const TEMPI = ['50', '60', '66', '72', '80', '92', '100', '108'] as const;
const HEARD_BY = perLanguage(
  () =>
    [
      ['tap', t`Taps on the screen`],
      ['microphone', t`Claps, by microphone`],
    ] as const,
);
const newSeed = () => Math.floor(Math.random() * 1_000_000);

const doingIn = (asked: string | null): Doing =>
  (Object.keys(DOINGS()) as Doing[]).find((one) => one === asked) ?? 'take';

/** Whether a pattern can be given for it. */
function fitsDoing({ text }: SavedPattern, doing: Doing): boolean {
  const read = parseScore(text);
  if (!read.ok) return false;
  const { pattern } = leadingPart(read.score);
  if (doing === 'write') return canBeLaid(pattern);
  // Four of them stand beside each other.
  return doing !== 'choose' || unfold(pattern).measures.length <= LONGEST_CHOSEN;
}

/** What is chosen, and what is made of it. */
function useChoice({ schoolClass, voice, onBegin }: DoFormProps) {
  const [search] = useSearchParams();
  const patterns = useOfferedPatterns(undefined, schoolClass).data ?? [];
  const met = useHeardElements(schoolClass.id);
  const [doing, setDoing] = useState<Doing>(() => doingIn(search.get('do')));
  const [chosen, setChosen] = useState(search.get('pattern') ?? MADE);
  const [bpm, setBpm] = useStored('room.bpm', search.get('bpm') ?? '72');
  const [heardBy, setHeardBy] = useStored('room.heardBy', 'tap');
  const [trouble, setTrouble] = useState('');
  const fitting = patterns.filter((one) => fitsDoing(one, doing));
  const pattern = fitting.find(({ id }) => id === chosen) ?? (canBeMade(doing) ? undefined : fitting[0]);
  const begin = () => {
    const by = heardBy === 'microphone' ? ('microphone' as const) : ('tap' as const);
    const task = taskOf({ doing, pattern, bpm: Number(bpm), heardBy: by, met, voice, seed: newSeed() });
    setTrouble(task ? '' : t`Nothing can be made of this. Choose another rhythm.`);
    if (task) onBegin(task);
  };
  return { doing, setDoing, fitting, pattern, setChosen, bpm, setBpm, heardBy, setHeardBy, trouble, begin };
}

/** What all do at once: chosen in a line, and sent at a key. */
export function DoForm(props: DoFormProps) {
  const { doing, setDoing, fitting, pattern, setChosen, bpm, setBpm, heardBy, setHeardBy, trouble, begin } =
    useChoice(props);
  useKeys({ ' ': begin });
  const claps = doing === 'take' || doing === 'echo';
  return (
    <section className="room-do" aria-label={t`What all do`}>
      <SelectField
        id="room-doing"
        label={t`All at once`}
        value={doing}
        options={Object.entries(DOINGS()) as [Doing, string][]}
        onChoose={setDoing}
      />
      {needsRhythm(doing) && (
        <SelectField
          id="room-pattern"
          label={t`Rhythm`}
          value={pattern?.id ?? MADE}
          options={[
            ...(canBeMade(doing) ? ([[MADE, t`Made of what the class has met`]] as const) : []),
            ...titled(fitting),
          ]}
          onChoose={setChosen}
        />
      )}
      {needsRhythm(doing) && (
        <SelectField
          id="room-bpm"
          label={t`Tempo`}
          value={bpm}
          options={[...new Set([...TEMPI, bpm])]
            .sort((a, b) => Number(a) - Number(b))
            .map((one) => [one, one] as const)}
          onChoose={setBpm}
        />
      )}
      {claps && (
        <SelectField id="room-heard" label={t`Heard by`} value={heardBy} options={HEARD_BY()} onChoose={setHeardBy} />
      )}
      <Button size="lg" onClick={begin}>
        {rich`To all devices ${<kbd>{t`space`}</kbd>}`}
      </Button>
      {trouble && <p role="alert">{trouble}</p>}
    </section>
  );
}
