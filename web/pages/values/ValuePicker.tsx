import { t } from '../../../core/words/say.ts';
import Button from 'react-bootstrap/Button';
import type { Part } from '../../../core/exercises/valueSums.ts';
import { partName } from '../../../core/wording/sumWords.ts';
import { type NamingId, withArticle } from '../../../core/wording/valueNames.ts';
import { type NoteValue, VALUES } from '../../../core/rhythm/value.ts';
import { NoteSign } from '../../ui/signs/NoteSign.tsx';

const OFFERED: readonly NoteValue[] = VALUES.filter(({ letter }) => letter !== 't').flatMap(({ letter }) => [
  { base: letter, dots: 0 as const },
  ...(letter === 'w' || letter === 's' ? [] : [{ base: letter, dots: 1 as const }]),
]);

/** Every value as a button, notes in one row and rests in the next. */
export function ValuePicker({
  naming,
  onPick,
  label,
}: {
  naming: NamingId;
  onPick: (part: Part) => void;
  label: string;
}) {
  return (
    <div className="value-picker" role="group" aria-label={label}>
      {(['note', 'rest'] as const).map((kind) => (
        <div key={kind}>
          {OFFERED.map((value) => {
            const part = { kind, value };
            const name = partName(part, naming);
            return (
              <Button
                key={name}
                variant="outline-dark"
                title={name}
                aria-label={t`Add ${withArticle(name)}`}
                onClick={() => onPick(part)}
              >
                <NoteSign value={value} rest={kind === 'rest'} />
              </Button>
            );
          })}
        </div>
      ))}
    </div>
  );
}
