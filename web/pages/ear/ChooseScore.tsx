import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import Button from 'react-bootstrap/Button';
import type { ChangeId } from '../../../core/exercises/rhythms/changes.ts';
import { changeText } from '../../../core/wording/earWords.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { KeepScore } from './KeepScore.tsx';
import type { EarSettings } from './earSettings.ts';
import type { useChooseRun } from './useChooseRun.ts';

interface ScoreProps {
  readonly run: Pick<ReturnType<typeof useChooseRun>, 'right' | 'hands' | 'tally'>;
  readonly count: number;
  readonly settings: EarSettings;
  readonly onAgain: () => void;
}

/** How ten questions went, and what was taken for what was heard. */
export function ChooseScore({ run: { right, hands, tally }, count, settings, onAgain }: ScoreProps) {
  useKeys({ ' ': onAgain });
  const mistaken = (Object.entries(tally) as [ChangeId, number][]).sort((a, b) => b[1] - a[1]);
  const byHands = hands.all > 0;
  const kept = byHands ? { right: hands.right, asked: hands.all } : { right, asked: count };
  return (
    <section className="ear-score">
      <h2 className="big-line" role="status">
        {t`${right} of ${count} right`}
        {byHands && t`, ${hands.right} of ${hands.all} hands`}
      </h2>
      {mistaken.length > 0 && (
        <ul className="tally">
          {mistaken.map(([id, times]) => (
            <li key={id}>
              <strong>{times} ×</strong> {changeText(id, settings.voice.naming)}
            </li>
          ))}
        </ul>
      )}
      <KeepScore run={{ kind: 'choose', ...kept, mistakes: tally }} settings={settings} />
      <Button size="lg" onClick={onAgain}>
        {rich`${count === 10 ? t`Ten` : count} new ones ${<kbd>{t`space`}</kbd>}`}
      </Button>
    </section>
  );
}
