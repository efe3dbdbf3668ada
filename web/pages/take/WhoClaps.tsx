import { t } from '../../../core/words/say.ts';
import type { Child } from '../../../contract/child.ts';
import type { ClassRecords } from '../../../contract/records.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { useRecords } from '../../api/hooks.ts';

/** Who has a take of a pattern. */
export function heardIn({ children, patterns, marks }: ClassRecords, patternId: string): ReadonlySet<string> {
  const column = patterns.findIndex(({ key }) => key === patternId);
  return new Set(marks.filter(({ pattern }) => pattern === column).map(({ child }) => children[child]!));
}

interface WhoClapsProps {
  readonly schoolClass: ClassDetail;
  /** Under which its takes stand. */
  readonly patternKey: string;
  readonly child: Child;
  readonly onChild: (id: string) => void;
}

/** The children of the class; who has a take of this pattern has a tick. */
export function WhoClaps({ schoolClass, patternKey, child, onChild }: WhoClapsProps) {
  const { data } = useRecords(schoolClass.id);
  const heard = data ? heardIn(data, patternKey) : new Set<string>();
  return (
    <fieldset className="children">
      <legend>{t`Who claps?`}</legend>
      {schoolClass.children.map(({ id, name }) => (
        <label key={id} className={`child-choice ${id === child.id ? 'chosen' : ''}`}>
          <input type="radio" name="child" checked={id === child.id} onChange={() => onChild(id)} />
          {name}
          {heard.has(id) && (
            <span className="heard-before" title={t`has a take of this pattern`}>
              ✓<span className="visually-hidden"> {t`has a take of this pattern`}</span>
            </span>
          )}
        </label>
      ))}
    </fieldset>
  );
}
