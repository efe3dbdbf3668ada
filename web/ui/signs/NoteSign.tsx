import type { NoteValue } from '../../../core/rhythm/value.ts';
import './signs.scss';

/** Code points of the music font (the standard layout of such fonts). */
const NOTE = { w: '\uE1D2', h: '\uE1D3', q: '\uE1D5', e: '\uE1D7', s: '\uE1D9', t: '\uE1DB' } as const;
const REST = { w: '\uE4E3', h: '\uE4E4', q: '\uE4E5', e: '\uE4E6', s: '\uE4E7', t: '\uE4E8' } as const;
const DOT = '\uE1E7';
const STACCATO = '\uE4A3';

/**
 * One note or rest as a sign in running text. Its name is said beside it, so it is hidden from readers of the screen.
 */
export function NoteSign({
  value: { base, dots },
  rest = false,
  staccato = false,
}: {
  value: NoteValue;
  rest?: boolean;
  staccato?: boolean | undefined;
}) {
  const line = rest && (base === 'w' || base === 'h');
  return (
    <span className={`note-sign ${rest ? 'rest-sign' : ''} ${line ? 'on-line' : ''}`} aria-hidden>
      {(rest ? REST : NOTE)[base]}
      {staccato && <span className="sign-staccato">{STACCATO}</span>}
      {dots > 0 && <span className="sign-dots">{DOT.repeat(dots)}</span>}
    </span>
  );
}
