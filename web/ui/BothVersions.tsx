import Button from 'react-bootstrap/Button';
import type { Clash } from '../api/client.ts';
import { partName, partWords } from './partWords.ts';
import './bothVersions.scss';

interface BothVersionsProps {
  readonly clash: Clash & { readonly mine: object };
  /** What a part is called, where that is not as usual. */
  readonly names?: Readonly<Record<string, string>> | undefined;
  readonly onMine: () => void;
  readonly onTheirs: () => void;
}

/** Somebody else changed the same meanwhile: both, side by side, and which one is to stay. */
export function BothVersions({ clash, names, onMine, onTheirs }: BothVersionsProps) {
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
              <th scope="row">{partName(part, names)}</th>
              <td>{partWords(part, theirs[part])}</td>
              <td>{partWords(part, mine[part])}</td>
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
