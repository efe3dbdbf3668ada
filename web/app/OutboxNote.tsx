import { counted, perLanguage, t } from '../../core/words/say.ts';
import { format } from '../words/dates.ts';
import { CloudOff } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { saveAsFiles } from '../take/exportTake.ts';
import type { Waiting } from '../store/keptTakes.ts';
import { dropTake, tryAgain } from '../api/outbox.ts';
import { useWouldBeLost } from '../api/useOutbox.ts';

const ON_DEVICE = perLanguage(
  () => t`These takes are safe here. They are sent by themselves as soon as the server answers;
    leave this device’s browser data as it is until then.`,
);
const ONLY_HERE = perLanguage(
  () => t`This browser keeps nothing on the device. These takes are sent by themselves as soon
    as the server answers; leave this page open until then.`,
);
const MUTE = perLanguage(() => t`These takes are stored, with their marks. Only their sound was not taken.`);
const NOT_TAKEN = perLanguage(
  () => t`What the server did not take is safe here until you try it again, save it as a file,
    or remove it. The rest is sent by itself.`,
);

/** Says what the server does not have yet; nothing when it has all. */
export function OutboxNote({ waiting }: { waiting: readonly Waiting[] }) {
  const [open, setOpen] = useState(false);
  const onlyHere = useWouldBeLost();
  if (waiting.length === 0) return <span role="status" className="visually-hidden" />;
  // A take that is stored is not lost because its sound was not taken.
  const refused = waiting.some((take) => take.refused !== undefined && !take.stored);
  const mute = waiting.every((take) => take.refused !== undefined && take.stored);
  const kind = waiting.every(({ stored }) => stored) ? 'recording' : 'take';
  const count = waiting.length === 1 ? `1 ${kind}` : `${waiting.length} ${kind}s`;
  return (
    <>
      <Button variant="outline-dark" size="sm" className="outbox-note" onClick={() => setOpen(true)}>
        <CloudOff size={16} aria-hidden />{' '}
        <span role="status">
          {mute
            ? t`${counted(waiting.length, 'take')} stored without sound`
            : `${count} ${refused ? t`not stored` : t`waiting`}`}
          {!refused && !mute && <span className="visually-hidden"> {t`to be stored`}</span>}
        </span>
      </Button>
      <Modal show={open} onHide={() => setOpen(false)} centered>
        <Modal.Header closeButton>
          <Modal.Title>{onlyHere ? t`Kept in this page only` : t`Kept on this device`}</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <p>{mute ? MUTE() : onlyHere ? ONLY_HERE() : refused ? NOT_TAKEN() : ON_DEVICE()}</p>
          <ul className="list-unstyled mb-0">
            {waiting.map((take) => (
              <WaitingTake key={take.id} take={take} />
            ))}
          </ul>
        </Modal.Body>
      </Modal>
    </>
  );
}

function WaitingTake({ take }: { take: Waiting }) {
  const { id, childName, upload, stored, refused } = take;
  const remove = () => {
    if (confirm(t`Remove this take of ${childName} for good?`)) void dropTake(id);
  };
  return (
    <li className="mb-3">
      <strong>{childName}</strong>, {upload.title}, {format(upload.takenAt, 'HH:mm')}
      {stored &&
        (refused === undefined ? t`: the take is stored, its recording not yet` : t`: stored, without its sound`)}
      {refused !== undefined && stored && (
        <>
          <div>{refused}</div>
          <div className="notice-actions">
            <Button variant="outline-dark" size="sm" onClick={() => void dropTake(id)}>{t`Good`}</Button>
            <Button variant="outline-dark" size="sm" onClick={() => saveAsFiles(take)}>
              {t`Save the sound as a file`}
            </Button>
          </div>
        </>
      )}
      {refused !== undefined && !stored && (
        <>
          <div>{refused}</div>
          <div className="notice-actions">
            <Button variant="outline-dark" size="sm" onClick={() => void tryAgain(take)}>{t`Try again`}</Button>
            <Button variant="outline-dark" size="sm" onClick={() => saveAsFiles(take)}>{t`Save as a file`}</Button>
            <Button variant="outline-dark" size="sm" onClick={remove}>{t`Remove it`}</Button>
          </div>
        </>
      )}
    </li>
  );
}
