import Button from 'react-bootstrap/Button';
import type { Clash } from '../api/client.ts';
import './bothVersions.scss';

interface BothVersionsProps {
  readonly clash: Clash & { readonly mine: object };
  /** What a part is called, and what is in it. */
  readonly nameOf: (part: string) => string;
  readonly wordsOf: (part: string, value: unknown) => string;
  readonly onMine: () => void;
  readonly onTheirs: () => void;
}

/** Somebody else changed the same meanwhile: both, side by side, and which one is to stay. */
export function BothVersions({ clash, nameOf, wordsOf, onMine, onTheirs }: BothVersionsProps) {
  const { parts, theirs } = clash;
  const mine = clash.mine as Readonly<Record<string, unknown>>;
  return (
    <section className="alert alert-warning both-versions" role="alert" aria-label="Changed by somebody else">
      <p>Somebody else changed the same meanwhile. Nothing is lost: choose which one is to stay.</p>
      <table>
        <thead>
          <tr>
            <td />
            <th scope="col">There now</th>
            <th scope="col">Yours</th>
          </tr>
        </thead>
        <tbody>
          {parts.map((part) => (
            <tr key={part}>
              <th scope="row">{nameOf(part)}</th>
              <td>{wordsOf(part, theirs[part])}</td>
              <td>{wordsOf(part, mine[part])}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="notice-actions">
        <Button size="sm" onClick={onMine}>
          Keep mine
        </Button>
        <Button size="sm" variant="outline-dark" onClick={onTheirs}>
          Leave what is there
        </Button>
      </div>
    </section>
  );
}

/** A value in a few words, where nothing better is known of it. */
export function plainWords(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'object') {
    const entries = Object.entries(value);
    return entries.length === 0 ? 'nothing' : entries.map(([key, one]) => `${key}: ${plainWords(one)}`).join(', ');
  }
  return typeof value === 'string' ? value : JSON.stringify(value);
}
