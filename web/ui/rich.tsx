import { Fragment, type ReactNode } from 'react';
import { currentSpeech, keyOf, piecesOf } from '../../core/words/say.ts';

/**
 * A sentence with elements in it: rich`Press ${<kbd>E</kbd>} to hear it`. The catalogue gives the sentence with its
 * places {0}, {1} …, wherever they stand in its language; what is an element is put there as it is.
 */
export function rich(parts: TemplateStringsArray, ...values: readonly ReactNode[]): ReactNode {
  const pieces = piecesOf(parts);
  const said = currentSpeech()?.say(
    keyOf(pieces),
    values.map((value, i) => (typeof value === 'string' || typeof value === 'number' ? value : `{${i}}`)),
  );
  if (said === undefined)
    return pieces.map((piece, i) => (
      <Fragment key={i}>
        {i > 0 && values[i - 1]}
        {piece}
      </Fragment>
    ));
  return said
    .split(/\{(\d+)\}/)
    .map((piece, i) => <Fragment key={i}>{i % 2 ? values[Number(piece)] : piece}</Fragment>);
}
