import { t } from '../../../core/words/say.ts';
import { type FormEvent, useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { OPTION_LETTERS } from '../../../core/wording/earWords.ts';

const MOST = 60;

/** How many hands went up for each candidate, typed one after the other. */
export function HandsForm({ heard, onDone }: { heard: boolean; onDone: (hands: readonly number[]) => void }) {
  const first = useRef<HTMLInputElement>(null);
  // Before there is something to count, the space bar plays.
  useEffect(() => {
    if (heard) first.current?.focus();
  }, [heard]);
  const [hands, setHands] = useState<readonly string[]>(OPTION_LETTERS.map(() => ''));
  const numbers = hands.map((text) => Math.max(0, Math.min(MOST, Math.floor(Number(text) || 0))));
  const all = numbers.reduce((sum, one) => sum + one, 0);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (all > 0) onDone(numbers);
  };
  return (
    <form className="hands-form" onSubmit={submit}>
      {OPTION_LETTERS.map((letter, i) => (
        <label key={letter}>
          {letter}{' '}
          <input
            ref={i === 0 ? first : undefined}
            data-figures
            inputMode="numeric"
            value={hands[i]}
            aria-label={t`Hands for ${letter}`}
            onChange={({ target }) => setHands(hands.with(i, target.value.replace(/\D/g, '').slice(0, 2)))}
          />
        </label>
      ))}
      <Button type="submit" size="lg" disabled={all === 0}>
        {all === 0 ? t`Type the hands` : t`${all} hands`} <kbd>{t`enter`}</kbd>
      </Button>
    </form>
  );
}
