import { t } from '../../../core/words/say.ts';
import { Suspense, lazy, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { namingOf, voiceOf } from '../../../core/wording/voice.ts';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { toggled } from '../../ui/lists.ts';
import { Arrange } from './Arrange.tsx';
import { FilterBar } from './FilterBar.tsx';
import { Found, PatternCard } from './PatternCard.tsx';
import { named } from '../../files/named.ts';
import { PageOfLines } from './PageOfLines.tsx';
import { type Shelved, foldersOf, found, shelved } from './shelf.ts';
import { type Mode, NOTHING_WANTED, type Wanted } from './wanted.ts';

const TakeOut = lazy(() => import('../../files/TakeOut.tsx'));

interface ShelfProps {
  readonly patterns: readonly SavedPattern[];
  readonly mode: Mode;
  readonly wanted: Wanted;
  readonly onWanted: (wanted: Wanted) => void;
}

/** The patterns that are looked for, in their order. */
export default function ShelfList({ patterns, mode, wanted, onWanted }: ShelfProps) {
  const schoolClass = useCurrentClass();
  const all = useMemo(() => shelved(patterns), [patterns]);
  const folders = foldersOf(patterns);
  const shown = found(all, wanted);
  return (
    <>
      <FilterBar
        all={all}
        folders={folders}
        wanted={wanted}
        schoolClass={schoolClass}
        naming={namingOf(schoolClass)}
        onWanted={onWanted}
      />
      {wanted !== NOTHING_WANTED && <Found count={shown.length} />}
      {mode === 'open' && (
        <ol className="pattern-list">
          {shown.map((one) => (
            <PatternCard key={one.saved.id} saved={one.saved} soundsLike={one.soundsLike} />
          ))}
        </ol>
      )}
      {mode === 'take-out' && <TakeOutList shown={shown} />}
      {mode === 'page' && <PageOfLines shown={shown} />}
      {mode === 'arrange' && <Arrange patterns={patterns} shown={shown} folders={folders} />}
    </>
  );
}

function TakeOutList({ shown }: { shown: readonly Shelved[] }) {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const ids = shown.map(({ saved }) => saved.id);
  const chosen = new Set(ids.filter((id) => !left.has(id)));
  return (
    <>
      <TakeOutBar
        shown={shown}
        chosen={chosen}
        onChosen={(next) => setLeft(new Set(ids.filter((id) => !next.has(id))))}
      />
      <ol className="pattern-list">
        {shown.map((one) => (
          <PatternCard
            key={one.saved.id}
            saved={one.saved}
            soundsLike={one.soundsLike}
            chosen={chosen.has(one.saved.id)}
            onChoose={() => setLeft((before) => toggled(before, one.saved.id))}
          />
        ))}
      </ol>
    </>
  );
}

interface TakeOutBarProps {
  readonly shown: readonly Shelved[];
  readonly chosen: ReadonlySet<string>;
  readonly onChosen: (chosen: ReadonlySet<string>) => void;
}

/** Which patterns go out, and as what. */
function TakeOutBar({ shown, chosen, onChosen }: TakeOutBarProps) {
  const { counts } = voiceOf(useCurrentClass());
  const going = shown.flatMap(({ saved: { id, title }, parts }) =>
    chosen.has(id) && parts.length > 0 ? [named(title, { parts })] : [],
  );
  const all = chosen.size === shown.length;
  return (
    <section className="take-out-bar" aria-label={t`Take out`}>
      <Button
        size="sm"
        variant="outline-dark"
        onClick={() => onChosen(all ? new Set() : new Set(shown.map(({ saved }) => saved.id)))}
      >
        {all ? t`Choose none` : t`Choose all`}
      </Button>
      <Suspense fallback={null}>
        <TakeOut patterns={going} name={t`Patterns`} counts={counts} />
      </Suspense>
    </section>
  );
}
