import {
  DndContext,
  type DragEndEvent,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { type Card, beatsOfCard, cardsPattern, lengthOfCard } from '../../../core/ear/cards.ts';
import type { Meter } from '../../../core/rhythm/meter.ts';
import { measureText } from '../../../core/rhythm/text.ts';
import { beatsText } from '../../../core/wording/plurals.ts';
import { CardNotes } from '../../ruler/CardNotes.tsx';
import type { CardRow } from './useCards.ts';

/** The row of cards: dragged, or chosen and changed. */
export function CardTable({ row }: { row: CardRow }) {
  const { cards, current, meter, choose, move } = row;
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over) move(Number(active.id), Number(over.id));
  };
  return (
    <DndContext sensors={sensors} onDragEnd={dropped}>
      <ol className="card-row">
        {cards.map((card, i) => (
          <OnTable key={i} card={card} index={i} meter={meter} current={i === current} onChoose={() => choose(i)} />
        ))}
      </ol>
    </DndContext>
  );
}

interface OnTableProps {
  readonly card: Card;
  readonly index: number;
  readonly meter: Meter;
  readonly current: boolean;
  readonly onChoose: () => void;
}

/** A card in a meter of its own, so that nothing is filled up. */
function patternOfCard(card: Card, meter: Meter) {
  const { n, d } = lengthOfCard(card);
  return cardsPattern([card], { upper: n * Math.max(1, meter.lower / d), lower: Math.max(meter.lower, d) });
}

function OnTable({ card, index, meter, current, onChoose }: OnTableProps) {
  const { setNodeRef: dragged, listeners, transform } = useDraggable({ id: String(index) });
  const { setNodeRef: dropped, isOver } = useDroppable({ id: String(index) });
  const pattern = patternOfCard(card, meter);
  const style = transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : {};
  const text = card.faceDown ? 'turned over' : measureText({ meter, items: card.items });
  const beats = beatsText(beatsOfCard(card, meter));
  return (
    <li ref={dropped} className={isOver ? 'over' : ''}>
      <button
        ref={dragged}
        type="button"
        className={`rhythm-card ${current ? 'current' : ''} ${card.faceDown ? 'face-down' : ''}`}
        style={style}
        aria-label={`Card ${index + 1}: ${text}, ${beats}`}
        aria-pressed={current}
        onClick={onChoose}
        {...listeners}
      >
        {pattern && <CardNotes pattern={pattern} />}
        {card.faceDown && <span className="card-back">{beats}</span>}
      </button>
    </li>
  );
}
