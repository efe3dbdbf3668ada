import { t } from '../../../core/words/say.ts';
import { useRef } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { TextError } from '../../../core/rhythm/text.ts';

/** Position in the text of a line and column that count from 1. */
function positionOf(text: string, { line, column }: TextError): number {
  const lines = text.split('\n');
  return lines.slice(0, line - 1).reduce((sum, before) => sum + before.length + 1, 0) + column - 1;
}

export function RhythmField({
  text,
  error,
  onChange,
}: {
  text: string;
  error: TextError | undefined;
  onChange: (text: string) => void;
}) {
  const field = useRef<HTMLTextAreaElement>(null);
  const goThere = () => {
    const at = error ? positionOf(text, error) : 0;
    field.current?.focus();
    field.current?.setSelectionRange(at, Math.min(text.length, at + 1));
  };
  return (
    <Form.Group controlId="rhythm-text" className="rhythm-field">
      <Form.Label className="visually-hidden">{t`Rhythm`}</Form.Label>
      <Form.Control
        as="textarea"
        dir="ltr"
        ref={field}
        rows={Math.min(5, Math.max(2, Math.ceil(text.length / 88)))}
        value={text}
        placeholder="4/4 q q e e q"
        spellCheck={false}
        autoCapitalize="off"
        autoCorrect="off"
        isInvalid={error !== undefined}
        aria-describedby="rhythm-message"
        onChange={(event) => onChange(event.target.value)}
      />
      <div id="rhythm-message" className="rhythm-error" aria-live="polite">
        {error && (
          <>
            <span>{t`Line ${error.line}, column ${error.column}: here I expected
                ${error.expected}, and found ${error.found}.`}</span>
            <Button variant="outline-dark" size="sm" onClick={goThere}>{t`Show me`}</Button>
          </>
        )}
      </div>
    </Form.Group>
  );
}
