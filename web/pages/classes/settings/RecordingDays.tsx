import { t } from '../../../../core/words/say.ts';
import Form from 'react-bootstrap/Form';

const USUAL_DAYS = 14;

/** Whether recordings of children are kept, and for how long. */
export function RecordingDays({ days, onDays }: { days: number | null; onDays: (days: number | null) => void }) {
  return (
    <>
      <Form.Check
        type="switch"
        id="keep-recordings"
        label={t`Keep recordings of children`}
        checked={days !== null}
        onChange={(event) => onDays(event.target.checked ? USUAL_DAYS : null)}
      />
      {days !== null && (
        <div className="keep-days">
          <Form.Label htmlFor="keep-days">{t`Deleted after so many days`}</Form.Label>
          <Form.Control
            id="keep-days"
            size="sm"
            type="number"
            min={1}
            max={365}
            value={days || ''}
            onChange={(event) => onDays(Number(event.target.value))}
          />
        </div>
      )}
      <p className="caution">
        {days === null
          ? t`Sound is analysed in the browser and not kept.`
          : t`A recording of a child is personal data: ask first, and keep it no longer than needed.`}
      </p>
    </>
  );
}
