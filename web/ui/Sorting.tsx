import { perLanguage, t } from '../../core/words/say.ts';
import {
  type Active,
  type Announcements,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  type Over,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  rectSortingStrategy,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import type { ReactNode } from 'react';
import './sorting.scss';

interface SortingProps {
  /** Of the things in their order; each is a sortable of this name. */
  readonly ids: readonly string[];
  readonly titleOf: (id: string) => string;
  /** A thing was put where another one stands. */
  readonly onMoved: (id: string, to: string) => void;
  /** They stand in rows, not only under each other. */
  readonly grid?: boolean;
  readonly children: ReactNode;
}

const HOW_TO_DRAG = perLanguage(
  () => t`Space takes it, the arrows move it, space puts it down, escape leaves it where it was.`,
);
/** Pixels a finger moves before it drags: a tap stays a tap. */
const DRAGS_FROM = 6;

/** Things that are put into order, by mouse, finger or keys. */
export function Sorting({ ids, titleOf, onMoved, grid = false, children }: SortingProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAGS_FROM } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const placed = ({ active, over }: { active: Active; over: Over | null }) =>
    over ? t`${titleOf(String(active.id))}: place ${ids.indexOf(String(over.id)) + 1} of ${ids.length}.` : undefined;
  const announcements: Announcements = {
    onDragStart: ({ active }) => t`${titleOf(String(active.id))} is taken.`,
    onDragOver: placed,
    onDragEnd: placed,
    onDragCancel: ({ active }) => t`${titleOf(String(active.id))} stays where it was.`,
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) onMoved(String(active.id), String(over.id));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={dropped}
      accessibility={{ announcements, screenReaderInstructions: { draggable: HOW_TO_DRAG() } }}
    >
      <SortableContext items={[...ids]} strategy={grid ? rectSortingStrategy : verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}
