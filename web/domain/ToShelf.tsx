import { Link } from 'react-router';
import { t } from '../../core/words/say.ts';
import type { ShelfKind } from '../../contract/schoolShelf.ts';

/** The way to lay a thing on the school's shelf. @param id  of the thing, where there are several of its kind */
export function ToShelf({ kind, id = '' }: { kind: ShelfKind; id?: string }) {
  return <Link className="btn btn-outline-dark" to={`/shelf?lay=${kind}:${id}`}>{t`For the school’s shelf`}</Link>;
}

/** Of a copy from a shelf: who made it. */
export function MadeBy({ from }: { from: string | undefined }) {
  return from === undefined ? null : <span className="made-by">{t`by ${from}`}</span>;
}
