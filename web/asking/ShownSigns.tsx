import { t } from '../../core/words/say.ts';
import type { Part } from '../../core/exercises/valueSums.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { placePattern } from '../../core/rhythm/place.ts';
import { MeterSign } from '../ui/signs/MeterSign.tsx';
import { NoteSign } from '../ui/signs/NoteSign.tsx';

interface SignsProps {
  readonly pattern: Pattern;
  readonly meter: boolean;
  /** Which of them have a dot above or below the head. */
  readonly staccato: readonly number[] | undefined;
}

/** Signs side by side: on the ruler, true to time, they would give the answer away. */
export function ShownSigns({ pattern, meter, staccato = [] }: SignsProps) {
  const measures = placePattern(pattern);
  return (
    <p className={`shown-signs ${measures.length > 1 ? 'several' : ''}`}>
      {meter && <MeterSign meter={measures[0]!.meter} />}
      {measures.map(({ events, number }) => (
        <span key={number} className="shown-measure">
          {events.map(({ kind, value, tiedToNext }, i) => (
            <span key={i} className={tiedToNext ? 'ties-on' : ''}>
              <NoteSign value={value} rest={kind === 'rest'} staccato={staccato.includes(i)} />
              {tiedToNext && <span className="visually-hidden">{t`tied to`}</span>}
            </span>
          ))}
        </span>
      ))}
    </p>
  );
}

/** Two sides with the equals sign between; where it is `open` a value is missing at the end. */
export function Equation({ sides, open }: { sides: readonly [readonly Part[], readonly Part[]]; open: boolean }) {
  return (
    <p className="shown-signs">
      {sides.map((side, s) => (
        <span key={s} className="shown-measure">
          {s > 0 && <span>=</span>}
          {side.map(({ kind, value }, i) => (
            <span key={i}>
              {i > 0 && <span className="plus">+</span>}
              <NoteSign value={value} rest={kind === 'rest'} />
            </span>
          ))}
          {s > 0 && open && <span>+ ?</span>}
        </span>
      ))}
    </p>
  );
}
