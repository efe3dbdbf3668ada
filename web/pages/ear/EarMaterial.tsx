import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { ELEMENTS, ELEMENT_IDS, type ElementId } from '../../../core/rhythm/elements.ts';
import { counted } from '../../../core/wording/plurals.ts';
import { inNaming } from '../../../core/wording/valueNames.ts';
import { Select } from '../../ui/Select.tsx';
import { EAR_METERS, type EarSettings, FASTEST_EAR, FEWEST, SLOWEST_EAR } from './earSettings.ts';

interface MaterialProps {
  readonly settings: EarSettings;
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
}

/** What rhythms are made of here, in which meter and how fast. */
export function EarMaterial({ settings, open, onOpen }: MaterialProps) {
  const { meterName, setMeter, bpm, setBpm, met } = settings;
  return (
    <div className="ear-material">
      <Select
        size="sm"
        className="w-auto"
        label="Meter"
        value={meterName}
        options={EAR_METERS.map((name) => [name, name] as const)}
        onChoose={setMeter}
      />
      <label className="ear-tempo">
        <span>♩</span>
        <Form.Range
          min={SLOWEST_EAR}
          max={FASTEST_EAR}
          step={2}
          value={bpm}
          aria-label="Tempo"
          aria-valuetext={`${bpm} beats a minute`}
          onChange={({ target }) => setBpm(Number(target.value))}
        />
        <output>{bpm}</output>
      </label>
      <Button variant="outline-dark" size="sm" aria-expanded={open} onClick={() => onOpen(!open)}>
        From {counted(met.length, 'element')}
      </Button>
      {open && <Elements settings={settings} />}
    </div>
  );
}

/** Compound meter is chosen by its meter. */
const CHOICES: readonly ElementId[] = ELEMENT_IDS.filter((id) => id !== 'compound');

function Elements({ settings: { met, setMet, ownMet, voice } }: { settings: EarSettings }) {
  const change = (id: ElementId, wanted: boolean) => {
    const next = CHOICES.filter((one) => (one === id ? wanted : met.includes(one)));
    if (next.length >= FEWEST) setMet(next);
  };
  return (
    <fieldset className="ear-elements">
      <legend>What the class has met</legend>
      {CHOICES.map((id) => (
        <Form.Check
          key={id}
          type="checkbox"
          id={`met-${id}`}
          label={inNaming(ELEMENTS[id].title, voice.naming)}
          checked={met.includes(id)}
          onChange={({ target }) => change(id, target.checked)}
        />
      ))}
      {ownMet && (
        <Button variant="link" onClick={() => setMet(undefined)}>
          As the records of the class say
        </Button>
      )}
    </fieldset>
  );
}
