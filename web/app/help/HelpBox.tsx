import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import Modal from 'react-bootstrap/Modal';
import { Link, matchPath, useLocation } from 'react-router';
import { HELP } from './helpTexts.ts';
import './help.scss';

/** What this view is for, and its keys. */
export default function HelpBox({ onClose }: { onClose: () => void }) {
  const { pathname } = useLocation();
  const help = HELP().find(({ path }) => matchPath(`/${path}`, pathname));
  return (
    <Modal show onHide={onClose} centered scrollable aria-labelledby="help-title">
      <Modal.Header closeButton>
        <Modal.Title id="help-title">{help?.title ?? t`Help`}</Modal.Title>
      </Modal.Header>
      <Modal.Body className="help">
        {help?.points.map((point) => (
          <p key={point}>{point}</p>
        ))}
        {help?.keys && (
          <dl className="help-keys">
            {help.keys.map(([key, what]) => (
              <div key={key}>
                <dt>
                  <kbd>{key}</kbd>
                </dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
        )}
        <p className="mb-0">
          {rich`${<Link to="/first-day" onClick={onClose}>{t`The first day, step by step`}</Link>}
            · ${<kbd>?</kbd>} opens this help in every view ·
            ${<Link to="/licences" onClick={onClose}>{t`Licences`}</Link>}`}
        </p>
      </Modal.Body>
    </Modal>
  );
}
