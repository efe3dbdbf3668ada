import { t } from '../../../../core/words/say.ts';
import Button from 'react-bootstrap/Button';
import type { Child } from '../../../../contract/child.ts';
import { type Scale, markLabel } from '../../../../core/judging/scale.ts';
import { markKeysOf } from './markKeysOf.ts';
import { useStray } from '../../../ui/ownMoves.ts';

interface StrayNoteProps {
  /** Who stood in front before. */
  readonly before: Child | undefined;
  readonly scale: Scale;
  readonly onMark: (mark: number) => void;
}

/** A key that came just as the view went on to the next child was not taken; a mark is offered to the one before. */
export function StrayNote({ before, scale, onMark }: StrayNoteProps) {
  const key = useStray();
  const mark = markKeysOf(scale).find((one) => one.key === key?.toLowerCase())?.mark;
  return (
    <div className="stray" role="status">
      {key !== undefined && (
        <>
          <span>{t`${key.trim() === '' ? t`That` : `“${key}”`} came just as the view moved on,
            and was not taken.`}</span>
          {before && mark !== undefined && (
            <Button size="sm" variant="outline-dark" onClick={() => onMark(mark)}>
              {t`${markLabel(mark, scale)} for ${before.name}`}
            </Button>
          )}
        </>
      )}
    </div>
  );
}
