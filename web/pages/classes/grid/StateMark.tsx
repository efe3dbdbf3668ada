import { perLanguage, t } from '../../../../core/words/say.ts';
import type { MasteryState } from '../../../../core/records/mastery.ts';

/** Each state has a shape of its own: how full it is says how sure, an edge that something is to be done. */
const SHAPES: Readonly<Record<MasteryState, string>> = {
  new: 'M8 2a6 6 0 1 0 0 12a6 6 0 1 0 0-12Z',
  growing: 'M8 2a6 6 0 1 0 0 12a6 6 0 1 0 0-12ZM8 2v12a6 6 0 0 1 0-12Z',
  firm: 'M8 2a6 6 0 1 0 0 12a6 6 0 1 0 0-12Z',
  due: 'M8 2a6 6 0 1 0 0 12a6 6 0 1 0 0-12ZM8 5v3.4l2.4 1.6',
  shaky: 'M8 1.5 15 14H1Z',
};

/** What was hardly heard is not what a child is not sure of. */
const WORDS = perLanguage((): Readonly<Record<MasteryState, string>> => ({
  new: t`hardly heard`,
  growing: t`growing`,
  firm: t`firm`,
  due: t`due`,
  shaky: t`shaky`,
}));

/** How an element stands: shape and word. */
export function StateMark({ state, title }: { state: MasteryState; title?: string }) {
  return (
    <span className={`state state-${state}`} title={title}>
      <svg viewBox="0 0 16 16" width="16" height="16" aria-hidden>
        <path d={SHAPES[state]} />
      </svg>
      {WORDS()[state]}
    </span>
  );
}
