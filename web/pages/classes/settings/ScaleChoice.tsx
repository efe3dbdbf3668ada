import { perLanguage, t } from '../../../../core/words/say.ts';
import Form from 'react-bootstrap/Form';
import { MOST_WORDS, NAMED_SCALES, type Scale, scaleTitle } from '../../../../core/judging/scale.ts';
import { Select } from '../../../ui/Select.tsx';

const WORDS = 'words';
const FIRST_WORDS = perLanguage((): readonly string[] => [t`Beginning`, t`On the way`, t`Secure`]);

interface ScaleChoiceProps {
  readonly scale: Scale;
  readonly onScale: (scale: Scale) => void;
}

/** How the school gives marks: one of the usual scales, or its own words from the lowest to the best. */
export function ScaleChoice({ scale, onScale }: ScaleChoiceProps) {
  const words = typeof scale === 'string' ? undefined : scale;
  return (
    <>
      <Form.Label htmlFor="mark-scale">{t`Marks are`}</Form.Label>
      <Select
        id="mark-scale"
        value={typeof scale === 'string' ? scale : WORDS}
        options={[
          ...NAMED_SCALES.map((one) => [one, one === '6-1' ? t`6 to 1, 1 is best` : scaleTitle(one)] as const),
          [WORDS, t`words of our own`] as const,
        ]}
        onChoose={(chosen) => onScale(chosen === WORDS ? FIRST_WORDS() : chosen)}
      />
      {words && (
        <fieldset className="scale-words">
          <legend>{t`The words, the lowest first`}</legend>
          {Array.from({ length: MOST_WORDS }, (_, i) => (
            <Form.Control
              key={i}
              size="sm"
              aria-label={t`Step ${i + 1}`}
              placeholder={i < words.length ? '' : '–'}
              maxLength={20}
              value={words[i] ?? ''}
              onChange={(event) => onScale(withWord(words, i, event.target.value))}
            />
          ))}
        </fieldset>
      )}
    </>
  );
}

/** Words that are empty at the end are no steps. */
function withWord(words: readonly string[], at: number, word: string): readonly string[] {
  const all = Array.from({ length: Math.max(words.length, at + 1) }, (_, i) => (i === at ? word : (words[i] ?? '')));
  const last = all.findLastIndex((one) => one.trim() !== '');
  return all.slice(0, Math.max(last + 1, 1));
}
