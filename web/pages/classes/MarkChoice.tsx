import { HIGHEST_MARK } from '../../../core/judging/mark.ts';
import { Select } from '../../ui/Select.tsx';

const MARKS: readonly number[] = Array.from({ length: HIGHEST_MARK + 1 }, (_, i) => HIGHEST_MARK - i);
const COMPUTED = '';

interface MarkChoiceProps {
  readonly id?: string;
  readonly label?: string;
  /** The teacher's own mark; null leaves it as computed. */
  readonly mark: number | null;
  /** What the list calls the computed mark. */
  readonly computed: string;
  readonly onMark: (mark: number | null) => void;
}

/** The teacher's own mark, or the computed one. */
export function MarkChoice({ id, label, mark, computed, onMark }: MarkChoiceProps) {
  return (
    <Select
      {...(id === undefined ? {} : { id })}
      {...(label === undefined ? {} : { label })}
      size="sm"
      value={mark === null ? COMPUTED : String(mark)}
      options={[[COMPUTED, computed], ...MARKS.map((one) => [String(one), String(one)] as const)]}
      onChoose={(chosen) => onMark(chosen === COMPUTED ? null : Number(chosen))}
    />
  );
}
