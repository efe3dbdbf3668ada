import { CloudOff } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { type Waiting, dropTake } from '../take/outbox.ts';

/** Says what the server does not have yet; nothing when it has all. */
export function OutboxNote({ waiting }: { waiting: readonly Waiting[] }) {
  const [open, setOpen] = useState(false);
  if (waiting.length === 0) return <span role="status" className="visually-hidden" />;
  const refused = waiting.filter((take) => take.refused !== undefined);
  const count = waiting.length === 1 ? '1 take' : `${waiting.length} takes`;
  return (
    <>
      <Button variant="outline-dark" size="sm" className="outbox-note" onClick={() => setOpen(true)}>
        <CloudOff size={16} aria-hidden />{' '}
        <span role="status">{refused.length > 0 ? `${count} not stored` : `${count} waiting to be stored`}</span>
      </Button>
      <Modal show={open} onHide={() => setOpen(false)} centered>
        <Modal.Header closeButton>
          <Modal.Title>Kept on this device</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <p>
            These takes are safe here. They are sent by themselves as soon as the server answers; leave this device’s
            browser data as it is until then.
          </p>
          <ul className="list-unstyled mb-0">
            {waiting.map(({ id, childName, upload, refused: why }) => (
              <li key={id} className="mb-2">
                <strong>{childName}</strong>, {upload.title},{' '}
                {new Date(upload.takenAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}
                {why !== undefined && (
                  <div>
                    {why}{' '}
                    <Button variant="outline-dark" size="sm" onClick={() => void dropTake(id)}>
                      Remove it
                    </Button>
                  </div>
                )}
              </li>
            ))}
          </ul>
        </Modal.Body>
      </Modal>
    </>
  );
}
