import { t } from '../../../../core/words/say.ts';
import { type KeyboardEvent, useEffect, useRef } from 'react';
import { flushSync } from 'react-dom';
import Form from 'react-bootstrap/Form';
import type { Child } from '../../../../contract/child.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { type Scale, isInNumbers, markKeys, markLabel } from '../../../../core/judging/scale.ts';
import { type Keyed, LAST_LETTER, keyIn } from './paperKeys.ts';

interface PaperPointsProps {
  readonly schoolClass: ClassDetail;
  readonly outOf: number;
  /** Marks of this one; null for points. */
  readonly scale: Scale | null;
  readonly typed: Readonly<Record<string, string>>;
  readonly wrong: readonly Child[];
  /** The first child is waited for. */
  readonly atOnce: boolean;
  readonly onTyped: (typed: Readonly<Record<string, string>>) => void;
}

/** Where keys go, and how: `keyIn` says what they do. */
type Place = Pick<Keyed, 'at' | 'marked' | 'arrived'>;

/** A field for each child, down the list: the key that completes a mark goes on to the next. */
export function PaperPoints({ schoolClass, outOf, scale, typed, wrong, atOnce, onTyped }: PaperPointsProps) {
  const list = useRef<HTMLDivElement>(null);
  const { children } = schoolClass;
  const place = useRef<Place>({ at: 0, marked: true, arrived: false });
  const fieldAt = (row: number) => list.current?.querySelectorAll('input')[row];
  useEffect(() => {
    if (atOnce) list.current?.querySelector('input')?.focus();
  }, [atOnce]);
  const key = (event: KeyboardEvent<HTMLElement>) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const field = event.currentTarget as HTMLInputElement;
    const { selectionStart: from, selectionEnd: to, value } = field;
    const marked = value === '' || (from === 0 && to === value.length);
    // In the middle of a mark the field knows better.
    if (!marked && (from !== value.length || to !== value.length) && event.key.length === 1) return;
    const rows = children.map(({ id }) => typed[id] ?? '');
    const next = keyIn({ ...place.current, marked, rows }, event.key, outOf, scale);
    if (!next) return;
    event.preventDefault();
    place.current = next;
    // Shown before the cursor is set, which goes to its end.
    if (next.rows.some((text, i) => text !== rows[i]))
      flushSync(() => onTyped(Object.fromEntries(children.map(({ id }, i) => [id, next.rows[i]!]))));
    const there = fieldAt(next.at);
    there?.focus();
    if (next.marked) there?.select();
    else there?.setSelectionRange(there.value.length, there.value.length);
  };
  return (
    <>
      <p>{t`${scale && !isInNumbers(scale) ? markKeysText(scale) : keysText(outOf)} Enter leaves one out.`}</p>
      <div ref={list} className="paper-children">
        {children.map(({ id: childId, name }, row) => (
          <Form.Group key={childId} controlId={`paper-${childId}`}>
            <Form.Label>{name}</Form.Label>
            <Form.Control
              value={typed[childId] ?? ''}
              autoComplete="off"
              inputMode={scale && !isInNumbers(scale) ? 'text' : 'decimal'}
              onFocus={({ target }) => {
                if (place.current.at !== row) place.current = { at: row, marked: true, arrived: false };
                target.select();
              }}
              onKeyDown={key}
              isInvalid={wrong.some((child) => child.id === childId)}
              onChange={({ target }) => {
                place.current = { at: row, marked: false, arrived: false };
                onTyped({ ...typed, [childId]: target.value });
              }}
            />
          </Form.Group>
        ))}
      </div>
    </>
  );
}

/** "One key a child: F, D, C, B, A." */
function markKeysText(scale: Scale): string {
  const keys = markKeys(scale).map(({ key, mark }) => {
    const label = markLabel(mark, scale);
    return key === label.toLowerCase() ? label : t`${key} for ${label}`;
  });
  return t`One key a child: ${keys.join(', ')}.`;
}

function keysText(outOf: number): string {
  if (outOf < 10) return t`One key a child: each figure goes on to the next. A point after it makes a half.`;
  const last = outOf > LAST_LETTER ? t`, up to z for ${LAST_LETTER}` : '';
  return t`One key a child: a is 10, b is 11 and so on${last}; or figures.`;
}
