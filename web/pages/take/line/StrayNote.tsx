import Button from 'react-bootstrap/Button';
import type { Child } from '../../../../contract/child.ts';
import { HIGHEST_MARK } from '../../../../core/judging/mark.ts';
import { useStray } from '../../../ui/ownMoves.ts';

interface StrayNoteProps {
  /** Who stood in front before. */
  readonly before: Child | undefined;
  readonly onMark: (mark: number) => void;
}

/** A key that came just as the view went on to the next child was not taken; a mark is offered to the one before. */
export function StrayNote({ before, onMark }: StrayNoteProps) {
  const key = useStray();
  const mark = key !== undefined && /^[0-9]$/.test(key) && Number(key) <= HIGHEST_MARK ? Number(key) : undefined;
  return (
    <div className="stray" role="status">
      {key !== undefined && (
        <>
          <span>{key.trim() === '' ? 'That' : `“${key}”`} came just as the view moved on, and was not taken.</span>
          {before && mark !== undefined && (
            <Button size="sm" variant="outline-dark" onClick={() => onMark(mark)}>
              {mark} for {before.name}
            </Button>
          )}
        </>
      )}
    </div>
  );
}
