import Button from 'react-bootstrap/Button';
import { type Part, beatsText, workedSteps } from '../../../core/exercises/valueSums.ts';
import { type CountOptions, countPattern } from '../../../core/counting/count.ts';
import { SCHOOLS } from '../../../core/counting/schools.ts';
import { handsOf } from '../../../core/leading/hands.ts';
import { div } from '../../../core/rhythm/fraction.ts';
import { beatOf } from '../../../core/rhythm/meter.ts';
import { type NamingId, restName, valueName } from '../../../core/wording/valueNames.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { placePattern } from '../../../core/rhythm/place.ts';
import { VALUES } from '../../../core/rhythm/value.ts';
import { LookAlikes, lookAlikeOf } from '../../ui/signs/LookAlikes.tsx';
import { NoteSign } from '../../ui/signs/NoteSign.tsx';
import { useKeys } from '../../ui/useKeys.ts';

/** Which note or rest: measure among the placed ones, event in it. */
export interface Picked {
  readonly measure: number;
  readonly event: number;
}

const HANDS: Readonly<Record<string, string>> = {
  clap: 'clap',
  push: 'keep the hands together and push them forward',
  '(open)': 'open the hands, and whisper',
};

/** One note explained: its value, the sum behind it, what is said, what the hands do. */
export function NoteExplained({
  pattern,
  picked,
  counts,
  naming,
  onPick,
  onClose,
}: {
  pattern: Pattern;
  picked: Picked;
  counts: readonly CountOptions[];
  naming: NamingId;
  onPick: (picked: Picked) => void;
  onClose: () => void;
}) {
  const placed = placePattern(pattern);
  const measure = placed[picked.measure];
  const event = measure?.events[picked.event];
  const step = (by: 1 | -1) => {
    const all = placed.flatMap(({ events }, m) => events.map((_, e) => ({ measure: m, event: e })));
    const at = all.findIndex((place) => place.measure === picked.measure && place.event === picked.event);
    const next = all[at + by];
    if (next) onPick(next);
  };
  useKeys({ ArrowRight: () => step(1), ArrowLeft: () => step(-1), Escape: onClose });
  if (!measure || !event) return null;
  const beat = beatOf(measure.meter);
  const unit = VALUES.find(({ of }) => of.n * beat.length.d === beat.length.n * of.d)?.letter;
  const rest = event.kind === 'rest';
  const name = event.wholeMeasure
    ? 'a whole measure of rest'
    : rest
      ? restName(event.value, naming)
      : `${event.kind === 'tied' ? 'tied-on ' : ''}${valueName(event.value, naming)}`;
  const part: Part = { kind: rest ? 'rest' : 'note', value: event.value };
  const steps =
    unit && !event.tuplet && !event.wholeMeasure
      ? workedSteps([part], unit, naming)
      : [`${name}: ${beatsText(div(event.length, beat.length))}`];
  const said = counts.flatMap((options) => {
    const counted = countPattern(pattern, options);
    return counted.ok
      ? [{ name: SCHOOLS[options.school].title, token: counted.measures[picked.measure]!.tokens[picked.event]!.text }]
      : [];
  });
  const hands = handsOf(pattern)[picked.measure]!.tokens[picked.event]!.text.split('-').filter(Boolean);
  return (
    <section className="explained card-paper" aria-label="This note explained">
      <span className="explained-sign">
        <NoteSign value={event.value} rest={rest} />
      </span>
      <div role="status">
        <p className="explained-name">
          {name}, measure {measure.number}
        </p>
        <p>
          {steps.join('; ')}
          {event.tuplet && ` (${event.tuplet.n} in the time of ${event.tuplet.m})`}
        </p>
        <LookAlikes naming={naming} which={lookAlikeOf(part)} />
        <p>
          {said.map(({ name: school, token }) => (
            <span key={school} className="explained-said">
              {school}: <strong>{token}</strong>
            </span>
          ))}
        </p>
        <p>
          Hands:{' '}
          {hands.length === 0 ? 'keep the hands together' : hands.map((hand) => HANDS[hand] ?? hand).join(', then ')}.
        </p>
      </div>
      <Button variant="outline-dark" onClick={onClose}>
        Close <kbd>Esc</kbd>
      </Button>
    </section>
  );
}
