import { t } from '../../../../core/words/say.ts';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { ClassSettings } from '../../../../contract/schoolClass.ts';
import { countPattern, plainCounts } from '../../../../core/counting/count.ts';
import { checkHouseWords } from '../../../../core/counting/houseWords.ts';
import type { Words } from '../../../../core/counting/countingSystem.ts';
import {
  COUNTING_SYSTEMS,
  COUNTING_SYSTEM_CHOICES,
  type CountingSystemId,
} from '../../../../core/counting/countingSystems.ts';
import { HARBOUR_ANIMALS, type WordSet, checkWordSet } from '../../../../core/counting/wordSet.ts';
import { parseRhythm } from '../../../../core/rhythm/text.ts';
import { cellName } from '../../../../core/wording/cellNames.ts';
import { type NamingId, inNaming } from '../../../../core/wording/valueNames.ts';
import { namingOf } from '../../../../core/wording/voice.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { Select } from '../../../ui/Select.tsx';
import { AddCell } from './AddCell.tsx';
import { type WordRow, WordTable } from './WordTable.tsx';
import type { SettingsFormProps } from './settingsForm.ts';

/** Shows every place of a school once or more. */
const EXAMPLES = ['4/4 q e e s s s s q | 3{e e e} e. s q. e | h (q) e (e)', '6/8 e e e s s s s s s | q. q e'] as const;

/** The words as they are being changed: those of each school, and the word set. */
function useWords(settings: ClassSettings) {
  const [school, setSchool] = useState<CountingSystemId>(settings.school);
  const [words, setWords] = useState<Readonly<Record<string, Words>>>(settings.houseWords ?? {});
  const [wordSet, setWordSet] = useState<WordSet>(settings.wordSet ?? HARBOUR_ANIMALS());
  const usual = COUNTING_SYSTEMS()[school].words;
  const own = words[school];
  return {
    school,
    setSchool,
    own,
    wordSet,
    setWordSet,
    put: (key: string, word: string) => {
      const changed = Object.entries({ ...own, [key]: word }).filter(([k, w]) => w !== usual[k]);
      setWords({ ...words, [school]: Object.fromEntries(changed) });
    },
    reset: () => (school === 'words' ? setWordSet(HARBOUR_ANIMALS()) : setWords({ ...words, [school]: {} })),
    /** What is saved: the set that ships is saved as none. */
    saved: () => {
      const { title, cells } = wordSet;
      const ships =
        JSON.stringify([title, cells]) === JSON.stringify([HARBOUR_ANIMALS().title, HARBOUR_ANIMALS().cells]);
      const houseWords = Object.fromEntries(Object.entries(words).map(([id, one]) => [id, { ...one }]));
      return { houseWords, wordSet: ships ? null : { title, cells: { ...cells } } };
    },
  };
}

/** The teacher's own words: for the places of a school, and for the cells of the word set. */
export function WordsForm({ settings, problem, onSave, onCancel }: SettingsFormProps) {
  const words = useWords(settings);
  const { school, own = {}, wordSet } = words;
  const { refused, alike } = checkHouseWords(COUNTING_SYSTEMS()[school], own);
  const wrongCells = checkWordSet(wordSet);
  const { meanings } = COUNTING_SYSTEMS()[school];
  const meaning = (key: string) => inNaming(meanings[key] ?? key, namingOf(settings));
  return (
    <section className="card-paper words-form" aria-label={t`Words of the class`}>
      <div className="page-head">
        <h2 className="mb-0">{t`Words of the class`}</h2>
        <Select
          className="w-auto"
          label={t`School`}
          value={school}
          options={COUNTING_SYSTEM_CHOICES()}
          onChoose={words.setSchool}
        />
      </div>
      <Examples school={school} own={words.own} wordSet={wordSet} />
      {alike.map(({ keys: [a, b], word }) => (
        <Notice key={a + b} problem={{ message: alikeText(word, meaning(a), meaning(b)) }} />
      ))}
      {school === 'words' ? (
        <CellWords wordSet={wordSet} wrong={wrongCells} naming={namingOf(settings)} onChange={words.setWordSet} />
      ) : (
        <SystemWords school={school} own={own} wrong={refused} meaning={meaning} onChange={words.put} />
      )}
      {problem && <Notice problem={problem} />}
      <div className="stage-actions">
        <Button
          disabled={refused.length > 0 || wrongCells.length > 0}
          onClick={() => void onSave({ ...settings, ...words.saved() })}
        >
          {t`Save the words`}
        </Button>
        <Button variant="outline-dark" onClick={onCancel}>{t`Cancel`}</Button>
        <Button variant="outline-dark" onClick={words.reset}>{t`Back to the usual words`}</Button>
      </div>
    </section>
  );
}

function alikeText(word: string, a: string, b: string): string {
  return t`“${word}” is said for two places, ${a} and ${b}: typing it as it is said can then mean either.`;
}

interface ExamplesProps {
  readonly school: CountingSystemId;
  readonly own: Words | undefined;
  readonly wordSet: WordSet;
}

function Examples({ school, own, wordSet }: ExamplesProps) {
  const lines = useMemo(
    () =>
      EXAMPLES.flatMap((text) => {
        const parsed = parseRhythm(text);
        const counted = parsed.ok && countPattern(parsed.pattern, { school, houseWords: own, wordSet });
        return counted && counted.ok ? [plainCounts(counted.measures)] : [];
      }),
    [school, own, wordSet],
  );
  return (
    <p className="example" role="status">
      {lines.map((line) => (
        <span key={line}>{line}</span>
      ))}
    </p>
  );
}

interface SystemWordsProps {
  readonly school: CountingSystemId;
  readonly own: Words;
  readonly wrong: readonly { readonly key: string; readonly reason: string }[];
  readonly meaning: (key: string) => string;
  readonly onChange: (key: string, word: string) => void;
}

function SystemWords({ school, own, wrong, meaning, onChange }: SystemWordsProps) {
  // The beats themselves are seldom called otherwise.
  const isBeat = ([key]: readonly [string, string]) => Number(/^beat\d/.test(key));
  const usual = Object.entries(COUNTING_SYSTEMS()[school].words).sort((a, b) => isBeat(a) - isBeat(b));
  if (usual.length === 0) return <p>{t`This way of counting has no words to change.`}</p>;
  const rows = usual.map(([key, word]): WordRow => ({
    key,
    meaning: meaning(key),
    word: own[key] ?? word,
    usual: word,
    wrong: wrong.find((entry) => entry.key === key)?.reason,
  }));
  return <WordTable key={school} rows={rows} onChange={onChange} />;
}

interface CellWordsProps {
  readonly wordSet: WordSet;
  readonly wrong: readonly { readonly cell: string; readonly reason: string }[];
  readonly naming: NamingId;
  readonly onChange: (wordSet: WordSet) => void;
}

function CellWords({ wordSet, wrong, naming, onChange }: CellWordsProps) {
  const { title, cells } = wordSet;
  const rows = Object.entries(cells).map(([key, word]): WordRow => ({
    key,
    meaning: cellName(key, naming),
    word,
    usual: HARBOUR_ANIMALS().cells[key] ?? word,
    wrong: wrong.find(({ cell }) => cell === key)?.reason,
  }));
  return (
    <>
      <Form.Control
        className="mb-2"
        value={title}
        aria-label={t`Name of the word set`}
        maxLength={60}
        onChange={(event) => onChange({ title: event.target.value, cells })}
      />
      <WordTable rows={rows} onChange={(key, word) => onChange({ title, cells: { ...cells, [key]: word } })} />
      <AddCell onAdd={(cell) => onChange({ title, cells: { [cell]: '', ...cells } })} />
    </>
  );
}
