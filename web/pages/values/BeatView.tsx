import { t } from '../../../core/words/say.ts';
import { useMemo } from 'react';
import Form from 'react-bootstrap/Form';
import { beatsIn, dotParts } from '../../../core/exercises/valueSums.ts';
import { mixed } from '../../../core/rhythm/fraction.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { type Dots, VALUES, type ValueLetter } from '../../../core/rhythm/value.ts';
import { valueName } from '../../../core/wording/valueNames.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { Select } from '../../ui/Select.tsx';
import { NoteSign } from '../../ui/signs/NoteSign.tsx';
import { useStored } from '../../store/stored.ts';
import type { ValuesProps } from './valuesProps.ts';
import './beat.scss';

const LINE = '4/4 q. e q q | h e e q';
const SHOWN_DOTS: readonly Dots[] = [0, 1];
/** The values that are shown, and that can get the beat. */
export const BEAT_VALUES: readonly ValueLetter[] = VALUES.map(({ letter }) => letter).filter(
  (letter) => letter !== 't',
);

/** Choose what gets the beat, and every number moves; one line counted under two beat values, one above the other. */
export function BeatView({ naming, beat }: ValuesProps) {
  return (
    <>
      <p className="big-line">{t`When the ${valueName({ base: beat, dots: 0 }, naming)} gets the beat`}</p>
      <table className="beat-table">
        <tbody>
          {SHOWN_DOTS.map((dots) => (
            <tr key={dots}>
              {BEAT_VALUES.map((base) => (
                <BeatCell key={base} base={base} dots={dots} naming={naming} beat={beat} />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <CountedLine naming={naming} beat={beat} />
    </>
  );
}

function BeatCell({ base, dots, naming, beat }: ValuesProps & { base: ValueLetter; dots: Dots }) {
  const value = { base, dots };
  return (
    <td className={base === beat && dots === 0 ? 'is-beat' : ''}>
      <NoteSign value={value} />
      <strong>{mixed(beatsIn(value, beat))}</strong>
      <span>{valueName(value, naming)}</span>
      {dots > 0 && <span className="sum">{dotParts(value, beat).map(mixed).join(' + ')}</span>}
    </td>
  );
}

/** One line of rhythm, counted with the chosen beat and with another. */
function CountedLine({ naming, beat }: ValuesProps) {
  const [text, setText] = useStored('values.line', LINE);
  const [second, setSecond] = useStored('values.second-beat', 'e');
  const other = BEAT_VALUES.find((letter) => letter === second) ?? 'e';
  const parsed = useMemo(() => parseRhythm(text), [text]);
  const counts = useMemo(
    () => [beat, other].map((counted: ValueLetter) => ({ school: 'numbers' as const, beat: counted })),
    [beat, other],
  );
  const name = (letter: ValueLetter) => valueName({ base: letter, dots: 0 }, naming);
  return (
    <>
      <div className="beat-line">
        <Form.Control
          value={text}
          aria-label={t`Rhythm`}
          spellCheck={false}
          onChange={(event) => setText(event.target.value)}
        />
        <Select
          className="w-auto"
          label={t`Count it also with`}
          value={other}
          options={BEAT_VALUES.map((letter) => [letter, t`and with the ${name(letter)} as the beat`] as const)}
          onChoose={setSecond}
        />
      </div>
      {parsed.ok ? (
        <div className="ruler-card">
          <Ruler
            pattern={parsed.pattern}
            counts={counts}
            countNames={[t`The ${name(beat)} counts`, t`The ${name(other)} counts`]}
          />
        </div>
      ) : (
        <p className="ruler-refused">{t`Line ${parsed.at.line}, column ${parsed.at.column}: here I expected
            ${parsed.at.expected}, and found ${parsed.at.found}.`}</p>
      )}
    </>
  );
}
