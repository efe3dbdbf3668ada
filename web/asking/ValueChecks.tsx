import { perLanguage, t } from '../../core/words/say.ts';
import Form from 'react-bootstrap/Form';
import { VALUES, type ValueLetter } from '../../core/rhythm/value.ts';
import { type NamingId, valueName } from '../../core/wording/valueNames.ts';

/** What else can be asked about, in words. */
const FURTHER = perLanguage((): Readonly<Record<string, string>> => ({
  dots: t`dots`,
  ties: t`ties`,
  rests: t`rests`,
  clefs: t`clefs`,
}));

/** Values that questions can be about. */
const ASKABLE: readonly ValueLetter[] = ['w', 'h', 'q', 'e', 's'];

interface Chosen<With extends string> {
  readonly values: readonly ValueLetter[];
  readonly flags: Readonly<Record<With, boolean>>;
}

interface ChecksProps<With extends string> extends Chosen<With> {
  /** Names of the further choices, in order. */
  readonly further: readonly With[];
  readonly naming: NamingId;
  readonly onChange: (chosen: Chosen<With>) => void;
}

/** Which values questions are about, and what else is in them. */
export function ValueChecks<With extends string>({ values, flags, further, naming, onChange }: ChecksProps<With>) {
  return (
    <>
      {ASKABLE.map((letter) => (
        <Form.Check
          key={letter}
          type="checkbox"
          id={`ask-${letter}`}
          label={valueName({ base: letter, dots: 0 }, naming, true)}
          checked={values.includes(letter)}
          onChange={({ target }) => onChange({ values: withValue(values, letter, target.checked), flags })}
        />
      ))}
      {further.map((what) => (
        <Form.Check
          key={what}
          type="checkbox"
          id={`ask-${what}`}
          label={FURTHER()[what] ?? what}
          checked={flags[what]}
          onChange={({ target }) => onChange({ values, flags: { ...flags, [what]: target.checked } })}
        />
      ))}
    </>
  );
}

/** In their usual order. */
function withValue(values: readonly ValueLetter[], letter: ValueLetter, wanted: boolean): ValueLetter[] {
  return VALUES.map((value) => value.letter).filter((known) => (known === letter ? wanted : values.includes(known)));
}
