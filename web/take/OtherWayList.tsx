import { t } from '../../core/words/say.ts';
import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import { otherWays } from '../../core/ear/otherWays.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { printRhythm } from '../../core/rhythm/text.ts';
import { SAME_SOUND } from '../../core/wording/writtenWords.ts';
import { MiniNotes } from '../ruler/MiniNotes.tsx';

export interface OtherWaysProps {
  readonly pattern: Pattern;
  /** Takes one of them in place of the pattern, where that can be done. */
  readonly onUse?: (text: string) => void;
}

/** So many are shown: the simplest. */
const SHOWN = 6;

/** Patterns that sound the same as one. */
export default function OtherWayList({ pattern, onUse }: OtherWaysProps) {
  const ways = useMemo(() => otherWays(pattern).slice(0, SHOWN), [pattern]);
  if (ways.length === 0) return <p>{t`There is no other way: every note and rest is as short as it can be.`}</p>;
  return (
    <>
      <p>{SAME_SOUND()}</p>
      <ul className="other-way-list">
        {ways.map((way) => {
          const text = printRhythm(way);
          return (
            <li key={text}>
              <MiniNotes pattern={way} />
              <code>{text}</code>
              {onUse && (
                <Button size="sm" variant="outline-dark" aria-label={t`Use ${text}`} onClick={() => onUse(text)}>
                  {t`Use it`}
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </>
  );
}
