import { counted, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { PatternEdit } from '../../../contract/pattern.ts';
import { PAGE_PLAN } from '../../../core/leading/plan.ts';
import { LONGEST_TITLE } from '../../../core/sheets/sheet.ts';
import { MOST_MEASURES } from '../../../core/rhythm/text.ts';
import { useKeepPatterns } from '../../domain/keepPatterns.ts';
import { MiniNotes } from '../../ruler/MiniNotes.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { pageEdit, usualTitle } from './pageEdit.ts';
import type { Shelved } from './shelf.ts';

/**
 * Several patterns put one under the other, to be read without stopping; of one part each: a line is one line.
 * @param shown  those that are looked for
 */
export function PageOfLines({ shown }: { shown: readonly Shelved[] }) {
  const readable = shown.filter(({ parts }) => parts.length === 1);
  const [order, setOrder] = useState<readonly string[]>([]);
  const here = order.flatMap((id) => readable.find(({ saved }) => saved.id === id) ?? []);
  const turn = (id: string) =>
    setOrder((before) => (before.includes(id) ? before.filter((one) => one !== id) : [...before, id]));
  return (
    <>
      <PageBar
        key={here.length === 0 ? 'none' : 'some'}
        chosen={here}
        onAll={() => setOrder(here.length === readable.length ? [] : readable.map(({ saved }) => saved.id))}
      />
      <ol className="pattern-list">
        {readable.map(({ saved: { id, title, text }, pattern }) => {
          const line = order.indexOf(id);
          return (
            <li key={id}>
              <button
                type="button"
                className="pattern-card line-choice"
                aria-pressed={line >= 0}
                onClick={() => turn(id)}
              >
                <span className="line-place" aria-hidden>
                  {line >= 0 ? line + 1 : ''}
                </span>
                <strong>
                  {line >= 0 && <span className="visually-hidden">{t`Line ${line + 1}:`} </span>}
                  {title}
                </strong>
                <MiniNotes pattern={pattern!} />
                <span className="pattern-text">{text}</span>
              </button>
            </li>
          );
        })}
      </ol>
    </>
  );
}

/** What the page is called, and what is done with it. */
function PageBar({ chosen, onAll }: { chosen: readonly Shelved[]; onAll: () => void }) {
  const [typed, setTyped] = useState<string>();
  const navigate = useNavigate();
  const { save, saving, problem } = useKeepPatterns();
  const title = typed ?? usualTitle(chosen);
  const edit = useMemo(() => (chosen.length > 1 ? pageEdit(chosen, title) : undefined), [chosen, title]);
  const off = edit === undefined || saving;
  const keep = async (to: (id: string) => string) => {
    const id = uuid();
    if (edit && (await save([[id, edit]]))) void navigate(to(id));
  };
  const lead = () => void keep((id) => `/lead?pattern=${id}&plan=${PAGE_PLAN().id}`);
  useKeys(off ? {} : { l: lead });
  return (
    <Form
      className="arrange-bar"
      aria-label={t`Page of lines`}
      onSubmit={(event) => {
        event.preventDefault();
        lead();
      }}
    >
      <Form.Control
        aria-label={t`What the page is called`}
        className="page-title"
        maxLength={LONGEST_TITLE}
        value={title}
        onChange={({ target }) => setTyped(target.value)}
      />
      <Button type="submit" disabled={off}>
        {rich`Lead it ${<kbd>L</kbd>}`}
      </Button>
      <Button variant="outline-dark" disabled={off} onClick={() => void keep((id) => `/take?pattern=${id}`)}>
        {t`Hear a child on it`}
      </Button>
      <Button variant="outline-dark" disabled={off} onClick={() => void keep((id) => `/patterns/${id}`)}>
        {t`Keep it`}
      </Button>
      <Button variant="outline-dark" onClick={onAll}>{t`All or none`}</Button>
      <span role="status">{pageStatus(chosen.length, edit)}</span>
      {problem && <Notice problem={problem} />}
    </Form>
  );
}

function pageStatus(lines: number, edit: PatternEdit | undefined): string {
  if (lines === 0) return t`Choose the lines in the order in which they are read.`;
  if (lines === 1) return t`1 line: choose one more.`;
  return edit ? counted(lines, 'line') : t`Too long: a page has at most ${MOST_MEASURES} measures.`;
}
