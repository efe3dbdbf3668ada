import { counted, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { Dices, FileDown, Printer } from 'lucide-react';
import { useState } from 'react';
import { format } from '../../words/dates.ts';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useParams } from 'react-router';
import type { SavedSheet } from '../../../contract/sheet.ts';
import { LEVELS, type Level } from '../../../core/making/level.ts';
import { BOOKLET_KINDS } from '../../../core/sheets/lessonSheet.ts';
import { PAPERS } from '../../../core/sheets/sheet.ts';
import { SHEET_WORDS } from '../../../core/wording/sheetWords.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { useClass, usePatterns } from '../../api/hooks.ts';
import { useLessons, useTermPlan } from '../../api/planning.ts';
import { useSheets } from '../../api/sheets.ts';
import type { BookletRequest } from '../../files/sheetMessages.ts';
import { PAPER_NAMES } from '../../domain/partWords.ts';
import { Notice } from '../../ui/Notice.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { Select } from '../../ui/Select.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { saveFile } from '../../ui/saveFile.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { SheetPreview, openToPrint } from './SheetPreview.tsx';
import {
  type BookletChoice,
  type BookletLesson,
  bookletAbout,
  bookletLessons,
  useBookletChoice,
} from './bookletDraft.ts';
import { useMaking, useSheetFile } from './useSheetFile.ts';
import './sheets.scss';

/** A booklet for a term: a sheet a lesson, in the order of the plan, with contents and the keys at the end. */
export default function BookletPage() {
  const { classId = '' } = useParams();
  const [today] = useState(() => format(Date.now(), 'yyyy-MM-dd'));
  const [room, term, lessons] = [useClass(classId), useTermPlan(classId), useLessons(classId)];
  const [sheets, patterns] = [useSheets(), usePatterns()];
  const [choice, change] = useBookletChoice(classId);
  const all = [room, term, lessons, sheets, patterns];
  const problem = all.find(({ error }) => error)?.error;
  const again = () => void Promise.all(all.map(({ mutate }) => mutate()));
  if (!room.data || term.data === undefined || !lessons.data || !sheets.data || !patterns.data)
    return <Loading title={t`Booklet of the term`} problem={problem} again={again} />;
  if (term.data === null)
    return (
      <div className="empty">
        <p>{t`A booklet follows the plan of a term, and none is made for ${room.data.name} yet.`}</p>
        <Link className="btn btn-primary" to="/plan/term">{t`Plan the term`}</Link>
      </div>
    );
  const voice = voiceOf(room.data);
  const planned = {
    schoolClass: room.data,
    naming: voice.naming,
    term: term.data,
    lessons: lessons.data,
    sheets: sheets.data,
    texts: new Map(patterns.data.map(({ id, text }) => [id, text])),
    today,
  };
  const own = bookletLessons(planned, choice);
  const wanted = {
    title: t`Rhythm booklet`,
    about: bookletAbout(planned),
    chapters: own.flatMap(({ when, sheet }) => (sheet ? [{ when, sheet }] : [])),
    voice,
    className: room.data.name,
  };
  return <Booklet wanted={wanted} lessons={own} sheets={sheets.data} choice={choice} onChange={change} />;
}

interface BookletProps {
  readonly wanted: Omit<BookletRequest, 'id'>;
  readonly lessons: readonly BookletLesson[];
  readonly sheets: readonly SavedSheet[];
  readonly choice: BookletChoice;
  readonly onChange: (change: Partial<BookletChoice>) => void;
}

function Booklet({ wanted, lessons, sheets, choice, onChange }: BookletProps) {
  const { file, trouble } = useSheetFile(wanted);
  const count = wanted.chapters.length;
  const { make, trouble: problem } = useMaking(wanted);
  const print = () => void make(openToPrint);
  const save = () => void make((content) => saveFile(t`${wanted.className} booklet.pdf`, content));
  const other = () => onChange({ variant: choice.variant + 1 });
  useKeys(count > 0 ? { ' ': print, n: other } : {});
  return (
    <>
      <div className="page-head">
        <h1>{t`Booklet of the term`}</h1>
        <span>{wanted.about}</span>
        <span className="flex-grow-1" />
        <Link className="btn btn-outline-dark" to="/plan/term">{t`The plan`}</Link>
      </div>
      <Actions empty={count === 0} print={print} save={save} other={other} />
      {problem && <Notice problem={problem} />}
      <div className="sheet-work">
        <section aria-label={t`What is in it`}>
          <BookletOptions choice={choice} onChange={onChange} />
          <LessonList lessons={lessons} sheets={sheets} choice={choice} onChange={onChange} />
        </section>
        {count === 0 ? (
          <p className="empty">{t`Choose a sheet for a lesson: the booklet is empty.`}</p>
        ) : (
          <SheetPreview
            trouble={trouble}
            file={file}
            says={file && t`${counted(count, 'sheet')} on ${counted(file.pages, 'page')}, keys at the end.`}
          />
        )}
      </div>
    </>
  );
}

interface ActionsProps {
  readonly empty: boolean;
  readonly print: () => void;
  readonly save: () => void;
  readonly other: () => void;
}

function Actions({ empty, print, save, other }: ActionsProps) {
  return (
    <div className="sheet-actions">
      <Button size="lg" disabled={empty} onClick={print}>
        <Printer size={18} aria-hidden /> {rich`Open to print ${<kbd>{t`space`}</kbd>}`}
      </Button>
      <Button size="lg" variant="outline-dark" disabled={empty} onClick={save}>
        <FileDown size={18} aria-hidden /> {t`Save the PDF`}
      </Button>
      <Button size="lg" variant="outline-dark" disabled={empty} onClick={other}>
        <Dices size={18} aria-hidden /> {rich`Other questions ${<kbd>N</kbd>}`}
      </Button>
    </div>
  );
}

function BookletOptions({ choice, onChange }: Pick<BookletProps, 'choice' | 'onChange'>) {
  return (
    <>
      <div className="sheet-options">
        <SelectField
          id="booklet-level"
          label={t`Level`}
          value={String(choice.level)}
          options={LEVELS.map((level) => [String(level), String(level)] as const)}
          onChoose={(level) => onChange({ level: Number(level) as Level })}
        />
        <SelectField
          id="booklet-paper"
          label={t`Paper`}
          value={choice.paper}
          options={PAPERS.map((paper) => [paper, PAPER_NAMES()[paper]] as const)}
          onChoose={(paper) => onChange({ paper })}
        />
      </div>
      <fieldset className="booklet-kinds">
        <legend>{t`On the sheets that are made`}</legend>
        {BOOKLET_KINDS.map((kind) => (
          <Form.Check
            key={kind}
            id={`booklet-${kind}`}
            label={SHEET_WORDS()[kind].title}
            checked={choice.kinds.includes(kind)}
            disabled={choice.kinds.length === 1 && choice.kinds[0] === kind}
            onChange={({ target }) =>
              onChange({
                kinds: BOOKLET_KINDS.filter((one) => (one === kind ? target.checked : choice.kinds.includes(one))),
              })
            }
          />
        ))}
        <Form.Check
          id="booklet-large"
          label={t`Large print`}
          checked={choice.large}
          onChange={({ target }) => onChange({ large: target.checked })}
        />
      </fieldset>
    </>
  );
}

function LessonList({ lessons, sheets, choice, onChange }: Omit<BookletProps, 'wanted'>) {
  const kept = sheets.map(({ id, title }) => [id, title] as const);
  const options = [['made', t`Made for it`], ['none', t`No sheet`], ...kept] as const;
  return (
    <ol className="booklet-lessons" aria-label={t`Lessons of the term`}>
      {lessons.map((lesson) => (
        <li key={lesson.key} className={lesson.sheet ? undefined : 'left-out'}>
          <strong>{lesson.when}</strong>
          <span>{lesson.title}</span>
          <Select
            size="sm"
            label={t`Sheet of ${lesson.when}`}
            value={lesson.choice}
            options={options}
            onChoose={(one) => onChange({ lessons: { ...choice.lessons, [lesson.key]: one } })}
          />
        </li>
      ))}
    </ol>
  );
}
