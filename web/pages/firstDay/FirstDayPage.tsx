import { perLanguage, t } from '../../../core/words/say.ts';
import { type FormEvent, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { Teacher } from '../../../contract/session.ts';
import type { CountingSystemId } from '../../../core/counting/countingSystems.ts';
import { STARTER_PATTERNS } from '../../../core/exercises/starterPatterns.ts';
import { AGES, type Ages } from '../../../core/judging/windows.ts';
import { put } from '../../api/client.ts';
import { usePatterns } from '../../api/hooks.ts';
import { Notice } from '../../ui/Notice.tsx';
import { type ReadNames, keysOf, readClassList } from '../../domain/classList.ts';
import { useChooseClass } from '../../domain/currentClass.ts';
import { useSave } from '../../api/useSave.ts';
import { useTyped } from '../../ui/useTyped.ts';
import { CountingSystemChoice } from './CountingSystemChoice.tsx';
import { StarterChoice } from './StarterChoice.tsx';
import './firstDay.scss';

const AGE_NAMES = perLanguage((): Readonly<Record<Ages, string>> => ({
  '5-6': t`5 and 6`,
  '7-8': t`7 and 8`,
  '9-10': t`9 and 10`,
  '11-13': t`11 to 13`,
  musician: t`musicians`,
}));

interface Typed {
  readonly name: string;
  readonly ages: Ages;
  readonly names: string;
  readonly school: CountingSystemId;
  /** Titles of rhythms that are not wanted. */
  readonly left: readonly string[];
  /** Made again after a reload it is the same class. */
  readonly classId: string;
}

const beginning = (): Typed => ({
  name: '',
  ages: '9-10',
  names: '',
  school: 'numbers',
  left: [],
  classId: uuid(),
});

/** From nothing to the first child heard: one page, filled in from above to below. */
export default function FirstDayPage({ teacher }: { teacher: Teacher }) {
  const [typed, change, forget] = useTyped(`first-day.${teacher.id}`, beginning);
  const { name, ages, names, school } = typed;
  const left = useMemo(() => new Set(typed.left), [typed.left]);
  const list = useMemo(() => readClassList(names, []), [names]);
  const children = list.names;
  const starting = useStart(typed.classId, forget);
  const start = (event: FormEvent) => {
    event.preventDefault();
    const patterns = STARTER_PATTERNS()[ages].filter(({ title }) => !left.has(title));
    void starting.start({ name: name.trim(), ages, school }, children, patterns);
  };
  return (
    <Form className="first-day" onSubmit={start}>
      <div className="page-head">
        <h1>{t`The first day`}</h1>
        <span>{t`Three minutes, and the first child claps.`}</span>
      </div>
      <section className="card-paper">
        <h2>{t`1. The class`}</h2>
        <div className="first-class">
          <Form.Group controlId="first-name">
            <Form.Label>{t`What is it called?`}</Form.Label>
            <Form.Control
              value={name}
              required
              maxLength={60}
              onChange={(event) => change({ name: event.target.value })}
            />
          </Form.Group>
          <fieldset className="chips">
            <legend>{t`How old are the children?`}</legend>
            {AGES.map((one) => (
              <label key={one} className={one === ages ? 'chosen' : ''}>
                <input type="radio" name="ages" checked={one === ages} onChange={() => change({ ages: one })} />
                {AGE_NAMES()[one]}
              </label>
            ))}
          </fieldset>
        </div>
      </section>
      <Children names={names} list={list} onNames={(next) => change({ names: next })} />
      <CountingSystemChoice school={school} onSchool={(next) => change({ school: next })} />
      <StarterChoice ages={ages} left={left} onLeft={(next) => change({ left: [...next] })} />
      {starting.problem && <Notice problem={starting.problem} />}
      <Button type="submit" size="lg" disabled={children.length === 0 || starting.saving}>
        {t`Make the class and hear the first child`}
      </Button>
    </Form>
  );
}

interface ChildrenProps {
  readonly names: string;
  readonly list: ReadNames;
  readonly onNames: (names: string) => void;
}

function Children({ names, list, onNames }: ChildrenProps) {
  const { names: children, alike, dropped } = list;
  return (
    <section className="card-paper">
      <h2>{t`2. The children`}</h2>
      <Form.Label htmlFor="first-names">{t`First names or codes, a line each; or paste a list from a
        spreadsheet`}</Form.Label>
      <Form.Control
        as="textarea"
        id="first-names"
        rows={5}
        value={names}
        onChange={(event) => onNames(event.target.value)}
      />
      <p role="status">{children.length === 0 ? t`Nothing else about them is kept.` : childrenFound(children)}</p>
      {alike.length > 0 && <p>{t`More than once, and taken as different children: ${alike.join(', ')}.`}</p>}
      {dropped.length > 0 && <p>{t`Left out, for they are no names: ${dropped.join('; ')}.`}</p>}
    </section>
  );
}

function childrenFound(children: readonly string[]): string {
  return children.length === 1 ? t`One child: ${children[0]}` : t`${children.length} children: ${children.join(', ')}`;
}

interface NewClass {
  readonly name: string;
  readonly ages: Ages;
  readonly school: CountingSystemId;
}

/** Makes all of it; tried again after a failure nothing is there twice. */
function useStart(classId: string, onMade: () => void) {
  const [ids] = useState(() => new Map<string, string>());
  const known = usePatterns().data;
  const navigate = useNavigate();
  const chooseClass = useChooseClass();
  const idOf = (what: string) => ids.get(what) ?? (ids.set(what, uuid()), ids.get(what)!);
  const making = useSave(
    async (all: {
      room: NewClass;
      children: readonly string[];
      patterns: readonly { title: string; text: string }[];
    }) => {
      await put(`/classes/${classId}`, { ...all.room, rests: null });
      const keys = keysOf(all.children);
      for (const [i, child] of all.children.entries())
        await put(`/classes/${classId}/children/${idOf(`child ${keys[i]!}`)}`, { name: child });
      for (const pattern of all.patterns) await put(`/patterns/${idOf(`pattern ${pattern.title}`)}`, pattern);
    },
    '/classes',
    '/patterns',
  );
  const start = async (
    room: NewClass,
    children: readonly string[],
    wanted: readonly { title: string; text: string }[],
  ) => {
    const patterns = wanted.filter(({ text }) => !known?.some((one) => one.text === text));
    if (!(await making.save({ room, children, patterns }))) return;
    onMade();
    chooseClass(classId);
    const first = patterns[0] && idOf(`pattern ${patterns[0].title}`);
    await navigate(first ? `/take?pattern=${first}` : '/take');
  };
  return { start, saving: making.saving, problem: making.problem };
}
