import { type Scale, highestOf, markLabel } from '../../../../core/judging/scale.ts';
import { Select } from '../../../ui/Select.tsx';

const COMPUTED = '';

interface MarkChoiceProps {
  readonly id?: string;
  readonly label?: string;
  readonly scale: Scale;
  /** The teacher's own mark; null leaves it as computed. */
  readonly mark: number | null;
  /** What the list calls the computed mark. */
  readonly computed: string;
  readonly onMark: (mark: number | null) => void;
}

/** The teacher's own mark, or the computed one. */
export function MarkChoice({ id, label, scale, mark, computed, onMark }: MarkChoiceProps) {
  const highest = highestOf(scale);
  const marks = Array.from({ length: highest + 1 }, (_, i) => highest - i);
  return (
    <Select
      {...(id === undefined ? {} : { id })}
      {...(label === undefined ? {} : { label })}
      size="sm"
      value={mark === null ? COMPUTED : String(mark)}
      options={[[COMPUTED, computed], ...marks.map((one) => [String(one), markLabel(one, scale)] as const)]}
      onChoose={(chosen) => onMark(chosen === COMPUTED ? null : Number(chosen))}
    />
  );
}
