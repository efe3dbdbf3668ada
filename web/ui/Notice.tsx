import { t } from '../../core/words/say.ts';
import Button from 'react-bootstrap/Button';

interface NoticeProps {
  readonly problem: { readonly message: string };
  readonly again?: (() => void) | undefined;
  /** What the button says. */
  readonly verb?: string;
}

/**
 * An error beside what caused it: the sentence, and the way on. It stands at the door too, and so goes without the
 * library's part, which brings along how to fade and close.
 */
export function Notice({ problem, again, verb = t`Try again` }: NoticeProps) {
  return (
    <div className="alert alert-warning notice" role="alert">
      <span>{problem.message}</span>
      {again && (
        <Button variant="outline-dark" size="sm" onClick={again}>
          {verb}
        </Button>
      )}
    </div>
  );
}
