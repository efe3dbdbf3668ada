import { t } from '../../../core/words/say.ts';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, GripVertical, X } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { ELEMENT_IDS, type ElementId } from '../../../core/rhythm/elements.ts';
import { elementName } from '../../../core/wording/planWords.ts';
import { type NamingId, capital } from '../../../core/wording/valueNames.ts';
import { Select } from '../../ui/Select.tsx';
import { Sorting } from '../../ui/Sorting.tsx';
import { moved } from '../../ui/lists.ts';

interface NewElementsProps {
  readonly order: readonly ElementId[];
  readonly met: ReadonlyMap<ElementId, unknown>;
  readonly naming: NamingId;
  readonly onOrder: (order: readonly ElementId[]) => void;
}

/** What is new this term, in the teacher's order: dragged, or moved by arrows. */
export function NewElements({ order, met, naming, onOrder }: NewElementsProps) {
  const name = (id: ElementId) => capital(elementName(id, naming));
  const others = ELEMENT_IDS.filter((id) => id !== 'quarter' && !order.includes(id));
  const placeOf = (id: string) => order.findIndex((one) => one === id);
  return (
    <section aria-label={t`Elements of this term`}>
      <h2>{t`This term, in this order`}</h2>
      <Sorting
        ids={order}
        titleOf={(id) => name(order[placeOf(id)]!)}
        onMoved={(id, to) => onOrder(moved(order, placeOf(id), placeOf(to)))}
      >
        <ol className="new-elements">
          {order.map((id, at) => (
            <ElementRow
              key={id}
              id={id}
              title={name(id)}
              known={met.has(id)}
              first={at === 0}
              last={at === order.length - 1}
              onMove={(by) => onOrder(moved(order, at, at + by))}
              onDrop={() => onOrder(order.filter((one) => one !== id))}
            />
          ))}
        </ol>
      </Sorting>
      {others.length > 0 && (
        <Select
          size="sm"
          className="w-auto"
          label={t`Another element`}
          value=""
          options={[
            ['', t`Add …`] as const,
            ...others.map((id) => [id, met.has(id) ? t`${name(id)} (met)` : name(id)] as const),
          ]}
          onChoose={(id) => {
            const found = others.find((one) => one === id);
            if (found) onOrder([...order, found]);
          }}
        />
      )}
    </section>
  );
}

interface ElementRowProps {
  readonly id: ElementId;
  readonly title: string;
  readonly known: boolean;
  readonly first: boolean;
  readonly last: boolean;
  readonly onMove: (by: -1 | 1) => void;
  readonly onDrop: () => void;
}

function ElementRow({ id, title, known, first, last, onMove, onDrop }: ElementRowProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id });
  const style = { transform: CSS.Translate.toString(transform), transition };
  return (
    <li ref={setNodeRef} style={style}>
      <button type="button" className="grip" aria-label={t`Drag ${title}`} {...attributes} {...listeners}>
        <GripVertical size={16} aria-hidden />
      </button>
      <span>
        {title}
        {known && <small> {t`met`}</small>}
      </span>
      <Button size="sm" variant="link" aria-label={t`${title} earlier`} disabled={first} onClick={() => onMove(-1)}>
        <ArrowUp size={16} aria-hidden />
      </Button>
      <Button size="sm" variant="link" aria-label={t`${title} later`} disabled={last} onClick={() => onMove(1)}>
        <ArrowDown size={16} aria-hidden />
      </Button>
      <Button size="sm" variant="link" aria-label={t`Take ${title} away`} onClick={onDrop}>
        <X size={16} aria-hidden />
      </Button>
    </li>
  );
}
