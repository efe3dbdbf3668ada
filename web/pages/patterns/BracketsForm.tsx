import { t } from '../../../core/words/say.ts';
import { type FormEvent, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Bracket, SavedPattern } from '../../../contract/pattern.ts';
import { ceil } from '../../../core/rhythm/fraction.ts';
import { beatsInMeasure } from '../../../core/rhythm/meter.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { placePattern } from '../../../core/rhythm/place.ts';
import { MOST_BRACKETS } from '../../../core/timing/limits.ts';
import { type NamingId, capital, measureName } from '../../../core/wording/valueNames.ts';
import { put } from '../../api/client.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useSave } from '../../api/useSave.ts';

interface BracketsProps {
  readonly saved: SavedPattern;
  readonly pattern: Pattern;
  readonly naming: NamingId;
}

const LONGEST_WORDS = 40;

function placesText({ from, to }: Bracket, naming: NamingId): string {
  const name = measureName(naming);
  if (from.measure === to.measure) {
    const beats = from.beat === to.beat ? t`beat ${from.beat}` : t`beats ${from.beat} to ${to.beat}`;
    return `${name} ${from.measure}, ${beats}`;
  }
  return t`${name} ${from.measure}, beat ${from.beat}, to ${name} ${to.measure}, beat ${to.beat}`;
}

/** A word or two over stretches of a saved pattern, for the board and the results. */
export default function BracketsForm({ saved, pattern, naming }: BracketsProps) {
  const brackets = saved.brackets ?? [];
  const { title, text } = saved;
  const save = useSave(
    (next: readonly Bracket[]) =>
      put(`/patterns/${saved.id}`, { title, text, brackets: next, was: { title, text, brackets } }),
    '/patterns',
  );
  return (
    <>
      {brackets.length > 0 && (
        <ul>
          {brackets.map((bracket, i) => (
            <li key={i}>
              <strong>{bracket.words}</strong> · {placesText(bracket, naming)}{' '}
              <Button
                size="sm"
                variant="outline-dark"
                aria-label={t`Remove “${bracket.words}”`}
                disabled={save.saving}
                onClick={() => void save.save(brackets.filter((_, k) => k !== i))}
              >
                {t`Remove`}
              </Button>
            </li>
          ))}
        </ul>
      )}
      {brackets.length < MOST_BRACKETS && (
        <NewBracket
          pattern={pattern}
          naming={naming}
          saving={save.saving}
          onAdd={(one) => save.save([...brackets, one])}
        />
      )}
      {save.problem && <Notice problem={save.problem} />}
    </>
  );
}

interface NewProps {
  readonly pattern: Pattern;
  readonly naming: NamingId;
  readonly saving: boolean;
  readonly onAdd: (bracket: Bracket) => Promise<boolean>;
}

const START = { fromMeasure: '1', fromBeat: '1', toMeasure: '1', toBeat: '1', words: '' };

function NewBracket({ pattern, naming, saving, onAdd }: NewProps) {
  const [draft, setDraft] = useState(START);
  const [trouble, setTrouble] = useState('');
  const measures = placePattern(pattern);
  const field = (key: keyof typeof START, label: string) => (
    <Form.Control
      size="sm"
      type="number"
      min={0}
      aria-label={label}
      value={draft[key]}
      onChange={({ target }) => setDraft({ ...draft, [key]: target.value })}
    />
  );
  const add = async (event: FormEvent) => {
    event.preventDefault();
    const made = bracketOf(draft, measures, naming);
    setTrouble(typeof made === 'string' ? made : '');
    if (typeof made !== 'string' && (await onAdd(made))) setDraft({ ...draft, words: '' });
  };
  const name = measureName(naming);
  return (
    <form className="new-bracket" onSubmit={(event) => void add(event)}>
      <Form.Control
        size="sm"
        className="bracket-words-field"
        aria-label={t`Words`}
        placeholder={t`watch the rest`}
        maxLength={LONGEST_WORDS}
        value={draft.words}
        onChange={({ target }) => setDraft({ ...draft, words: target.value })}
      />
      <span>{t`from ${name}`}</span> {field('fromMeasure', t`From ${name}`)} <span>{t`beat`}</span>{' '}
      {field('fromBeat', t`From beat`)}
      <span>{t`to ${name}`}</span> {field('toMeasure', t`To ${name}`)} <span>{t`beat`}</span>{' '}
      {field('toBeat', t`To beat`)}
      <Button size="sm" type="submit" variant="outline-dark" disabled={saving || draft.words.trim() === ''}>
        {t`Add`}
      </Button>
      {trouble && <p className="field-trouble">{trouble}</p>}
    </form>
  );
}

/** The bracket of the fields; a sentence where there is no such place. */
function bracketOf(draft: typeof START, measures: ReturnType<typeof placePattern>, naming: NamingId): Bracket | string {
  const place = (measure: string, beat: string) => ({ measure: Number(measure), beat: Number(beat) });
  const [from, to] = [place(draft.fromMeasure, draft.fromBeat), place(draft.toMeasure, draft.toBeat)];
  const name = measureName(naming);
  for (const one of [from, to]) {
    const measure = measures.find(({ number }) => number === one.measure);
    if (!measure) return t`${capital(name)} ${one.measure} does not exist: the last is ${measures.at(-1)!.number}.`;
    const beats = ceil(beatsInMeasure(measure.meter));
    if (!Number.isInteger(one.beat) || one.beat < 1 || one.beat > beats)
      return t`${capital(name)} ${one.measure} has the beats 1 to ${beats}.`;
  }
  if (to.measure < from.measure || (to.measure === from.measure && to.beat < from.beat))
    return t`The end comes before the beginning: change one of them.`;
  return { from, to, words: draft.words.trim() };
}
