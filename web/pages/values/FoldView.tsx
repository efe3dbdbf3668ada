import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { beatsIn } from '../../../core/exercises/valueSums.ts';
import { VALUES } from '../../../core/rhythm/value.ts';
import { beatsText } from '../../../core/wording/plurals.ts';
import { type NamingId, valueName, withArticle } from '../../../core/wording/valueNames.ts';
import { NoteSign } from '../../ui/signs/NoteSign.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import type { ValuesProps } from './valuesProps.ts';
import './fold.scss';

const MOST_FOLDS = 4;

/** A sheet folded so many times, and the value of which the parts are asked for (by its number of folds). */
function useSheet() {
  const [folds, setFolds] = useState(0);
  const [asked, setAsked] = useState<number>();
  const fold = (to: number) => {
    const next = Math.max(0, Math.min(MOST_FOLDS, to));
    setFolds(next);
    if (asked !== undefined && asked > next) setAsked(undefined);
  };
  return { folds, asked, fold, setAsked };
}

type Sheet = ReturnType<typeof useSheet>;

function nameOf(folds: number, naming: NamingId, many = false): string {
  return valueName({ base: VALUES[folds]!.letter, dots: 0 }, naming, many);
}

/** How many parts are asked for. */
function litParts({ folds, asked }: Sheet): number {
  return asked === undefined ? 0 : 2 ** (folds - asked);
}

/** One sheet folded in halves, again and again; the parts of a longer value light up in it. */
export function FoldView({ naming, beat }: ValuesProps) {
  const sheet = useSheet();
  const { folds, fold } = sheet;
  const further = () => fold(folds === MOST_FOLDS ? 0 : folds + 1);
  useKeys({ ' ': further, ArrowRight: () => fold(folds + 1), ArrowLeft: () => fold(folds - 1) });
  const part = { base: VALUES[folds]!.letter, dots: 0 } as const;
  return (
    <>
      <p className="big-line" role="status">
        {headline(sheet, naming)}
      </p>
      <SheetParts sheet={sheet} />
      <p className="sheet-each">
        {t`Each part is ${withArticle(nameOf(folds, naming))}: ${beatsText(beatsIn(part, beat))}`}
      </p>
      <div className="stage-actions">
        <Button size="lg" onClick={further}>
          {folds === MOST_FOLDS ? t`Unfold all` : t`Fold in halves`} <kbd>{t`space`}</kbd>
        </Button>
        <Button size="lg" variant="outline-dark" disabled={folds === 0} onClick={() => fold(folds - 1)}>
          {rich`Back one fold ${<kbd>←</kbd>}`}
        </Button>
        {folds > 0 && <HowMany sheet={sheet} naming={naming} />}
      </div>
    </>
  );
}

function headline(sheet: Sheet, naming: NamingId): string {
  const { folds, asked } = sheet;
  const lit = litParts(sheet);
  if (asked !== undefined) return t`${lit} ${nameOf(folds, naming, lit > 1)} in ${withArticle(nameOf(asked, naming))}`;
  return VALUES.slice(0, folds + 1)
    .map((_, i) => `${2 ** i} ${nameOf(i, naming, i > 0)}`)
    .join(' = ');
}

function SheetParts({ sheet }: { sheet: Sheet }) {
  const { folds } = sheet;
  const parts = 2 ** folds;
  const lit = litParts(sheet);
  const part = { base: VALUES[folds]!.letter, dots: 0 } as const;
  return (
    <div className="sheet" data-parts={parts}>
      {Array.from({ length: parts }, (_, i) => (
        <div
          key={`${parts}-${i}`}
          className={`sheet-part ${i < lit ? 'lit' : ''} ${i > 0 ? `crease-${creaseAge(i, folds)}` : ''}`}
        >
          <NoteSign value={part} />
          {i < lit && <span className="sheet-number">{i + 1}</span>}
        </div>
      ))}
    </div>
  );
}

function HowMany({ sheet: { folds, asked, setAsked }, naming }: { sheet: Sheet; naming: NamingId }) {
  return (
    <fieldset className="how-many">
      <legend>{t`How many ${nameOf(folds, naming, true)} in a …`}</legend>
      {VALUES.slice(0, folds).map(({ letter }, i) => (
        <Button
          key={letter}
          variant={asked === i ? 'dark' : 'outline-dark'}
          aria-pressed={asked === i}
          onClick={() => setAsked(asked === i ? undefined : i)}
        >
          {nameOf(i, naming)}
        </Button>
      ))}
    </fieldset>
  );
}

/** By which fold a crease was made: the middle one by the first. */
function creaseAge(place: number, folds: number): number {
  for (let fold = 1; fold <= folds; fold++) if (place % 2 ** (folds - fold) === 0) return fold;
  return folds;
}
