import { useMemo } from 'react';
import Form from 'react-bootstrap/Form';
import { beatsIn, dotParts } from '../../../core/exercises/valueSums.ts';
import { mixed } from '../../../core/rhythm/fraction.ts';
import { valueName } from '../../../core/wording/valueNames.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { type Dots, VALUES, type ValueLetter } from '../../../core/rhythm/value.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { NoteSign } from '../../ui/signs/NoteSign.tsx';
import { useStored } from '../../ui/stored.ts';
import { type ValuesProps } from './valuesProps.ts';

const LINE = '4/4 q. e q q | h e e q';
const SHOWN_DOTS: readonly Dots[] = [0, 1];

/** Choose what gets the beat, and every number moves; one line counted under two beat values, one above the other. */
export function BeatView({ naming, beat }: ValuesProps) {
  const [text, setText] = useStored('values.line', LINE);
  const [second, setSecond] = useStored('values.second-beat', 'e');
  const other = VALUES.find(({ letter }) => letter === second)?.letter ?? 'e';
  const parsed = useMemo(() => parseRhythm(text), [text]);
  const counts = useMemo(
    () => [beat, other].map((counted: ValueLetter) => ({ school: 'numbers' as const, beat: counted })),
    [beat, other],
  );
  const name = (letter: ValueLetter) => valueName({ base: letter, dots: 0 }, naming);
  return (
    <>
      <p className="big-line">When the {name(beat)} gets the beat</p>
      <table className="beat-table">
        <tbody>
          {SHOWN_DOTS.map((dots) => (
            <tr key={dots}>
              {VALUES.filter(({ letter }) => letter !== 't').map(({ letter }) => {
                const value = { base: letter, dots };
                return (
                  <td key={letter} className={letter === beat && dots === 0 ? 'is-beat' : ''}>
                    <NoteSign value={value} />
                    <strong>{mixed(beatsIn(value, beat))}</strong>
                    <span>{valueName(value, naming)}</span>
                    {dots > 0 && <span className="sum">{dotParts(value, beat).map(mixed).join(' + ')}</span>}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="beat-line">
        <Form.Control
          value={text}
          aria-label="Rhythm"
          spellCheck={false}
          onChange={(event) => setText(event.target.value)}
        />
        <Form.Select
          className="w-auto"
          aria-label="Count it also with"
          value={other}
          onChange={(event) => setSecond(event.target.value)}
        >
          {VALUES.filter(({ letter }) => letter !== 't').map(({ letter }) => (
            <option key={letter} value={letter}>
              and with the {name(letter)} as the beat
            </option>
          ))}
        </Form.Select>
      </div>
      {parsed.ok ? (
        <div className="ruler-card">
          <Ruler
            pattern={parsed.pattern}
            counts={counts}
            countNames={[`The ${name(beat)} counts`, `The ${name(other)} counts`]}
          />
        </div>
      ) : (
        <p className="ruler-refused">
          Line {parsed.at.line}, column {parsed.at.column}: here I expected {parsed.at.expected}, and found{' '}
          {parsed.at.found}.
        </p>
      )}
    </>
  );
}
