import { t } from '../../../core/words/say.ts';
import { STARTER_PATTERNS } from '../../../core/exercises/starterPatterns.ts';
import type { Ages } from '../../../core/judging/windows.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { MiniNotes } from '../../ruler/MiniNotes.tsx';

interface StarterChoiceProps {
  readonly ages: Ages;
  /** Titles that are not wanted. */
  readonly left: ReadonlySet<string>;
  readonly onLeft: (left: ReadonlySet<string>) => void;
}

/** Patterns to begin with, from easy to harder, for the age of the class; all of them unless one is left out. */
export function StarterChoice({ ages, left, onLeft }: StarterChoiceProps) {
  const toggle = (title: string, wanted: boolean) => {
    const next = new Set(left);
    if (wanted) next.delete(title);
    else next.add(title);
    onLeft(next);
  };
  return (
    <section className="card-paper">
      <h2>{t`4. Rhythms to begin with`}</h2>
      <p>{t`From easy to harder. Your own are written under Patterns at any time.`}</p>
      <ol className="starters">
        {STARTER_PATTERNS()[ages].map(({ title, text }) => {
          const read = parseRhythm(text);
          return (
            <li key={title}>
              <label>
                <input
                  type="checkbox"
                  checked={!left.has(title)}
                  onChange={(event) => toggle(title, event.target.checked)}
                />
                {title}
              </label>
              {read.ok && <MiniNotes pattern={read.pattern} />}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
