import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { counted, t } from '../../../core/words/say.ts';
import { useDrop } from '../../files/useDrop.ts';
import { saveFile } from '../../ui/saveFile.ts';
import type { OwnVoice } from './useOwnVoice.ts';

/** The voice as a file: out, in from another machine or program, and away. */
export function VoiceFiles({ own: { said, keep, drop } }: { own: OwnVoice }) {
  const [told, setTold] = useState<readonly string[]>([]);
  const [asking, setAsking] = useState(false);
  const bringIn = async (files: readonly File[]) => {
    if (files.length === 0) return;
    setTold([t`Reading …`]);
    const { readVoiceFiles } = await import('./voiceFile.ts');
    const { words, troubles } = await readVoiceFiles(files);
    setTold([...(words.length > 0 ? [t`${counted(words.length, 'word', 'words')} brought in.`] : []), ...troubles]);
    if (words.length > 0) await keep(words);
  };
  const takeOut = async () => {
    const { voiceFile } = await import('./voiceFile.ts');
    const bytes = voiceFile([...said.values()]);
    saveFile(`${t`My voice`}.zip`, new Blob([bytes as BlobPart], { type: 'application/zip' }));
  };
  const { over, zone } = useDrop((files) => void bringIn(files));
  return (
    <section className={`card-paper voice-files ${over ? 'over' : ''}`} {...zone}>
      <h2>{t`As a file`}</h2>
      <p>{t`One zip with a sound a word. Sounds that were recorded elsewhere come in too: each
          named after its word, as in 1.wav; they are cut, levelled and put on the beat.`}</p>
      <div className="voice-buttons">
        {said.size > 0 && <Button variant="outline-dark" onClick={() => void takeOut()}>{t`Save as a file`}</Button>}
        <Form.Group controlId="voice-file">
          <Form.Label>{t`Bring in a voice, or drop it here`}</Form.Label>
          <Form.Control
            type="file"
            multiple
            accept=".zip,audio/*"
            onChange={(event) => void bringIn([...((event.target as HTMLInputElement).files ?? [])])}
          />
        </Form.Group>
        {said.size > 0 &&
          (asking ? (
            <>
              <Button variant="danger" onClick={() => void drop(undefined).then(() => setAsking(false))}>
                {t`Remove all ${counted(said.size, 'word', 'words')}`}
              </Button>
              <Button variant="outline-dark" onClick={() => setAsking(false)}>{t`Keep them`}</Button>
            </>
          ) : (
            <Button variant="outline-dark" onClick={() => setAsking(true)}>{t`Remove my voice`}</Button>
          ))}
      </div>
      {told.length > 0 && (
        <ul role="status">
          {told.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
    </section>
  );
}
