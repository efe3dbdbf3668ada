import { perLanguage, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import Button from 'react-bootstrap/Button';
import { type CountOptions, countPattern, eventsOf } from '../../../core/counting/count.ts';
import { COUNTING_SYSTEMS } from '../../../core/counting/countingSystems.ts';
import type { Part } from '../../../core/exercises/valueSums.ts';
import { type HandMove, handMoves } from '../../../core/leading/hands.ts';
import { div, equal } from '../../../core/rhythm/fraction.ts';
import { beatOf } from '../../../core/rhythm/meter.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { type PlacedEvent, type PlacedMeasure, placePattern } from '../../../core/rhythm/place.ts';
import { VALUES } from '../../../core/rhythm/value.ts';
import { beatsText } from '../../../core/wording/plurals.ts';
import { partName, workedSteps } from '../../../core/wording/sumWords.ts';
import { type NamingId, measureName } from '../../../core/wording/valueNames.ts';
import { LookAlikes, lookAlikeOf } from '../../ui/signs/LookAlikes.tsx';
import { NoteSign } from '../../ui/signs/NoteSign.tsx';
import { useKeys } from '../../ui/useKeys.ts';

/** Which note or rest: measure among the placed ones, event in it. */
export interface Picked {
  readonly measure: number;
  readonly event: number;
  /** Of several parts the how manieth. */
  readonly part?: number;
}

interface NoteExplainedProps {
  readonly pattern: Pattern;
  readonly picked: Picked;
  readonly counts: readonly CountOptions[];
  readonly naming: NamingId;
  readonly onPick: (picked: Picked) => void;
  readonly onClose: () => void;
}

/** The sign before or after a picked one. */
function neighbour(placed: readonly PlacedMeasure[], picked: Picked, by: 1 | -1): Picked | undefined {
  const all = placed.flatMap(({ events }, measure) => events.map((_, event) => ({ measure, event })));
  const at = all.findIndex(({ measure, event }) => measure === picked.measure && event === picked.event);
  return all[at + by];
}

/** One note explained: its value, the sum behind it, what is said, what the hands do. */
export function NoteExplained(props: NoteExplainedProps) {
  const { pattern, picked, onPick, onClose } = props;
  const placed = placePattern(pattern);
  const step = (by: 1 | -1) => () => {
    const next = neighbour(placed, picked, by);
    if (next) onPick({ ...picked, ...next });
  };
  useKeys({ ArrowRight: step(1), ArrowLeft: step(-1), Escape: onClose });
  const measure = placed[picked.measure];
  const event = measure?.events[picked.event];
  if (!measure || !event) return null;
  return (
    <section className="explained card-paper" aria-label={t`This note explained`}>
      <span className="explained-sign">
        <NoteSign value={event.value} rest={event.kind === 'rest'} />
      </span>
      <Explanation {...props} measure={measure} event={event} />
      <Button variant="outline-dark" onClick={onClose}>
        {rich`Close ${<kbd>{t`Esc`}</kbd>}`}
      </Button>
    </section>
  );
}

interface ExplanationProps extends NoteExplainedProps {
  readonly measure: PlacedMeasure;
  readonly event: PlacedEvent;
}

function Explanation({ pattern, picked, counts, naming, measure, event }: ExplanationProps) {
  const said = counts.flatMap((options) => {
    const counted = countPattern(pattern, options);
    if (!counted.ok) return [];
    const token = counted.measures[picked.measure]!.tokens[picked.event]!.text;
    return [{ name: COUNTING_SYSTEMS()[options.school].title, token }];
  });
  const moves = handMoves(eventsOf(placePattern(pattern))[picked.measure]![picked.event]!);
  return (
    <div role="status">
      <p className="explained-name">
        {nameOf(event, naming)}, {measureName(naming)} {measure.number}
      </p>
      <p>
        {sumLines(event, measure, naming).join('; ')}
        {event.tuplet && t` (${event.tuplet.n} in the time of ${event.tuplet.m})`}
      </p>
      <LookAlikes naming={naming} which={lookAlikeOf(partOf(event))} />
      <p>
        {said.map(({ name, token }) => (
          <span key={name} className="explained-said">
            {name}: <strong>{token}</strong>
          </span>
        ))}
      </p>
      <p>{t`Hands:
        ${moves.length === 0 ? t`keep the hands together` : moves.map((move) => HANDS()[move]).join(', then ')}.`}</p>
    </div>
  );
}

const HANDS = perLanguage((): Readonly<Record<HandMove, string>> => ({
  clap: t`clap`,
  push: t`keep the hands together and push them forward`,
  open: t`open the hands, and whisper`,
}));

function partOf({ kind, value }: PlacedEvent): Part {
  return { kind: kind === 'rest' ? 'rest' : 'note', value };
}

function nameOf(event: PlacedEvent, naming: NamingId): string {
  if (event.wholeMeasure) return t`a whole ${measureName(naming)} of rest`;
  return `${event.kind === 'tied' ? 'tied-on ' : ''}${partName(partOf(event), naming)}`;
}

/** The worked sum, where the beat is a plain value; else only the length. */
function sumLines(event: PlacedEvent, { meter }: PlacedMeasure, naming: NamingId): string[] {
  const beat = beatOf(meter).length;
  const unit = VALUES.find(({ of }) => equal(of, beat))?.letter;
  if (unit && !event.tuplet && !event.wholeMeasure) return workedSteps([partOf(event)], unit, naming);
  return [`${nameOf(event, naming)}: ${beatsText(div(event.length, beat))}`];
}
