import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { ArrowUpDown, FolderInput, FolderOutput, ListFilter, ListOrdered, Plus, Sparkles } from 'lucide-react';
import { Suspense, lazy, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, Navigate, useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { useClasses, usePatterns } from '../../api/hooks.ts';
import { READABLE_FILES, useDrop } from '../../files/useDrop.ts';
import { Loading } from '../../ui/Loading.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { Found, PatternCard } from './PatternCard.tsx';
import { SearchWords } from './SearchWords.tsx';
import { type Mode, NOTHING_WANTED, type Wanted, hasWords } from './wanted.ts';
import './patterns.scss';

const ShelfList = lazy(() => import('./ShelfList.tsx'));
const BringIn = lazy(() => import('./files/BringIn.tsx'));

const HERE = '/patterns';

export default function PatternsPage() {
  const { data, error, mutate } = usePatterns();
  const navigate = useNavigate();
  const [files, setFiles] = useState<readonly File[]>([]);
  const [mode, setMode] = useState<Mode>('open');
  const [looking, setLooking] = useState(false);
  const [wanted, setWanted] = useState<Wanted>(NOTHING_WANTED);
  const classes = useClasses().data;
  const { zone, over } = useDrop(setFiles);
  const input = useRef<HTMLInputElement>(null);
  const bring = () => input.current?.click();
  const add = () => void navigate(`/patterns/${uuid()}`);
  useKeys(files.length > 0 ? {} : { ' ': add, n: add, b: bring, f: () => setLooking(true) });
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
  return (
    <div {...zone} className={`drop-target ${over ? 'drop-over' : ''}`}>
      <input
        ref={input}
        type="file"
        multiple
        hidden
        aria-label={t`Files to bring in`}
        accept={READABLE_FILES}
        onChange={({ target }) => setFiles([...(target.files ?? [])])}
      />
      <Head onAdd={add} onBring={bring} mode={mode} onMode={data && data.length > 0 ? setMode : undefined} />
      {!data && <Loading problem={error} again={() => void mutate()} />}
      {data?.length === 0 && (
        <div className="empty">{t`No patterns yet. Write the first one: it takes a line such as “4/4 q q e e q”.
            Or drop files here: MusicXML, MIDI, ABC, rhythm text.`}</div>
      )}
      {data && data.length > 0 && (
        <Suspense fallback={null}>
          {mode === 'open' && !looking ? (
            <PlainList patterns={data} wanted={wanted} onWanted={setWanted} onLook={() => setLooking(true)} />
          ) : (
            <ShelfList patterns={data} mode={mode} wanted={wanted} onWanted={setWanted} />
          )}
        </Suspense>
      )}
    </div>
  );
}

/** With fewer than these nothing need be looked for. */
const MANY = 6;

interface ListProps {
  readonly patterns: readonly SavedPattern[];
  readonly wanted: Wanted;
  readonly onWanted: (wanted: Wanted) => void;
  readonly onLook: () => void;
}

/** The patterns, looked for by words; whatever asks more of them comes when it is wanted. */
function PlainList({ patterns, wanted, onWanted, onLook }: ListProps) {
  const shown = patterns.filter((one) => !one.archived && hasWords(one, wanted.words));
  return (
    <>
      {patterns.length >= MANY && (
        <search className="filter-bar" aria-label={t`Patterns`}>
          <SearchWords words={wanted.words} onWords={(words) => onWanted({ ...wanted, words })} />
          <Button variant="outline-dark" aria-expanded={false} onClick={onLook}>
            <ListFilter size={18} aria-hidden /> {rich`By meter, element, level, folder ${<kbd>F</kbd>}`}
          </Button>
        </search>
      )}
      {wanted.words !== '' && <Found count={shown.length} />}
      <ol className="pattern-list">
        {shown.map((saved) => (
          <PatternCard key={saved.id} saved={saved} />
        ))}
      </ol>
    </>
  );
}

interface HeadProps {
  readonly onAdd: () => void;
  readonly onBring: () => void;
  readonly mode: Mode;
  /** Undefined where nothing is there to be taken out or arranged. */
  readonly onMode: ((mode: Mode) => void) | undefined;
}

function Head({ onAdd, onBring, mode, onMode }: HeadProps) {
  const turn = (to: Mode) => onMode?.(mode === to ? 'open' : to);
  return (
    <div className="page-head">
      <h1>{t`Patterns`}</h1>
      <Button onClick={onAdd}>
        <Plus size={18} aria-hidden /> {rich`New pattern ${<kbd>{t`space`}</kbd>}`}
      </Button>
      <Link className="btn btn-outline-dark" to="/make">
        <Sparkles size={18} aria-hidden /> {t`Make some`}
      </Link>
      <Button variant="outline-dark" onClick={onBring}>
        <FolderInput size={18} aria-hidden /> {rich`Bring in ${<kbd>B</kbd>}`}
      </Button>
      {onMode && (
        <>
          <Button variant="outline-dark" aria-expanded={mode === 'page'} onClick={() => turn('page')}>
            <ListOrdered size={18} aria-hidden /> {t`Page of lines`}
          </Button>
          <Button variant="outline-dark" aria-expanded={mode === 'take-out'} onClick={() => turn('take-out')}>
            <FolderOutput size={18} aria-hidden /> {t`Take out`}
          </Button>
          <Button variant="outline-dark" aria-expanded={mode === 'arrange'} onClick={() => turn('arrange')}>
            <ArrowUpDown size={18} aria-hidden /> {mode === 'arrange' ? t`Arranged` : t`Arrange`}
          </Button>
        </>
      )}
    </div>
  );
}
