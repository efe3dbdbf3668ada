import Alert from 'react-bootstrap/Alert';
import Button from 'react-bootstrap/Button';

/** An error beside what caused it: the sentence, and the way on. */
export function Notice({ problem, again }: { problem: { message: string }; again?: (() => void) | undefined }) {
  return (
    <Alert variant="warning" className="notice" role="alert">
      <span>{problem.message}</span>
      {again && (
        <Button variant="outline-dark" size="sm" onClick={again}>
          Try again
        </Button>
      )}
    </Alert>
  );
}
