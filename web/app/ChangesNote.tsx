import { counted, perLanguage, t } from '../../core/words/say.ts';
import { format } from '../words/dates.ts';
import { CloudOff, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { useClass, useClasses } from '../api/hooks.ts';
import { type Change, dropChange, insist } from '../store/changes.ts';
import { thingAt } from '../store/places.ts';
import { BothVersions } from '../domain/BothVersions.tsx';
import { flat } from '../store/settled.ts';
import { namesIn, namesOf } from '../domain/namesIn.ts';
import { SHEET_NAMES } from '../domain/partWords.ts';

const ON_DEVICE = perLanguage(
  () => t`These changes are safe here, and what you see has them in it. They are sent by
    themselves as soon as the server answers; leave this device’s browser data as it is
    until then.`,
);

/** What was changed without a network: that it waits, and where the server has something else by now. */
export default function ChangesNote({ changes }: { readonly changes: readonly Change[] }) {
  const [open, setOpen] = useState(false);
  const refused = changes.filter((change) => change.refused);
  const waiting = changes.filter((change) => !change.refused);
  const count = refused.length || waiting.length;
  return (
    <>
      <Button variant="outline-dark" size="sm" className="outbox-note" onClick={() => setOpen(true)}>
        {refused.length > 0 ? <TriangleAlert size={16} aria-hidden /> : <CloudOff size={16} aria-hidden />}{' '}
        <span role="status">
          {counted(count, 'change')} {refused.length > 0 ? t`to look at` : t`waiting`}
          {refused.length === 0 && <span className="visually-hidden"> {t`to be sent`}</span>}
        </span>
      </Button>
      <Modal show={open} onHide={() => setOpen(false)} centered scrollable size="lg">
        <Modal.Header closeButton>
          <Modal.Title>{t`Changed without a network`}</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          {refused.map((change) => (
            <RefusedChange key={change.id} change={change} />
          ))}
          {waiting.length > 0 && <p>{ON_DEVICE()}</p>}
          <ul className="list-unstyled mb-0">
            {waiting.map((change) => (
              <li key={change.id}>
                <Named change={change} />
                {!change.body && t`, removed`}, {format(change.at, 'EEE HH:mm')}
              </li>
            ))}
          </ul>
        </Modal.Body>
      </Modal>
    </>
  );
}

const classOf = ({ path }: Change) => /^\/classes\/([^/]+)/.exec(path)?.[1];

/** Which thing it is, in words, and in which class. */
function Named({ change }: { readonly change: Change }) {
  const schoolClass = useClass(classOf(change)).data;
  const { body, was, path } = change;
  const last = path.split('/').at(-1);
  const word = thingAt(path)?.word ?? t`something`;
  const title = body?.title ?? body?.name ?? was?.title ?? was?.name;
  const child = schoolClass?.children.find(({ id }) => id === last)?.name;
  const name = typeof title === 'string' ? title : child;
  return (
    <>
      <strong>
        {word.charAt(0).toUpperCase() + word.slice(1)}
        {name !== undefined && ` “${name}”`}
      </strong>
      {schoolClass && schoolClass.name !== name && `, ${schoolClass.name}`}
    </>
  );
}

function RefusedChange({ change }: { readonly change: Change }) {
  const schoolClass = useClass(classOf(change)).data;
  const classes = useClasses().data;
  const { message, theirs, parts } = change.refused!;
  const removed = !change.body;
  return (
    <section className="mb-4">
      <p className="mb-1">
        <Named change={change} />
        {removed && t`, removed`}
      </p>
      {theirs && parts && change.body ? (
        <BothVersions
          clash={{ theirs: flat(theirs), parts, mine: flat(change.body) }}
          names={{
            ...namesOf(classes ?? []),
            ...(schoolClass && namesIn(schoolClass)),
            ...(thingAt(change.path)?.word === 'sheet' ? SHEET_NAMES() : {}),
          }}
          onChosen={(theirsStays) => insist(change, theirsStays)}
        />
      ) : (
        <>
          <p>{message}</p>
          <div className="notice-actions">
            <Button size="sm" variant="outline-dark" onClick={() => insist(change)}>
              {removed ? t`Remove it all the same` : t`Try again`}
            </Button>
            <Button size="sm" variant="outline-dark" onClick={() => dropChange(change.id)}>
              {removed ? t`Keep it` : t`Leave it out`}
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
