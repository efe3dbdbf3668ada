// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import { AddChild } from './AddChild.tsx';

afterEach(cleanup);

/** Names that are sent, each answered when the test says so. */
function sending() {
  const sent: { name: string; answer: (stored: boolean) => void }[] = [];
  render(
    <AddChild
      onAdd={(name) =>
        new Promise((resolve) => {
          sent.push({ name, answer: resolve });
        })
      }
    />,
  );
  const field = screen.getByLabelText<HTMLInputElement>('First name or code');
  const type = (text: string) => fireEvent.change(field, { target: { value: text } });
  const enter = () => fireEvent.submit(field.form!);
  return { sent, field, type, enter };
}

it('takes the next name while the one before is on its way', async () => {
  const { sent, field, type, enter } = sending();
  type(' Una ');
  enter();
  expect(field.value).toBe('');
  type('Piet');
  sent[0]!.answer(true);
  await waitFor(() => expect(field.value).toBe('Piet'));
  enter();
  expect(sent.map(({ name }) => name)).toEqual(['Una', 'Piet']);
});

it('gives back a name that was not stored, beside what is being typed', async () => {
  const { sent, field, type, enter } = sending();
  type('Una');
  enter();
  sent[0]!.answer(false);
  await waitFor(() => expect(field.value).toBe('Una'));
  enter();
  type('Piet');
  sent[1]!.answer(false);
  await waitFor(() => expect(field.value).toBe('Una, Piet'));
  type('  ');
  enter();
  expect(sent).toHaveLength(2);
});
