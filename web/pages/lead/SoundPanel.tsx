import { t } from '../../../core/words/say.ts';
import Form from 'react-bootstrap/Form';
import { CHANNEL_IDS, type Channel } from '../../../core/leading/cueSounds.ts';
import { CHANNEL_NAMES } from '../../../core/wording/leadWords.ts';
import { type ChannelLevel, type Levels, USUAL_LEVELS } from '../../audio/mixer.ts';
import { OwnVoiceSwitch } from '../../domain/OwnVoiceSwitch.tsx';
import { storedThing } from '../../store/stored.ts';

export interface SoundSettings {
  readonly levels: Levels;
  readonly clapAs: 'clap' | 'wood';
}

function settingsFrom(kept: unknown): SoundSettings {
  const found = (kept ?? {}) as Partial<SoundSettings>;
  return { levels: { ...USUAL_LEVELS, ...found.levels }, clapAs: found.clapAs === 'wood' ? 'wood' : 'clap' };
}

const SOUND = storedThing('lead.sound', settingsFrom);

/** How loud everything is on this device. */
export function useSoundSettings(): [SoundSettings, (settings: SoundSettings) => void] {
  return SOUND.use();
}

interface SoundPanelProps {
  readonly settings: SoundSettings;
  readonly onChange: (settings: SoundSettings) => void;
}

export function SoundPanel({ settings, onChange }: SoundPanelProps) {
  const { levels, clapAs } = settings;
  const change = (id: Channel, level: Partial<ChannelLevel>) =>
    onChange({ ...settings, levels: { ...levels, [id]: { ...levels[id], ...level } } });
  return (
    <fieldset className="sound-panel">
      <legend>{t`Sound`}</legend>
      {CHANNEL_IDS.map((id) => (
        <div className="sound-row" key={id}>
          <Form.Check
            type="switch"
            id={`sound-${id}`}
            label={CHANNEL_NAMES()[id]}
            checked={!levels[id].muted}
            onChange={(event) => change(id, { muted: !event.target.checked })}
          />
          <Form.Range
            aria-label={t`${CHANNEL_NAMES()[id]}: how loud`}
            min={0}
            max={1}
            step={0.05}
            value={levels[id].level}
            onChange={(event) => change(id, { level: Number(event.target.value) })}
          />
        </div>
      ))}
      <OwnVoiceSwitch id="sound-own-voice" />
      <Form.Check
        type="switch"
        id="sound-wood"
        label={t`Wood block instead of claps`}
        checked={clapAs === 'wood'}
        onChange={(event) => onChange({ ...settings, clapAs: event.target.checked ? 'wood' : 'clap' })}
      />
      <p className="caution">{t`Start quiet, in headphones quieter still. Clap with relaxed, cupped hands; stamp
          only with shoes, on a sound floor; rest hands and voices after some minutes. Who
          cannot clap taps, uses one hand, or follows the mark.`}</p>
    </fieldset>
  );
}
