import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';
import type { ClassSettings } from '../../../contract/school.ts';
import { namingOf } from '../../../core/wording/voice.ts';
import { countPattern, plainCounts } from '../../../core/counting/count.ts';
import { checkHouseWords } from '../../../core/counting/houseWords.ts';
import type { SchoolId } from '../../../core/counting/school.ts';
import { SCHOOLS } from '../../../core/counting/schools.ts';
import { HARBOUR_ANIMALS, checkWordSet } from '../../../core/counting/wordSet.ts';
import { withValueNames } from '../../../core/wording/valueNames.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { Notice } from '../../ui/Notice.tsx';

/** Shows every place of a school once or more. */
const EXAMPLES = ['4/4 q e e s s s s q | 3{e e e} e. s q. e | h (q) e (e)', '6/8 e e e s s s s s s | q. q e'] as const;

type Own = Readonly<Record<string, string>>;

/** The teacher's own words: for the places of a school, and for the cells of the word set. */
export function WordsForm({
  settings,
  onSave,
  onCancel,
}: {
  settings: ClassSettings;
  onSave: (settings: ClassSettings) => Promise<unknown>;
  onCancel: () => void;
}) {
  const [school, setSchool] = useState<SchoolId>(settings.school);
  const [words, setWords] = useState<Readonly<Record<string, Own>>>(settings.houseWords ?? {});
  const [cells, setCells] = useState<Own>(settings.wordSet?.cells ?? HARBOUR_ANIMALS.cells);
  const [title, setTitle] = useState(settings.wordSet?.title ?? HARBOUR_ANIMALS.title);
  const [problem, setProblem] = useState<Error>();
  const own = words[school] ?? {};
  const { refused, alike } = checkHouseWords(SCHOOLS[school], own);
  const wrongCells = checkWordSet({ title, cells });
  const { meanings, words: usual } = SCHOOLS[school];
  const meaning = (key: string) => withValueNames(meanings[key] ?? key, namingOf(settings));
  const examples = useMemo(
    () =>
      EXAMPLES.flatMap((text) => {
        const parsed = parseRhythm(text);
        const counted =
          parsed.ok && countPattern(parsed.pattern, { school, houseWords: words[school], wordSet: { title, cells } });
        return counted && counted.ok ? [plainCounts(counted.measures)] : [];
      }),
    [school, words, cells, title],
  );
  const put = (key: string, word: string) => {
    const next = Object.fromEntries(Object.entries({ ...own, [key]: word }).filter(([k, w]) => w !== usual[k]));
    setWords({ ...words, [school]: next });
  };
  const save = async () => {
    const same = JSON.stringify(cells) === JSON.stringify(HARBOUR_ANIMALS.cells) && title === HARBOUR_ANIMALS.title;
    try {
      await onSave({ ...settings, houseWords: words, wordSet: same ? null : { title, cells } });
    } catch (error) {
      setProblem(error as Error);
    }
  };
  return (
    <section className="card-paper words-form" aria-label="Words of the class">
      <div className="page-head">
        <h2 className="mb-0">Words of the class</h2>
        <Form.Select
          className="w-auto"
          aria-label="School"
          value={school}
          onChange={(event) => setSchool(event.target.value as SchoolId)}
        >
          {Object.values(SCHOOLS).map(({ id, title: name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Form.Select>
      </div>
      <p className="example" role="status">
        {examples.map((line) => (
          <span key={line}>{line}</span>
        ))}
      </p>
      {alike.map(({ keys: [a, b], word }) => (
        <Notice
          key={a + b}
          problem={{
            message: `“${word}” is said for two places, ${meaning(a)} and ${meaning(b)}: typing it as it is said can then mean either.`,
          }}
        />
      ))}
      {school === 'words' ? (
        <>
          <Form.Control
            className="mb-2"
            value={title}
            aria-label="Name of the word set"
            maxLength={60}
            onChange={(event) => setTitle(event.target.value)}
          />
          <WordTable
            rows={Object.entries(cells).map(([key, word]) => ({
              key,
              meaning: key,
              word,
              usual: HARBOUR_ANIMALS.cells[key] ?? word,
              wrong: wrongCells.find(({ cell }) => cell === key)?.reason,
            }))}
            onChange={(key, word) => setCells({ ...cells, [key]: word })}
          />
          <AddCell onAdd={(cell) => setCells({ [cell]: '', ...cells })} />
        </>
      ) : Object.keys(usual).length === 0 ? (
        <p>This way of counting has no words to change.</p>
      ) : (
        <WordTable
          rows={Object.entries(usual).map(([key, word]) => ({
            key,
            meaning: meaning(key),
            word: own[key] ?? word,
            usual: word,
            wrong: refused.find((entry) => entry.key === key)?.reason,
          }))}
          onChange={put}
        />
      )}
      {problem && <Notice problem={problem} />}
      <div className="stage-actions">
        <Button disabled={refused.length > 0 || wrongCells.length > 0} onClick={() => void save()}>
          Save the words
        </Button>
        <Button variant="outline-dark" onClick={onCancel}>
          Cancel
        </Button>
        <Button
          variant="outline-dark"
          onClick={() =>
            school === 'words'
              ? (setCells(HARBOUR_ANIMALS.cells), setTitle(HARBOUR_ANIMALS.title))
              : setWords({ ...words, [school]: {} })
          }
        >
          Back to the usual words
        </Button>
      </div>
    </section>
  );
}

interface Row {
  readonly key: string;
  readonly meaning: string;
  readonly word: string;
  readonly usual: string;
  readonly wrong: string | undefined;
}

function WordTable({ rows, onChange }: { rows: readonly Row[]; onChange: (key: string, word: string) => void }) {
  return (
    <Table size="sm">
      <thead>
        <tr>
          <th scope="col">Place</th>
          <th scope="col">Usual word</th>
          <th scope="col">In this class</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ key, meaning, word, usual, wrong }) => (
          <tr key={key}>
            <th scope="row">{meaning}</th>
            <td>{usual}</td>
            <td>
              <Form.Control
                size="sm"
                value={word}
                aria-label={`Word for ${meaning}`}
                isInvalid={wrong !== undefined}
                onChange={(event) => onChange(key, event.target.value)}
              />
              {wrong && <span className="word-wrong">{wrong}</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

function AddCell({ onAdd }: { onAdd: (cell: string) => void }) {
  const [cell, setCell] = useState('');
  return (
    <div className="add-child">
      <Form.Control
        value={cell}
        placeholder="A new cell, such as s e s"
        aria-label="A new cell"
        onChange={(event) => setCell(event.target.value)}
      />
      <Button
        variant="outline-dark"
        disabled={cell.trim() === ''}
        onClick={() => (onAdd(cell.trim().replace(/\s+/g, ' ')), setCell(''))}
      >
        Add a cell
      </Button>
    </div>
  );
}
