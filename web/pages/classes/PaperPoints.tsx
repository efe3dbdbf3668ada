import { type KeyboardEvent, useEffect, useRef } from 'react';
import Form from 'react-bootstrap/Form';
import type { Child } from '../../../contract/child.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { LAST_LETTER, keyedPoints } from './paperKeys.ts';

interface PaperPointsProps {
  readonly schoolClass: ClassDetail;
  readonly outOf: number;
  readonly typed: Readonly<Record<string, string>>;
  readonly wrong: readonly Child[];
  /** The first child is waited for. */
  readonly atOnce: boolean;
  readonly onTyped: (typed: Readonly<Record<string, string>>) => void;
}

/** A field for each child, down the list: the key that completes a mark goes on to the next. */
export function PaperPoints({ schoolClass, outOf, typed, wrong, atOnce, onTyped }: PaperPointsProps) {
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (atOnce) list.current?.querySelector('input')?.focus();
  }, [atOnce]);
  const enter = (childId: string, field: HTMLInputElement) => {
    const entered = keyedPoints(typed[childId] ?? '', field.value, outOf);
    onTyped({ ...typed, [childId]: entered.text });
    if (entered.done) nextField(field)?.focus();
  };
  return (
    <>
      <p>{keysText(outOf)} Enter leaves one out.</p>
      <div ref={list} className="paper-children">
        {schoolClass.children.map(({ id: childId, name }) => (
          <Form.Group key={childId} controlId={`paper-${childId}`}>
            <Form.Label>{name}</Form.Label>
            <Form.Control
              value={typed[childId] ?? ''}
              autoComplete="off"
              onFocus={({ target }) => target.select()}
              onKeyDown={toNext}
              isInvalid={wrong.some((child) => child.id === childId)}
              onChange={({ target }) => enter(childId, target as HTMLInputElement)}
            />
          </Form.Group>
        ))}
      </div>
    </>
  );
}

function keysText(outOf: number): string {
  if (outOf < 10) return 'One key a child: each figure goes on to the next.';
  const last = outOf > LAST_LETTER ? `, up to z for ${LAST_LETTER}` : '';
  return `One key a child: a is 10, b is 11 and so on${last}; or figures.`;
}

function nextField(field: HTMLElement): HTMLInputElement | undefined {
  const fields = [...(field.closest('.paper-children')?.querySelectorAll('input') ?? [])];
  return fields[fields.indexOf(field as HTMLInputElement) + 1];
}

function toNext(event: KeyboardEvent<HTMLElement>): void {
  if (event.key !== 'Enter') return;
  const next = nextField(event.currentTarget);
  // The last one sends the form.
  if (!next) return;
  event.preventDefault();
  next.focus();
}
