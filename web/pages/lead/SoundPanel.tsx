import Form from 'react-bootstrap/Form';
import { type Levels, USUAL_LEVELS } from '../../audio/mixer.ts';
import { useStored } from '../../ui/stored.ts';
import { CHANNELS, CHANNEL_IDS } from '../../../core/leading/cueSounds.ts';

export interface SoundSettings {
  readonly levels: Levels;
  readonly clapAs: 'clap' | 'wood';
}

function settingsFrom(text: string): SoundSettings {
  try {
    const found = JSON.parse(text) as Partial<SoundSettings>;
    return { levels: { ...USUAL_LEVELS, ...found.levels }, clapAs: found.clapAs === 'wood' ? 'wood' : 'clap' };
  } catch {
    return { levels: USUAL_LEVELS, clapAs: 'clap' };
  }
}

/** How loud everything is on this device. */
export function useSoundSettings(): [SoundSettings, (settings: SoundSettings) => void] {
  const [text, setText] = useStored('lead.sound', '');
  return [settingsFrom(text), (settings) => setText(JSON.stringify(settings))];
}

export function SoundPanel({
  settings,
  onChange,
}: {
  settings: SoundSettings;
  onChange: (settings: SoundSettings) => void;
}) {
  const { levels, clapAs } = settings;
  return (
    <fieldset className="sound-panel">
      <legend>Sound</legend>
      {CHANNEL_IDS.map((id) => (
        <div className="sound-row" key={id}>
          <Form.Check
            type="switch"
            id={`sound-${id}`}
            label={CHANNELS[id]}
            checked={!levels[id].muted}
            onChange={(event) =>
              onChange({ ...settings, levels: { ...levels, [id]: { ...levels[id], muted: !event.target.checked } } })
            }
          />
          <Form.Range
            aria-label={`${CHANNELS[id]}: how loud`}
            min={0}
            max={1}
            step={0.05}
            value={levels[id].level}
            onChange={(event) =>
              onChange({
                ...settings,
                levels: { ...levels, [id]: { ...levels[id], level: Number(event.target.value) } },
              })
            }
          />
        </div>
      ))}
      <Form.Check
        type="switch"
        id="sound-wood"
        label="Wood block instead of claps"
        checked={clapAs === 'wood'}
        onChange={(event) => onChange({ ...settings, clapAs: event.target.checked ? 'wood' : 'clap' })}
      />
      <p className="caution">
        Start quiet, in headphones quieter still. Clap with relaxed, cupped hands; stamp only with shoes, on a sound
        floor; rest hands and voices after some minutes. Who cannot clap taps, uses one hand, or follows the mark.
      </p>
    </fieldset>
  );
}
