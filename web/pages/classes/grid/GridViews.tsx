import { ViewsChoice } from '../../../ui/ViewsChoice.tsx';
import type { GridView } from './gridCells.ts';

const VIEWS: readonly (readonly [GridView, string])[] = [
  ['patterns', 'Patterns'],
  ['elements', 'Elements'],
];

/** Patterns or elements beside the children. */
export function GridViews({ view, onView }: { view: GridView; onView: (view: GridView) => void }) {
  return <ViewsChoice name="grid-view" views={VIEWS} view={view} onView={onView} />;
}
