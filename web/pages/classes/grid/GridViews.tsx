import type { GridView } from './gridCells.ts';

const VIEWS: readonly (readonly [GridView, string])[] = [
  ['patterns', 'Patterns'],
  ['elements', 'Elements'],
];

/** Patterns or elements beside the children. */
export function GridViews({ view, onView }: { view: GridView; onView: (view: GridView) => void }) {
  return (
    <fieldset className="grid-views">
      <legend className="visually-hidden">Show</legend>
      {VIEWS.map(([one, title]) => (
        <label key={one} className={one === view ? 'chosen' : ''}>
          <input type="radio" name="grid-view" checked={one === view} onChange={() => onView(one)} />
          {title}
        </label>
      ))}
    </fieldset>
  );
}
