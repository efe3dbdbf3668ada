import { t } from '../../../core/words/say.ts';
import { SelectField } from '../../ui/SelectField.tsx';
import { ToggleRow } from './ToggleRow.tsx';
import type { ReadPattern } from './earSettings.ts';

/** Chosen: nothing but what the class has met. */
export const MADE = '';

interface HeardFromProps {
  readonly id: string;
  readonly patterns: readonly ReadPattern[];
  /** A pattern's id, or `MADE`. */
  readonly chosen: string;
  readonly onChoose: (id: string) => void;
  readonly measures: number;
  readonly onMeasures: (measures: number) => void;
}

/** What is heard: made up, so many measures long, or a pattern of the teacher. */
export function HeardFrom({ id, patterns, chosen, onChoose, measures, onMeasures }: HeardFromProps) {
  return (
    <div className="ear-below">
      <SelectField
        id={id}
        label={t`What is heard`}
        value={chosen}
        options={[[MADE, t`Made of what the class has met`], ...patterns.map((one) => [one.id, one.title] as const)]}
        onChoose={onChoose}
      />
      {chosen === MADE && (
        <ToggleRow
          label={t`How long`}
          value={measures}
          options={[
            [1, t`One measure`],
            [2, t`Two measures`],
          ]}
          onChoose={onMeasures}
        />
      )}
    </div>
  );
}
