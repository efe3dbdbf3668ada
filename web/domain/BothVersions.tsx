import { t } from '../../core/words/say.ts';
import { useId, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Clash } from '../api/client.ts';
import { bothWords, partName } from './partWords.ts';
import './bothVersions.scss';

interface BothVersionsProps {
  readonly clash: Clash & { readonly mine: object };
  /** What a part is called, where that is not as usual, and what things are called by their ids. */
  readonly names?: Readonly<Record<string, string>> | undefined;
  /** @param theirsStays  parts of which what is there now is chosen */
  readonly onChosen: (theirsStays: ReadonlySet<string>) => void;
}

type Choice = 'theirs' | 'mine';
type Chosen = Readonly<Record<string, Choice>>;

/** Somebody else changed the same meanwhile: what differs, side by side, and which one is to stay, part by part. */
export function BothVersions({ clash, names, onChosen }: BothVersionsProps) {
  const { parts } = clash;
  const [chosen, setChosen] = useState<Chosen>({});
  const several = parts.length > 1;
  return (
    <section className="alert alert-warning both-versions" role="alert" aria-label={t`Changed by somebody else`}>
      <p>{t`Somebody else changed the same meanwhile. Choose which one is to stay; all else
          that either of you changed stays in any case.`}</p>
      <table>
        <thead>
          <tr>
            <td />
            <th scope="col">{t`There now`}</th>
            <th scope="col">{t`Yours`}</th>
          </tr>
        </thead>
        <tbody>
          {parts.map((part) => (
            <PartRow
              key={part}
              part={part}
              name={partName(part, names)}
              names={names}
              clash={clash}
              chosen={chosen[part]}
              onChoose={several ? (which) => setChosen({ ...chosen, [part]: which }) : undefined}
            />
          ))}
        </tbody>
      </table>
      <div className="notice-actions">
        {several && (
          <Button
            size="sm"
            disabled={parts.some((part) => !chosen[part])}
            onClick={() => onChosen(new Set(parts.filter((part) => chosen[part] === 'theirs')))}
          >
            {t`Keep what is chosen`}
          </Button>
        )}
        <Button size="sm" variant={several ? 'outline-dark' : 'primary'} onClick={() => onChosen(new Set())}>
          {several ? t`Keep all of mine` : t`Keep mine`}
        </Button>
        <Button size="sm" variant="outline-dark" onClick={() => onChosen(new Set(parts))}>
          {t`Leave what is there`}
        </Button>
      </div>
    </section>
  );
}

interface PartRowProps {
  readonly part: string;
  readonly name: string;
  readonly names: BothVersionsProps['names'];
  readonly clash: BothVersionsProps['clash'];
  readonly chosen: Choice | undefined;
  /** Undefined where there is nothing to choose but all. */
  readonly onChoose: ((which: Choice) => void) | undefined;
}

function PartRow({ part, name, names, clash, chosen, onChoose }: PartRowProps) {
  const group = useId();
  const mine = (clash.mine as Readonly<Record<string, unknown>>)[part];
  const words = bothWords(part, clash.theirs[part], mine, names);
  return (
    <tr>
      <th scope="row">{name}</th>
      {(['theirs', 'mine'] as const).map((which, i) => (
        <td key={which}>
          {onChoose ? (
            <Form.Check
              type="radio"
              id={group + which}
              name={group}
              label={words[i]}
              checked={chosen === which}
              onChange={() => onChoose(which)}
            />
          ) : (
            words[i]
          )}
        </td>
      ))}
    </tr>
  );
}
