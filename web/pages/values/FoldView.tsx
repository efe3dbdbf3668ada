import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { beatsIn, beatsText } from '../../../core/exercises/valueSums.ts';
import { valueName, withArticle } from '../../../core/wording/valueNames.ts';
import { VALUES } from '../../../core/rhythm/value.ts';
import { NoteSign } from '../../ui/signs/NoteSign.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { type ValuesProps } from './valuesProps.ts';

const MOST_FOLDS = 4;

/** One sheet folded in halves, again and again; the parts of a longer value light up in it. */
export function FoldView({ naming, beat }: ValuesProps) {
  const [folds, setFolds] = useState(0);
  const [asked, setAsked] = useState<number>();
  const parts = 2 ** folds;
  const part = { base: VALUES[folds]!.letter, dots: 0 } as const;
  const fold = (to: number) => {
    const next = Math.max(0, Math.min(MOST_FOLDS, to));
    setFolds(next);
    if (asked !== undefined && asked > next) setAsked(undefined);
  };
  useKeys({
    ' ': () => fold(folds === MOST_FOLDS ? 0 : folds + 1),
    ArrowRight: () => fold(folds + 1),
    ArrowLeft: () => fold(folds - 1),
  });
  const lit = asked === undefined ? 0 : 2 ** (folds - asked);
  const name = (index: number, many = false) => valueName({ base: VALUES[index]!.letter, dots: 0 }, naming, many);
  return (
    <>
      <p className="big-line" role="status">
        {asked === undefined
          ? VALUES.slice(0, folds + 1)
              .map((_, i) => `${2 ** i} ${name(i, i > 0)}`)
              .join(' = ')
          : `${lit} ${name(folds, lit > 1)} in ${withArticle(name(asked))}`}
      </p>
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
      <p className="sheet-each">
        Each part is {withArticle(name(folds))}: {beatsText(beatsIn(part, beat))}
      </p>
      <div className="stage-actions">
        <Button size="lg" onClick={() => fold(folds === MOST_FOLDS ? 0 : folds + 1)}>
          {folds === MOST_FOLDS ? 'Unfold all' : 'Fold in halves'} <kbd>space</kbd>
        </Button>
        <Button size="lg" variant="outline-dark" disabled={folds === 0} onClick={() => fold(folds - 1)}>
          Back one fold <kbd>←</kbd>
        </Button>
        {folds > 0 && (
          <fieldset className="how-many">
            <legend>How many {name(folds, true)} in a …</legend>
            {VALUES.slice(0, folds).map(({ letter }, i) => (
              <Button
                key={letter}
                variant={asked === i ? 'dark' : 'outline-dark'}
                aria-pressed={asked === i}
                onClick={() => setAsked(asked === i ? undefined : i)}
              >
                {name(i)}
              </Button>
            ))}
          </fieldset>
        )}
      </div>
    </>
  );
}

/** By which fold a crease was made: the middle one by the first. */
function creaseAge(place: number, folds: number): number {
  for (let fold = 1; fold <= folds; fold++) if (place % 2 ** (folds - fold) === 0) return fold;
  return folds;
}
