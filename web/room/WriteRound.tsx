import { counted, t } from '../../core/words/say.ts';
import { Delete } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { ChildRoom, ChildTask } from '../../contract/room.ts';
import { compare } from '../../core/rhythm/fraction.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { measureName } from '../../core/wording/valueNames.ts';
import { namingOf } from '../../core/wording/voice.ts';
import { CardNotes } from '../ruler/CardNotes.tsx';
import { Ruler } from '../ruler/Ruler.tsx';
import { answer } from './roomApi.ts';
import { useSaid } from './useSaid.ts';
import {
  type Line,
  type Piece,
  ownMeasure,
  piecesFor,
  roomLeft,
  textOf,
  verdictOn,
  withPiece,
  withoutLast,
} from './writing.ts';

interface WriteRoundProps {
  readonly room: ChildRoom;
  readonly round: NonNullable<ChildRoom['round']>;
  readonly task: Extract<ChildTask, { kind: 'write' }>;
}

/** What is heard is put down piece by piece. */
export default function WriteRound({ room, round, task }: WriteRoundProps) {
  const { meter, measures, text: heard } = task;
  const naming = namingOf(room.voice);
  const [line, setLine] = useState<Line>([]);
  const { say, trouble } = useSaid();
  const pieces = useMemo(() => piecesFor(meter), [meter]);
  const left = roomLeft(line, meter, measures);
  const written = textOf(line, meter) ?? room.done.text ?? undefined;
  const change = (next: Line) => {
    setLine(next);
    const text = textOf(next, meter);
    if (text) say(() => answer(round.number, { text }));
  };
  const isOpen = heard !== null;
  return (
    <section className="room-write" aria-label={t`Write it`}>
      <h1>{isOpen ? t`It was this:` : t`Write what you hear: ${counted(measures, measureName(naming))}`}</h1>
      {heard !== null && <Notes text={heard} />}
      {isOpen && written && <p className="room-said">{verdictOn(heard, written, naming) ?? ''}</p>}
      {isOpen && written && <h2>{t`You wrote:`}</h2>}
      <div className="room-paper">{written ? <Notes text={written} /> : <span>{meter}</span>}</div>
      {!isOpen && (
        <>
          <p className="room-said" role="status">
            {trouble ?? (left.n === 0 ? t`All full. You may change it.` : '')}
          </p>
          <div className="room-pieces">
            {pieces.map((piece) => (
              <button
                key={piece.text}
                type="button"
                aria-label={piece.text}
                disabled={compare(piece.length, left) > 0}
                onClick={() => change(withPiece(line, piece, meter, measures))}
              >
                <PieceNotes piece={piece} />
              </button>
            ))}
            <button type="button" aria-label={t`Take the last one back`} onClick={() => change(withoutLast(line))}>
              <Delete aria-hidden />
            </button>
          </div>
        </>
      )}
    </section>
  );
}

function Notes({ text }: { readonly text: string }) {
  const parsed = useMemo(() => parseRhythm(text), [text]);
  return parsed.ok ? (
    <div className="room-written">
      <Ruler pattern={parsed.pattern} size="board" fit strips={false} beats={false} />
    </div>
  ) : null;
}

/** Pixels of a whole note. */
const WHOLE = 150;

/** A piece as it stands on paper, without a meter. */
function PieceNotes({ piece }: { readonly piece: Piece }) {
  const parsed = useMemo(() => parseRhythm(ownMeasure(piece)), [piece]);
  return parsed.ok ? <CardNotes pattern={parsed.pattern} whole={WHOLE} bar={false} /> : null;
}
