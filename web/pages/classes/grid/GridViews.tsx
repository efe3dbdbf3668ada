import { perLanguage, t } from '../../../../core/words/say.ts';
import { ViewsChoice } from '../../../ui/ViewsChoice.tsx';
import type { GridView } from './gridCells.ts';

const VIEWS = perLanguage((): readonly (readonly [GridView, string])[] => [
  ['patterns', t`Patterns`],
  ['elements', t`Elements`],
]);

/** Patterns or elements beside the children. */
export function GridViews({ view, onView }: { view: GridView; onView: (view: GridView) => void }) {
  return <ViewsChoice name="grid-view" views={VIEWS()} view={view} onView={onView} />;
}
