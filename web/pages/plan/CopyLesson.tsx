import { counted, t } from '../../../core/words/say.ts';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { v4 as uuid } from 'uuid';
import fitsLessons from 'virtual:fits/lessons';
import fitsRecords from 'virtual:fits/records';
import type { LessonEdit, SavedLesson } from '../../../contract/lesson.ts';
import type { PatternEdit } from '../../../contract/pattern.ts';
import type { ClassRecords } from '../../../contract/records.ts';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import { get, put } from '../../api/client.ts';
import { useClasses } from '../../api/hooks.ts';
import { lessonsPath } from '../../api/planning.ts';
import { useRefresh } from '../../api/useRefresh.ts';
import { lessonPath } from '../../lesson/lessonPath.ts';
import { Notice } from '../../ui/Notice.tsx';
import { mayHear } from '../../domain/currentClass.ts';
import { copiedFor } from './copiedLesson.ts';
import { metElements } from './usePlanning.ts';

interface Copied {
  readonly id: string;
  readonly name: string;
  readonly path: string;
  readonly changed: number;
  readonly unchanged: number;
}

/** What the other class has met, from its records and its lessons. */
async function metBy(classId: string) {
  const [records, lessons] = await Promise.all([
    get<ClassRecords>(`/classes/${classId}/records`, fitsRecords),
    get<SavedLesson[]>(lessonsPath(classId), fitsLessons),
  ]);
  return [...metElements(records, lessons).keys()];
}

async function copy(lesson: LessonEdit, from: ClassSummary, to: ClassSummary): Promise<Copied> {
  const made: [string, PatternEdit][] = [];
  const keep = (title: string, text: string) => {
    const id = uuid();
    made.push([id, { title, text, folder: t`${to.name}, lessons`.slice(0, 60) }]);
    return id;
  };
  const copied = copiedFor(lesson, await metBy(to.id), { from: from.ages, to: to.ages, className: to.name }, keep);
  const id = uuid();
  for (const [patternId, edit] of made) await put(`/patterns/${patternId}`, edit);
  await put(`${lessonsPath(to.id)}/${id}`, copied.lesson);
  const { changed, unchanged } = copied;
  return { id, name: to.name, path: lessonPath(to.id, id), changed, unchanged };
}

/** The same lesson for another class, with what that class has met, at its pace. */
export function CopyLesson({ lesson, from }: { readonly lesson: LessonEdit; readonly from: string }) {
  const { data: classes = [] } = useClasses();
  const refresh = useRefresh();
  const [copied, setCopied] = useState<Copied>();
  const [problem, setProblem] = useState<Error>();
  const others = classes.filter((one) => one.id !== from && mayHear(one));
  const own = classes.find(({ id }) => id === from);
  if (others.length === 0 || !own) return null;
  const choose = async (id: string) => {
    const to = others.find((one) => one.id === id);
    if (!to) return;
    setProblem(undefined);
    try {
      setCopied(await copy(lesson, own, to));
      await refresh('/patterns', lessonsPath(to.id));
    } catch (error) {
      setProblem(error as Error);
    }
  };
  return (
    <div className="copy-lesson">
      <Form.Select
        className="w-auto"
        aria-label={t`A copy for another class`}
        value=""
        onChange={({ target }) => void choose(target.value)}
      >
        <option value="">{t`A copy for another class …`}</option>
        {others.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Form.Select>
      <span role="status">
        {copied && (
          <>
            <Link to={copied.path}>{t`The lesson for ${copied.name}`}</Link>
            {copied.changed > 0 && t`: ${counted(copied.changed, 'pattern')} made of what it has met`}
            {copied.unchanged > 0 && t`; ${counted(copied.unchanged, 'pattern')} could not be, and stayed`}.
          </>
        )}
      </span>
      {problem && <Notice problem={problem} />}
    </div>
  );
}
