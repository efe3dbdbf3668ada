import { t } from '../../../core/words/say.ts';
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
import { equal, toNumber } from '../../../core/rhythm/fraction.ts';
import { type Meter, meterLength } from '../../../core/rhythm/meter.ts';
import { measureText } from '../../../core/rhythm/text.ts';
import { beatsText } from '../../../core/wording/plurals.ts';
import { CardNotes } from '../../ruler/CardNotes.tsx';
import { useWidth } from '../../ruler/useWidth.ts';
import type { CardRow } from './useCards.ts';

/** Pixels of a whole note on a card: cards are as wide as they last, and fit on a phone. */
const WHOLE = 420;
const NARROWEST = 220;
const WIDEST = 900;
const AROUND = 70;

/** The row of cards: dragged, or chosen and changed. */
export function CardTable({ row }: { row: CardRow }) {
  const { cards, current, meter, choose, move } = row;
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const [ref, width] = useWidth();
  const total = cards.reduce((sum, card) => sum + toNumber(lengthOfCard(card)), 0);
  // A few fill the row, for a class reads them; many go over several rows, each as wide as it was.
  const filling = Math.min(WIDEST, (width - cards.length * AROUND) / Math.max(total, 1));
  const whole = Math.max(NARROWEST, Math.min(WHOLE, width - AROUND), filling);
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over) move(Number(active.id), Number(over.id));
  };
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={dropped}
      accessibility={{ screenReaderInstructions: { draggable: t`The keys beside it move it too.` } }}
    >
      <div ref={ref} />
      <ol className="card-row">
        {cards.map((card, i) => (
          <OnTable
            key={i}
            card={card}
            index={i}
            meter={meter}
            current={i === current}
            whole={whole}
            onChoose={() => choose(i)}
          />
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
  /** Pixels of a whole note. */
  readonly whole: number;
  readonly onChoose: () => void;
}

/** A card in a meter of its own, so that nothing is filled up. */
function patternOfCard(card: Card, meter: Meter) {
  const { n, d } = lengthOfCard(card);
  return cardsPattern([card], { upper: n * Math.max(1, meter.lower / d), lower: Math.max(meter.lower, d) });
}

function OnTable({ card, index, meter, current, whole, onChoose }: OnTableProps) {
  const { setNodeRef: dragged, listeners, transform } = useDraggable({ id: String(index) });
  const { setNodeRef: dropped, isOver } = useDroppable({ id: String(index) });
  const pattern = patternOfCard(card, meter);
  const style = transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : {};
  const text = card.faceDown ? t`turned over` : measureText({ meter, items: card.items });
  const beats = beatsText(beatsOfCard(card, meter));
  const isMeasure = equal(lengthOfCard(card), meterLength(meter));
  return (
    <li ref={dropped} className={isOver ? 'over' : ''}>
      <button
        ref={dragged}
        type="button"
        className={`rhythm-card ${current ? 'current' : ''} ${card.faceDown ? 'face-down' : ''}`}
        style={style}
        aria-label={t`Card ${index + 1}: ${text}, ${beats}`}
        aria-pressed={current}
        onClick={onChoose}
        {...listeners}
      >
        {pattern && <CardNotes pattern={pattern} whole={whole} bar={isMeasure} />}
        {card.faceDown && <span className="card-back">{beats}</span>}
      </button>
    </li>
  );
}
