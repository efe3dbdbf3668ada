import { t } from '../../core/words/say.ts';
import type { Options } from './Select.tsx';
import './views.scss';

interface ViewsProps<T extends string> {
  /** Of the group of buttons, in its page. */
  readonly name: string;
  readonly views: Options<T>;
  readonly view: T;
  readonly onView: (view: T) => void;
}

/** One of a few views of the same things, side by side. */
export function ViewsChoice<T extends string>({ name, views, view, onView }: ViewsProps<T>) {
  return (
    <fieldset className="views-choice">
      <legend className="visually-hidden">{t`Show`}</legend>
      {views.map(([one, title]) => (
        <label key={one} className={one === view ? 'chosen' : ''}>
          <input type="radio" name={name} checked={one === view} onChange={() => onView(one)} />
          {title}
        </label>
      ))}
    </fieldset>
  );
}
