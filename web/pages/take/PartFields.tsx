import { t } from '../../../core/words/say.ts';
import Form from 'react-bootstrap/Form';
import type { Child } from '../../../contract/child.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { SelectField } from '../../ui/SelectField.tsx';
import type { Second } from './useHearing.ts';
import type { usePartChoice } from './usePartChoice.ts';
import { SAME } from './useSession.ts';
import type { TakeSettings } from './useTakeSettings.ts';

interface PartFieldsProps {
  readonly schoolClass: ClassDetail;
  readonly child: Child;
  readonly chosen: ReturnType<typeof usePartChoice>;
  readonly second: Second | undefined;
  readonly settings: TakeSettings;
  readonly setWithWhom: (whom: string) => void;
}

/** Of a pattern in parts: which one, or which two at once, who has the other, and whether the app plays the rest. */
export function PartFields({ schoolClass, child, chosen, second, settings, setWithWhom }: PartFieldsProps) {
  const { choice, choices, choose, playsOthers, setPlaysOthers } = chosen;
  const all = choices.filter(([one]) => !one.includes('+')).length;
  const taken = second ? 2 : 1;
  const others = schoolClass.children.filter(({ id }) => id !== child.id);
  return (
    <div className="choices part-fields">
      <SelectField id="take-part" label={t`Part`} value={choice} options={choices} onChoose={choose} />
      {second && (
        <SelectField
          id="take-with"
          label={t`${second.part.name ?? ''} is clapped by`}
          value={second.child.id === child.id ? SAME : second.child.id}
          options={[
            [SAME, t`${child.name} too, with both hands or feet`],
            ...others.map(({ id, name }) => [id, name] as const),
          ]}
          onChoose={setWithWhom}
        />
      )}
      {all > taken && (
        <Form.Check
          type="switch"
          id="take-others"
          label={settings.method === 'tap' ? t`The app plays the others` : t`The app plays the others: only with taps`}
          disabled={settings.method !== 'tap'}
          checked={playsOthers && settings.method === 'tap'}
          onChange={({ target }) => setPlaysOthers(target.checked)}
        />
      )}
    </div>
  );
}
