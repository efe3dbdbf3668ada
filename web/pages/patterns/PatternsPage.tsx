import { FolderInput, FolderOutput, Plus } from 'lucide-react';
import { Suspense, lazy, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, Navigate, useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { useClasses, usePatterns } from '../../api/hooks.ts';
import { READABLE_FILES, useDrop } from '../../files/useDrop.ts';
import { MiniNotes } from '../../ruler/MiniNotes.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { useCurrentClass } from '../../ui/currentClass.ts';
import { useKeys } from '../../ui/useKeys.ts';
import './patterns.scss';

const BringIn = lazy(() => import('./files/BringIn.tsx'));
const TakeOut = lazy(() => import('../../files/TakeOut.tsx'));

const HERE = '/patterns';

export default function PatternsPage() {
  const { data, error, mutate } = usePatterns();
  const navigate = useNavigate();
  const [files, setFiles] = useState<readonly File[]>([]);
  const [chosen, setChosen] = useState<ReadonlySet<string>>();
  const classes = useClasses().data;
  const { zone, over } = useDrop(setFiles);
  const input = useRef<HTMLInputElement>(null);
  const bring = () => input.current?.click();
  const add = () => void navigate(`/patterns/${uuid()}`);
  useKeys(files.length > 0 ? {} : { ' ': add, n: add, b: bring });
  // Nothing is there yet: the first day begins with a class, children and a few patterns at once.
  // Whoever is on the way to another view already goes there.
  if (data?.length === 0 && classes?.length === 0 && location.pathname === HERE)
    return <Navigate to="/first-day" replace />;
  if (files.length > 0)
    return (
      <Suspense fallback={null}>
        <BringIn files={files} onDone={() => setFiles([])} />
      </Suspense>
    );
  const choose = (id: string) => setChosen((before) => toggled(before ?? new Set(), id));
  return (
    <div {...zone} className={`drop-target ${over ? 'drop-over' : ''}`}>
      <input
        ref={input}
        type="file"
        multiple
        hidden
        aria-label="Files to bring in"
        accept={READABLE_FILES}
        onChange={({ target }) => setFiles([...(target.files ?? [])])}
      />
      <Head
        onAdd={add}
        onBring={bring}
        taking={chosen !== undefined}
        onTake={
          data && data.length > 0 ? () => setChosen(chosen ? undefined : new Set(data.map(({ id }) => id))) : undefined
        }
      />
      {error && !data && <Notice problem={error} again={() => void mutate()} />}
      {data?.length === 0 && (
        <div className="empty">
          No patterns yet. Write the first one: it takes a line such as “4/4 q q e e q”. Or drop files here: MusicXML,
          MIDI, ABC, rhythm text.
        </div>
      )}
      {data && chosen && <TakeOutBar patterns={data} chosen={chosen} onChosen={setChosen} />}
      <ol className="pattern-list">
        {data?.map((pattern) => (
          <PatternCard
            key={pattern.id}
            pattern={pattern}
            chosen={chosen?.has(pattern.id)}
            onChoose={() => choose(pattern.id)}
          />
        ))}
      </ol>
    </div>
  );
}

interface HeadProps {
  readonly onAdd: () => void;
  readonly onBring: () => void;
  readonly taking: boolean;
  /** Undefined where nothing is there to be taken out. */
  readonly onTake: (() => void) | undefined;
}

function Head({ onAdd, onBring, taking, onTake }: HeadProps) {
  return (
    <div className="page-head">
      <h1>Patterns</h1>
      <Button onClick={onAdd}>
        <Plus size={18} aria-hidden /> New pattern <kbd>space</kbd>
      </Button>
      <Button variant="outline-dark" onClick={onBring}>
        <FolderInput size={18} aria-hidden /> Bring in <kbd>B</kbd>
      </Button>
      {onTake && (
        <Button variant="outline-dark" aria-expanded={taking} onClick={onTake}>
          <FolderOutput size={18} aria-hidden /> Take out
        </Button>
      )}
    </div>
  );
}

function toggled(set: ReadonlySet<string>, id: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(id)) next.add(id);
  return next;
}

interface TakeOutBarProps {
  readonly patterns: readonly SavedPattern[];
  readonly chosen: ReadonlySet<string>;
  readonly onChosen: (chosen: ReadonlySet<string>) => void;
}

/** Which patterns go out, and as what. */
function TakeOutBar({ patterns, chosen, onChosen }: TakeOutBarProps) {
  const { counts } = voiceOf(useCurrentClass());
  const named = patterns.flatMap(({ id, title, text }) => {
    const parsed = parseRhythm(text);
    return chosen.has(id) && parsed.ok ? [{ title, pattern: parsed.pattern }] : [];
  });
  const all = chosen.size === patterns.length;
  return (
    <section className="take-out-bar" aria-label="Take out">
      <Button
        size="sm"
        variant="outline-dark"
        onClick={() => onChosen(all ? new Set() : new Set(patterns.map(({ id }) => id)))}
      >
        {all ? 'Choose none' : 'Choose all'}
      </Button>
      <Suspense fallback={null}>
        <TakeOut patterns={named} name="Patterns" counts={counts} />
      </Suspense>
    </section>
  );
}

interface CardProps {
  readonly pattern: SavedPattern;
  /** Undefined while nothing is chosen. */
  readonly chosen: boolean | undefined;
  readonly onChoose: () => void;
}

function PatternCard({ pattern: { id, title, text }, chosen, onChoose }: CardProps) {
  const parsed = parseRhythm(text);
  return (
    <li className={chosen === undefined ? '' : 'pattern-choice'}>
      {chosen !== undefined && (
        <Form.Check type="checkbox" aria-label={`Take out ${title}`} checked={chosen} onChange={onChoose} />
      )}
      <Link to={`/patterns/${id}`} className="pattern-card">
        <strong>{title}</strong>
        {parsed.ok && <MiniNotes pattern={parsed.pattern} />}
        <span className="pattern-text">{text}</span>
      </Link>
    </li>
  );
}
