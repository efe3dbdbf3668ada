// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import type { Question } from '../../core/exercises/question.ts';
import { questions } from '../../core/exercises/questions.ts';
import { questionWords } from '../../core/wording/questionWords.ts';
import { QuestionRun } from './QuestionRun.tsx';

afterEach(cleanup);

const RUN = questions({ values: ['h', 'q', 'e'], dots: true, ties: false, rests: true, beat: 'q' }, 7, 3, ['beats']);
const wrongOf = ({ options, answer }: Question) =>
  options.findIndex(({ misconception }, i) => i !== answer && misconception);
const key = (name: string) => fireEvent.keyDown(document.body, { key: name });
const letter = (option: number) => 'abcd'[option]!;
const heading = () => document.querySelector('.big-line')!.textContent;

function start(run: readonly Question[] = RUN) {
  let again = 0;
  render(<QuestionRun run={run} naming="quarters" onAgain={() => again++} />);
  return () => again;
}

describe('a run of questions', () => {
  it('counts what is right, goes on with the space bar, and ends with the score', () => {
    const again = start();
    expect(screen.getByText('1 of 3 · 0 right')).toBeTruthy();
    key(' ');
    expect(screen.getByText('1 of 3 · 0 right')).toBeTruthy();
    key(letter(RUN[0]!.answer));
    expect(screen.getByText('1 of 3 · 1 right')).toBeTruthy();
    key(' ');
    expect(screen.getByText('2 of 3 · 1 right')).toBeTruthy();
    key(letter(wrongOf(RUN[1]!)));
    // The first answer counts.
    key(letter(RUN[1]!.answer));
    key(' ');
    fireEvent.click(screen.getAllByRole('button')[RUN[2]!.answer]!);
    fireEvent.click(screen.getByRole('button', { name: /How it went/ }));
    expect(heading()).toBe('2 of 3 right');
    expect(screen.getAllByRole('listitem')[0]!.textContent).toMatch(/^1 × \S/);
    expect(again()).toBe(0);
    key(' ');
    expect(again()).toBe(1);
  });

  it('shows which was right, what was misunderstood, and the worked steps', () => {
    start();
    const [first] = RUN;
    const words = questionWords(first!, 'quarters');
    expect(screen.queryByLabelText('right')).toBeNull();
    expect(screen.queryAllByRole('listitem')).toHaveLength(0);
    const wrong = wrongOf(first!);
    key(letter(wrong));
    const options = screen.getAllByRole('button').slice(0, 4);
    expect(options.map((option) => option.textContent.slice(2))).toEqual(words.options);
    expect(options[first!.answer]!.querySelector('[aria-label="right"]')).toBeTruthy();
    expect(options[wrong]!.querySelector('[aria-label="not right"]')).toBeTruthy();
    const states = options.map(({ className }) => className.split(' ')[1]);
    expect([states[first!.answer], states[wrong]]).toEqual(['right', 'wrong']);
    expect(states.filter((state) => state === 'other')).toHaveLength(2);
    expect(document.querySelector('.misconception')!.textContent).toMatch(/\.$/);
    expect([...document.querySelectorAll('.steps li')].map((step) => step.textContent)).toEqual(words.steps);
  });

  it('says nothing of a misunderstanding where the answer is right', () => {
    start();
    key(letter(RUN[0]!.answer));
    expect(document.querySelector('.misconception')).toBeNull();
    expect(screen.getByLabelText('right')).toBeTruthy();
  });

  it('takes no key that has no option, nor one with ctrl', () => {
    const [question] = questions({ values: ['q'], dots: false, ties: false, rests: false, beat: 'q' }, 1, 1, [
      'true-false',
    ]);
    start([question!]);
    key('d');
    fireEvent.keyDown(document.body, { key: 'a', ctrlKey: true });
    expect(screen.getByText('1 of 1 · 0 right')).toBeTruthy();
    expect(document.querySelector('.steps')).toBeNull();
  });

  it('says so where no question can be made', () => {
    start([]);
    expect(screen.getByText(/no question can be made/)).toBeTruthy();
  });
});
