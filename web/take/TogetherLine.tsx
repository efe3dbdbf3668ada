import { t } from '../../core/words/say.ts';
import { useMemo } from 'react';
import { togetherOf } from '../../core/judging/together.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { NOTHING_SHARED, togetherSentences } from '../../core/wording/togetherWords.ts';
import type { NamingId } from '../../core/wording/valueNames.ts';
import type { ShownTake } from './shownTake.ts';

/** A take of one of two parts. */
export interface PartTake extends Pick<ShownTake, 'patternText' | 'result' | 'onsets'> {
  /** Who clapped it, or which part it is. */
  readonly who: string;
}

/** How together two parts were that were clapped at once. */
export function TogetherLine({ takes, naming }: { takes: readonly [PartTake, PartTake]; naming: NamingId }) {
  const together = useMemo(() => {
    const parts = takes.flatMap(({ patternText, who }) => {
      const read = parseRhythm(patternText);
      return read.ok ? [{ name: who, pattern: read.pattern }] : [];
    });
    if (parts.length < takes.length) return undefined;
    return togetherOf(
      { parts },
      takes.map(({ result, onsets }, part) => ({ part, result, onsets })),
    );
  }, [takes]);
  const who = takes.map((take) => take.who);
  const [first, ...others] = together ? togetherSentences(together, who, naming) : [NOTHING_SHARED()];
  return (
    <section className="together" aria-label={t`Together`}>
      <p className="together-first">{first}</p>
      {others.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
    </section>
  );
}
