import { counted, t } from '../../../core/words/say.ts';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { ElementChecks } from '../../domain/ElementChecks.tsx';
import { Select } from '../../ui/Select.tsx';
import { FEWEST } from '../../domain/heardElements.ts';
import { EAR_METERS, type EarSettings, FASTEST_EAR, SLOWEST_EAR } from './earSettings.ts';

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
        label={t`Meter`}
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
          aria-label={t`Tempo`}
          aria-valuetext={t`${bpm} beats a minute`}
          onChange={({ target }) => setBpm(Number(target.value))}
        />
        <output>{bpm}</output>
      </label>
      <Button variant="outline-dark" size="sm" aria-expanded={open} onClick={() => onOpen(!open)}>
        {t`From ${counted(met.length, 'element')}`}
      </Button>
      {open && <Elements settings={settings} />}
    </div>
  );
}

function Elements({ settings: { met, setMet, ownMet, voice } }: { settings: EarSettings }) {
  return (
    <div className="ear-elements">
      <ElementChecks
        id="met"
        legend={t`What the class has met`}
        chosen={met}
        fewest={FEWEST}
        naming={voice.naming}
        onChoose={setMet}
      >
        {ownMet && (
          <Button variant="link" onClick={() => setMet(undefined)}>{t`As the records of the class say`}</Button>
        )}
      </ElementChecks>
    </div>
  );
}
