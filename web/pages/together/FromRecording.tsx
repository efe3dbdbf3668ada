import { t } from '../../../core/words/say.ts';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import type { ClassHeard } from '../../../core/ensemble/classHeard.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import { BadRecording, hearRecording } from '../../audio/hearRecording.ts';
import { useOfferedPatterns } from '../../domain/offeredPatterns.ts';
import { useDrop } from '../../files/useDrop.ts';
import { HearingPicture } from '../../leading/HearingPicture.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { NumberField } from '../../ui/NumberField.tsx';
import { Select } from '../../ui/Select.tsx';
import { FASTEST_BPM, SLOWEST_BPM } from '../../../core/timing/limits.ts';
import { KeepHearing } from './KeepHearing.tsx';

interface RecordingProps {
  readonly schoolClass: ClassDetail;
  readonly voice: Voice;
}

/** A pattern of one part: whose clap it is in several, one microphone does not tell. */
const isOnePart = ({ text }: SavedPattern) => {
  const read = parseScore(text);
  return read.ok && read.score.parts.length === 1;
};

/** A recording of the class, clapped without the app: made with a phone, for instance. */
export function FromRecording({ schoolClass, voice }: RecordingProps) {
  const patterns = useOfferedPatterns(undefined, schoolClass);
  if (patterns.error) return <Notice problem={patterns.error} />;
  const usable = patterns.data?.filter(isOnePart) ?? [];
  if (usable.length === 0)
    return <div className="empty">{t`First write down what the class clapped, under Patterns.`}</div>;
  return <Recording patterns={usable} schoolClass={schoolClass} voice={voice} />;
}

const USUAL_BPM = 80;

interface HeardRecording {
  readonly of: SavedPattern;
  readonly bpm: number;
  readonly heard: ClassHeard;
}

function Heard({ of: { title, text }, bpm, heard, schoolClass, voice }: HeardRecording & RecordingProps) {
  return (
    <>
      <HearingPicture text={text} bpm={bpm} heard={heard} voice={voice} />
      <div className="together-actions">
        {!heard.tooFew && (
          <KeepHearing
            schoolClass={schoolClass}
            hearing={{ title, patternText: text, bpm, from: 'recording', heard }}
          />
        )}
      </div>
    </>
  );
}

function Recording({ patterns, schoolClass, voice }: RecordingProps & { readonly patterns: readonly SavedPattern[] }) {
  const [id, setId] = useState(patterns[0]!.id);
  const [bpm, setBpm] = useState(USUAL_BPM);
  const [problem, setProblem] = useState<string>();
  const [listening, setListening] = useState(false);
  const [heard, setHeard] = useState<HeardRecording>();
  const pattern = patterns.find((one) => one.id === id) ?? patterns[0]!;
  const listen = async (file: File | undefined) => {
    if (!file) return;
    setProblem(undefined);
    setHeard(undefined);
    setListening(true);
    try {
      setHeard({ of: pattern, bpm, heard: await hearRecording(file, pattern.text, bpm) });
    } catch (error) {
      setProblem(error instanceof BadRecording ? error.message : t`It could not be listened to: reload the page.`);
    }
    setListening(false);
  };
  const { over, zone } = useDrop(([file]) => void listen(file));
  return (
    <section aria-label={t`A recording`} className={`recording-drop ${over ? 'over' : ''}`} {...zone}>
      <div className="together-choice">
        <Select
          label={t`Pattern`}
          className="w-auto"
          value={pattern.id}
          options={patterns.map((one) => [one.id, one.title] as const)}
          onChoose={setId}
        />
        <NumberField
          id="recording-bpm"
          label={t`About how fast, beats a minute`}
          value={bpm}
          least={SLOWEST_BPM}
          most={FASTEST_BPM}
          onValue={setBpm}
        />
        <Form.Group controlId="recording-file">
          <Form.Label>{t`Recording, or drop it here`}</Form.Label>
          <Form.Control
            type="file"
            accept="audio/*"
            onChange={(event) => void listen((event.target as HTMLInputElement).files?.[0])}
          />
        </Form.Group>
      </div>
      {listening && <p role="status">{t`Listening …`}</p>}
      {problem && <p className="notice alert alert-warning">{problem}</p>}
      {heard && <Heard {...heard} schoolClass={schoolClass} voice={voice} />}
      <p className="hearing-key">{t`Nothing of the sound is kept or sent: it is listened to in this browser.`}</p>
    </section>
  );
}
