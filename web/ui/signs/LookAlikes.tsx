import { perLanguage, t } from '../../../core/words/say.ts';
import type { Part } from '../../../core/exercises/valueSums.ts';
import { type NamingId, inNaming } from '../../../core/wording/valueNames.ts';
import type { NoteValue } from '../../../core/rhythm/value.ts';
import { NoteSign } from './NoteSign.tsx';

interface Sign extends Part {
  readonly says: string;
}

const plain = (base: NoteValue['base']): NoteValue => ({ base, dots: 0 });

/** Signs that look alike and mean something else, with what tells them apart. */
const PAIRS = perLanguage(
  () =>
    ({
      dots: [
        { kind: 'note', value: { base: 'q', dots: 1 }, says: t`dot right of the head: longer by half` },
        {
          kind: 'note',
          value: plain('q'),
          staccato: true,
          says: t`dot above or below the head: only short, no longer`,
        },
      ],
      rests: [
        { kind: 'rest', value: plain('w'), says: t`hangs below the line: {w} rest` },
        { kind: 'rest', value: plain('h'), says: t`sits on the line: {h} rest` },
      ],
    }) as const satisfies Readonly<Record<string, readonly [Sign, Sign]>>,
);
export type LookAlike = keyof ReturnType<typeof PAIRS>;

/** What can be mistaken for this note or rest. */
export function lookAlikeOf({ kind, value, staccato }: Part): LookAlike | undefined {
  if (value.dots > 0 || staccato) return 'dots';
  return kind === 'rest' && (value.base === 'w' || value.base === 'h') ? 'rests' : undefined;
}

/** Two signs that look alike, side by side. */
export function LookAlikes({ which, naming }: { which: LookAlike | undefined; naming: NamingId }) {
  if (!which) return null;
  const signs: readonly Sign[] = PAIRS()[which];
  return (
    <p className="look-alikes">
      {signs.map(({ kind, value, staccato, says }) => (
        <span key={says}>
          <NoteSign value={value} rest={kind === 'rest'} staccato={staccato} /> {inNaming(says, naming)}
        </span>
      ))}
    </p>
  );
}
