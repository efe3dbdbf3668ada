import { type Language, inLanguage, t } from '../../core/words/say.ts';
import type { PartMoment } from '../../core/leading/moment.ts';
import { PartFigure } from '../ruler/PartFigure.tsx';

interface PartCuesProps {
  readonly names: readonly string[];
  readonly parts: readonly PartMoment[] | undefined;
  /** The word of the count-in, for everybody. */
  readonly leadIn: string | undefined;
  /** So often the groups have changed over. */
  readonly turn: number;
  /** Words are spoken aloud; else they are thought. */
  readonly aloud: boolean;
  /** Of the class. */
  readonly language?: Language | undefined;
}

/** Which part the group has that sits at a place, counted from the left. */
export function partAt(place: number, turn: number, parts: number): number {
  return (place + turn) % parts;
}

/** Each group sees its own part on its own side: what it is, its word now, and whether it strikes. */
export function PartCues({ names, parts, leadIn, turn, aloud, language }: PartCuesProps) {
  const waiting = inLanguage(language, () => t`wait`);
  return (
    <div className="lead-cues lead-parts" data-parts={names.length} aria-hidden>
      {names.map((_, place) => {
        const part = partAt(place, turn, names.length);
        const now = parts?.[part];
        const waits = leadIn === undefined && now?.goes === false;
        const strikes = leadIn === undefined && now?.hands === 'clap';
        return (
          <div
            key={place}
            className={`cue-box part-cue ${waits ? 'part-waits' : ''} ${strikes ? 'part-strikes' : ''}`}
            data-part={names[part]}
          >
            <span className="cue-name">
              <PartFigure name={names[part]!} index={part} /> {names[part]}
            </span>
            <span className={`cue-text ${aloud ? '' : 'cue-thought'}`}>
              {leadIn ?? (waits ? waiting : (now?.mouth ?? ''))}
            </span>
          </div>
        );
      })}
    </div>
  );
}
