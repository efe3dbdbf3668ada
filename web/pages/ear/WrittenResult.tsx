import { t } from '../../../core/words/say.ts';
import { Check, X } from 'lucide-react';
import type { Written } from '../../../core/ear/written.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import type { NamingId } from '../../../core/wording/valueNames.ts';
import { SAME_SOUND, measureLine } from '../../../core/wording/writtenWords.ts';
import { Ruler } from '../../ruler/Ruler.tsx';

interface ResultProps {
  readonly result: Written;
  readonly pattern: Pattern;
  readonly answer: Pattern;
  readonly naming: NamingId;
}

/** Measure by measure; what was heard is shown once it is right, or else only what was written. */
export function WrittenResult({ result, pattern, answer, naming }: ResultProps) {
  const { measures, right, sameWriting } = result;
  return (
    <div className="written-result">
      <ul className="written-measures">
        {measures.map((measure, i) => (
          <li key={i} className={measure.right ? 'right' : 'wrong'}>
            {measure.right ? <Check aria-hidden /> : <X aria-hidden />} {measureLine(measure, naming)}
          </li>
        ))}
      </ul>
      {right && !sameWriting && (
        <div className="both-writings">
          <p>{SAME_SOUND()}</p>
          <h3>{t`What was played`}</h3>
          <Ruler pattern={pattern} size="desk" />
          <h3>{t`What you wrote`}</h3>
          <Ruler pattern={answer} size="desk" />
        </div>
      )}
    </div>
  );
}
