import { type FormEvent, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { SchoolId } from '../../../core/counting/schools.ts';
import { STARTER_PATTERNS } from '../../../core/exercises/starterPatterns.ts';
import { AGES, type Ages } from '../../../core/judging/windows.ts';
import { put } from '../../api/client.ts';
import { usePatterns } from '../../api/hooks.ts';
import { Notice } from '../../ui/Notice.tsx';
import { readClassList } from '../../ui/classList.ts';
import { useChooseClass } from '../../ui/currentClass.ts';
import { useSave } from '../../ui/useSave.ts';
import { SchoolChoice } from './SchoolChoice.tsx';
import { StarterChoice } from './StarterChoice.tsx';
import './firstDay.scss';

const AGE_NAMES: Readonly<Record<Ages, string>> = {
  '5-6': '5 and 6',
  '7-8': '7 and 8',
  '9-10': '9 and 10',
  '11-13': '11 to 13',
  musician: 'musicians',
};

/** From nothing to the first child heard: one page, filled in from above to below. */
export default function FirstDayPage() {
  const [name, setName] = useState('');
  const [ages, setAges] = useState<Ages>('9-10');
  const [names, setNames] = useState('');
  const [school, setSchool] = useState<SchoolId>('numbers');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const children = useMemo(() => readClassList(names, []).names, [names]);
  const starting = useStart();
  const start = (event: FormEvent) => {
    event.preventDefault();
    const patterns = STARTER_PATTERNS[ages].filter(({ title }) => !left.has(title));
    void starting.start({ name: name.trim(), ages, school }, children, patterns);
  };
  return (
    <Form className="first-day" onSubmit={start}>
      <div className="page-head">
        <h1>The first day</h1>
        <span>Three minutes, and the first child claps.</span>
      </div>
      <section className="card-paper">
        <h2>1. The class</h2>
        <div className="first-class">
          <Form.Group controlId="first-name">
            <Form.Label>What is it called?</Form.Label>
            <Form.Control value={name} required maxLength={60} onChange={(event) => setName(event.target.value)} />
          </Form.Group>
          <fieldset className="chips">
            <legend>How old are the children?</legend>
            {AGES.map((one) => (
              <label key={one} className={one === ages ? 'chosen' : ''}>
                <input type="radio" name="ages" checked={one === ages} onChange={() => setAges(one)} />
                {AGE_NAMES[one]}
              </label>
            ))}
          </fieldset>
        </div>
      </section>
      <section className="card-paper">
        <h2>2. The children</h2>
        <Form.Label htmlFor="first-names">
          First names or codes, a line each; or paste a list from a spreadsheet
        </Form.Label>
        <Form.Control
          as="textarea"
          id="first-names"
          rows={5}
          value={names}
          onChange={(event) => setNames(event.target.value)}
        />
        <p role="status">{children.length === 0 ? 'Nothing else about them is kept.' : childrenFound(children)}</p>
      </section>
      <SchoolChoice school={school} onSchool={setSchool} />
      <StarterChoice ages={ages} left={left} onLeft={setLeft} />
      {starting.problem && <Notice problem={starting.problem} />}
      <Button type="submit" size="lg" disabled={children.length === 0 || starting.saving}>
        Make the class and hear the first child
      </Button>
    </Form>
  );
}

function childrenFound(children: readonly string[]): string {
  return children.length === 1 ? `One child: ${children[0]!}` : `${children.length} children: ${children.join(', ')}`;
}

interface NewClass {
  readonly name: string;
  readonly ages: Ages;
  readonly school: SchoolId;
}

/** Makes all of it; tried again after a failure nothing is there twice. */
function useStart() {
  const [classId] = useState(() => uuid());
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
      for (const child of all.children)
        await put(`/classes/${classId}/children/${idOf(`child ${child}`)}`, { name: child });
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
    chooseClass(classId);
    const first = patterns[0] && idOf(`pattern ${patterns[0].title}`);
    await navigate(first ? `/take?pattern=${first}` : '/take');
  };
  return { start, saving: making.saving, problem: making.problem };
}
