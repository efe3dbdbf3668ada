import Form from 'react-bootstrap/Form';
import { REST_STYLES, type RestStyle, SCHOOL_IDS, type SchoolId } from '../../../core/counting/school.ts';
import { SCHOOLS } from '../../../core/counting/schools.ts';
import type { RulerSize } from '../../ruler/layout.ts';
import { REST_NAMES } from '../../../core/wording/restNames.ts';
import { useStored } from '../../ui/stored.ts';

export interface Lanes {
  readonly notes: boolean;
  readonly strips: boolean;
  readonly hands: boolean;
  readonly feet: boolean;
  readonly schools: readonly SchoolId[];
  readonly rests: RestStyle | undefined;
  readonly size: RulerSize;
}

const USUAL: Lanes = {
  notes: true,
  strips: true,
  hands: false,
  feet: false,
  schools: ['numbers', 'ta'],
  rests: undefined,
  size: 'desk',
};

function lanesFrom(text: string): Lanes {
  try {
    const found = JSON.parse(text) as Partial<Lanes>;
    const schools = Array.isArray(found.schools)
      ? (found.schools as unknown[]).flatMap((id) => SCHOOL_IDS.find((known) => known === id) ?? [])
      : USUAL.schools;
    const rests = REST_STYLES.find((style) => style === found.rests);
    return {
      notes: found.notes !== false,
      strips: found.strips !== false,
      hands: found.hands === true,
      feet: found.feet === true,
      schools,
      rests,
      size: found.size === 'board' ? 'board' : 'desk',
    };
  } catch {
    return USUAL;
  }
}

/** Which lanes this device shows. */
export function useLanes(): { value: Lanes; set: (change: Partial<Lanes>) => void } {
  const [text, setText] = useStored('lanes', JSON.stringify(USUAL));
  const value = lanesFrom(text);
  return { value, set: (change) => setText(JSON.stringify({ ...value, ...change })) };
}

const NONE = '';

export function LaneChooser({ lanes: { value, set } }: { lanes: ReturnType<typeof useLanes> }) {
  const school = (place: number, id: string) => {
    const schools = [value.schools[0], value.schools[1]];
    schools[place] = id === NONE ? undefined : (id as SchoolId);
    set({ schools: schools.filter((chosen) => chosen !== undefined) });
  };
  return (
    <div className="lane-chooser no-print">
      <Form.Check
        type="switch"
        id="lane-notes"
        label="Notes"
        checked={value.notes}
        onChange={(event) => set({ notes: event.target.checked })}
      />
      <Form.Check
        type="switch"
        id="lane-strips"
        label="Strips"
        checked={value.strips}
        onChange={(event) => set({ strips: event.target.checked })}
      />
      <Form.Check
        type="switch"
        id="lane-hands"
        label="Hands"
        checked={value.hands}
        onChange={(event) => set({ hands: event.target.checked })}
      />
      <Form.Check
        type="switch"
        id="lane-feet"
        label="Feet"
        checked={value.feet}
        onChange={(event) => set({ feet: event.target.checked })}
      />
      {[0, 1].map((place) => (
        <Form.Select
          key={place}
          size="sm"
          aria-label={place === 0 ? 'Counts' : 'Second counts'}
          value={value.schools[place] ?? NONE}
          onChange={(event) => school(place, event.target.value)}
        >
          <option value={NONE}>{place === 0 ? 'No counts' : 'No second counts'}</option>
          {Object.values(SCHOOLS).map(({ id, title }) => (
            <option key={id} value={id}>
              {title}
            </option>
          ))}
        </Form.Select>
      ))}
      <Form.Select
        size="sm"
        aria-label="Rests"
        value={value.rests ?? NONE}
        onChange={(event) => set({ rests: REST_STYLES.find((style) => style === event.target.value) })}
      >
        <option value={NONE}>Rests as the school does</option>
        {REST_STYLES.map((style) => (
          <option key={style} value={style}>
            Rests {REST_NAMES[style]}
          </option>
        ))}
      </Form.Select>
      <Form.Check
        type="switch"
        id="lane-size"
        label="Board size"
        checked={value.size === 'board'}
        onChange={(event) => set({ size: event.target.checked ? 'board' : 'desk' })}
      />
    </div>
  );
}
