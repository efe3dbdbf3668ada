import { perLanguage, t } from '../../core/words/say.ts';
import { useMemo } from 'react';
import type { CountOptions } from '../../core/counting/count.ts';
import Form from 'react-bootstrap/Form';
import { REST_STYLES, type RestStyle } from '../../core/counting/countingSystem.ts';
import {
  COUNTING_SYSTEM_CHOICES,
  COUNTING_SYSTEM_IDS,
  type CountingSystemId,
} from '../../core/counting/countingSystems.ts';
import { type ClassWords, countsOf } from '../../core/wording/voice.ts';
import { REST_NAMES } from '../../core/wording/restNames.ts';
import type { RulerSize } from '../../drawing/system.ts';
import { Select } from '../ui/Select.tsx';
import { storedThing } from '../store/stored.ts';

export interface Lanes {
  readonly notes: boolean;
  readonly strips: boolean;
  readonly hands: boolean;
  readonly feet: boolean;
  readonly schools: readonly CountingSystemId[];
  readonly rests: RestStyle | undefined;
  readonly size: RulerSize;
  /** Two parts have one line of notes. */
  readonly oneLine: boolean;
}

const USUAL_SCHOOLS: readonly CountingSystemId[] = ['numbers', 'ta'];

function lanesFrom(kept: unknown): Lanes {
  const found = (kept ?? {}) as Partial<Lanes>;
  return {
    notes: found.notes !== false,
    strips: found.strips !== false,
    hands: found.hands === true,
    feet: found.feet === true,
    schools: Array.isArray(found.schools)
      ? (found.schools as unknown[]).flatMap((id) => COUNTING_SYSTEM_IDS.find((known) => known === id) ?? [])
      : USUAL_SCHOOLS,
    rests: REST_STYLES.find((style) => style === found.rests),
    size: found.size === 'board' ? 'board' : 'desk',
    oneLine: found.oneLine === true,
  };
}

const LANES = storedThing('lanes', lanesFrom);

/** Which lanes this device shows. */
export function useLanes(): { readonly lanes: Lanes; readonly set: (change: Partial<Lanes>) => void } {
  const [lanes, setLanes] = LANES.use();
  return { lanes, set: (change) => setLanes({ ...lanes, ...change }) };
}

/** The ways of counting that are shown, in the words of the class. */
export function useCounts({ schools, rests }: Lanes, words: ClassWords | undefined): readonly CountOptions[] {
  return useMemo(
    () =>
      schools.map((school): CountOptions => ({
        ...(words ? countsOf(words, school) : { school }),
        ...(rests ? { rests } : {}),
      })),
    [schools, rests, words],
  );
}

const NONE = '';
const COUNTS = perLanguage(() => [t`Counts`, t`Second counts`] as const);
const NO_COUNTS = perLanguage(() => [t`No counts`, t`No second counts`] as const);
const SWITCHES = perLanguage(
  () =>
    [
      ['notes', t`Notes`],
      ['strips', t`Strips`],
      ['hands', t`Hands`],
      ['feet', t`Feet`],
    ] as const,
);
const RESTS = perLanguage((): readonly (readonly [RestStyle | typeof NONE, string])[] => [
  [NONE, t`Rests as the school does`],
  ...REST_STYLES.map((style) => [style, t`Rests ${REST_NAMES()[style]}`] as const),
]);

export function LaneChooser({
  lanes,
  set,
  parts = 1,
}: ReturnType<typeof useLanes> & { readonly parts?: number | undefined }) {
  const chooseSchool = (place: number, id: CountingSystemId | typeof NONE) => {
    const schools: (CountingSystemId | undefined)[] = [lanes.schools[0], lanes.schools[1]];
    schools[place] = id === NONE ? undefined : id;
    set({ schools: schools.filter((chosen) => chosen !== undefined) });
  };
  return (
    <div className="lane-chooser no-print">
      {SWITCHES().map(([lane, label]) => (
        <Form.Check
          key={lane}
          type="switch"
          id={`lane-${lane}`}
          label={label}
          checked={lanes[lane]}
          onChange={(event) => set({ [lane]: event.target.checked })}
        />
      ))}
      {COUNTS().map((label, place) => (
        <Select
          key={label}
          size="sm"
          label={label}
          value={lanes.schools[place] ?? NONE}
          options={[[NONE, NO_COUNTS()[place]!], ...COUNTING_SYSTEM_CHOICES()]}
          onChoose={(id) => chooseSchool(place, id)}
        />
      ))}
      <Select
        size="sm"
        label={t`Rests`}
        value={lanes.rests ?? NONE}
        options={RESTS()}
        onChoose={(rests) => set({ rests: rests === NONE ? undefined : rests })}
      />
      <Form.Check
        type="switch"
        id="lane-size"
        label={t`Board size`}
        checked={lanes.size === 'board'}
        onChange={(event) => set({ size: event.target.checked ? 'board' : 'desk' })}
      />
      {parts === 2 && (
        <Form.Check
          type="switch"
          id="lane-one-line"
          label={t`Both parts on one line`}
          checked={lanes.oneLine}
          onChange={(event) => set({ oneLine: event.target.checked })}
        />
      )}
    </div>
  );
}
