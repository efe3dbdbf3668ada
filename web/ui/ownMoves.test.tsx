// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { randomFrom } from '../../core/random.ts';
import { STRAY_MS, stopStray, useOwnMoves, useStray } from './ownMoves.ts';
import { useKeys } from './useKeys.ts';
import { EVERYTHING } from '../../scripts/test/trial.test-helper.ts';

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance'] });
  // Later than anything of the test before.
  vi.advanceTimersByTime((clock += 1e7));
});
afterEach(() => {
  cleanup();
  // The last press has been dealt with.
  vi.advanceTimersByTime(1);
  vi.useRealTimers();
});

let clock = 0;
const CHILDREN = 26;

/** Children one after the other: a key marks the one in front, after a while the next one is called by itself. */
function Line({ waits, onMark }: { waits: readonly number[]; onMark: (child: number, key: string) => void }) {
  const [front, setFront] = useState(0);
  useOwnMoves(String(front));
  const mark = (key: string) => () => {
    onMark(front, key);
    setFront(front + 1);
  };
  useKeys({ '3': mark('3'), x: mark('x'), ' ': mark(' ') });
  useEffect(() => {
    // Shown at its own moment, not when the time that passes in one go is over.
    const timer = setTimeout(() => flushSync(() => setFront(front + 1)), waits[front]);
    return () => clearTimeout(timer);
  }, [front, waits]);
  const stray = useStray();
  return (
    <div onClickCapture={stopStray}>
      <h1>{front}</h1>
      <p role="status">{stray === undefined ? '' : `not taken: ${stray}`}</p>
      <button onClick={mark('click')}>Absent</button>
    </div>
  );
}

const pass = (ms: number) => void act(() => void vi.advanceTimersByTime(ms));
const front = () => Number(screen.getByRole('heading').textContent);

/** Presses now, as browsers date it. */
function press(key: string) {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true });
  Object.defineProperty(event, 'timeStamp', { value: performance.now() });
  fireEvent(document.body, event);
}

describe('what a hand moved on', () => {
  it('takes the next key at once, however slowly it is drawn', () => {
    const now = performance.now.bind(performance);
    let busy = 0;
    vi.spyOn(performance, 'now').mockImplementation(() => now() + busy);
    const marks: [number, string][] = [];
    const drawn = (child: number, key: string) => {
      marks.push([child, key]);
      // Between the key and what is drawn for it.
      busy += 700;
    };
    render(<Line waits={Array.from({ length: CHILDREN }, () => 60_000)} onMark={drawn} />);
    for (let i = 0; i < 4; i++) {
      press('3');
      pass(50);
    }
    expect(marks).toEqual([0, 1, 2, 3].map((child) => [child, '3']));
    vi.restoreAllMocks();
  });
  it('also where it is drawn a moment later', () => {
    const marks: string[] = [];
    function Later() {
      const [front, setFront] = useState(0);
      useOwnMoves(String(front));
      const mark = () => {
        marks.push(String(front));
        setTimeout(() => flushSync(() => setFront(front + 1)), 60);
      };
      useKeys({ '3': mark });
      return <h1>{front}</h1>;
    }
    render(<Later />);
    for (let i = 0; i < 3; i++) {
      press('3');
      pass(100);
    }
    expect(marks).toEqual(['0', '1', '2']);
  });
});

describe('what moves on by itself', () => {
  it('never gives a child what was meant for another, whenever the keys come', () => {
    const random = randomFrom(1);
    let [taken, dropped] = [0, 0];
    for (let line = 0; line < (EVERYTHING ? 120 : 40); line++) {
      const waits = Array.from({ length: CHILDREN }, () => 500 + 4000 * random.next());
      const marks: [number, string][] = [];
      render(<Line waits={waits} onMark={(child, key) => marks.push([child, key])} />);
      while (front() < CHILDREN) {
        pass(random.pick([0, 30, 100, 400, 1500]) * random.next());
        const meant = front();
        // From what is seen to the key: as fast as hands are, up to what the law allows for.
        pass(80 + (STRAY_MS - 90) * random.next());
        const before = marks.length;
        press(random.pick(['3', 'x', ' ']));
        if (marks.length > before) {
          taken++;
          expect(marks.at(-1)![0]).toBe(meant);
        } else dropped++;
      }
      cleanup();
    }
    expect(taken).toBeGreaterThan(EVERYTHING ? 900 : 300);
    expect(dropped).toBeGreaterThan(EVERYTHING ? 90 : 30);
  });

  it('says which key was not taken, and takes the next one when its time has passed', () => {
    const marks: string[] = [];
    render(<Line waits={[1000, 60_000]} onMark={(child, key) => marks.push(`${child} ${key}`)} />);
    pass(1000 + STRAY_MS - 1);
    press('3');
    expect(screen.getByRole('status').textContent).toBe('not taken: 3');
    pass(1);
    press('x');
    expect(marks).toEqual(['1 x']);
    expect(screen.getByRole('status').textContent).toBe('');
  });

  it('takes keys at once after somebody went on by hand', () => {
    const marks: string[] = [];
    render(<Line waits={[60_000, 60_000, 60_000]} onMark={(child, key) => marks.push(`${child} ${key}`)} />);
    press('3');
    pass(20);
    press('x');
    expect(marks).toEqual(['0 3', '1 x']);
  });

  it('takes no press of a button either', () => {
    const marks: string[] = [];
    render(<Line waits={[1000, 60_000]} onMark={(child, key) => marks.push(`${child} ${key}`)} />);
    pass(1100);
    const click = () => {
      const event = new MouseEvent('click', { bubbles: true, cancelable: true, detail: 1 });
      Object.defineProperty(event, 'timeStamp', { value: performance.now() });
      fireEvent(screen.getByRole('button'), event);
    };
    click();
    expect(marks).toEqual([]);
    pass(STRAY_MS);
    click();
    expect(marks).toEqual(['1 click']);
  });
});

/** A view whose red button is on space. */
function View({ onSpace, onOther }: { onSpace: () => void; onOther: () => void }) {
  useKeys({ ' ': onSpace });
  return (
    <>
      <button onClick={onOther}>Slower</button>
      <input type="checkbox" aria-label="Loop" />
      <select aria-label="Class">
        <option>One</option>
      </select>
      <input aria-label="Title" />
    </>
  );
}

describe('the space bar', () => {
  const goTo = (control: HTMLElement, by: 'pointer' | 'key') => {
    if (by === 'pointer') fireEvent(control, new Event('pointerdown', { bubbles: true }));
    else fireEvent.keyDown(document.body, { key: 'Tab' });
    void act(() => control.focus());
  };
  const space = (control: HTMLElement) => fireEvent.keyDown(control, { key: ' ' });

  it.each(['Slower', 'Loop', 'Class'])(
    'does what the view says after a click on %s, and is its own by keyboard',
    (name) => {
      const [red, other] = [vi.fn(), vi.fn()];
      render(<View onSpace={red} onOther={other} />);
      const control = name === 'Slower' ? screen.getByRole('button') : screen.getByLabelText(name);
      goTo(control, 'pointer');
      // The browser is kept from pressing the button as well.
      expect(space(control)).toBe(false);
      expect(fireEvent.keyUp(control, { key: ' ' })).toBe(false);
      expect(red).toHaveBeenCalledOnce();
      void act(() => control.blur());
      goTo(control, 'key');
      expect(space(control)).toBe(true);
      expect(red).toHaveBeenCalledOnce();
    },
  );
  it('is the view’s in a field of figures, which keeps these', () => {
    const red = vi.fn();
    function Hands() {
      useKeys({ ' ': red, '3': red, Enter: red });
      return <input aria-label="Hands" data-figures />;
    }
    render(<Hands />);
    goTo(screen.getByLabelText('Hands'), 'key');
    for (const key of ['3', 'Enter', 'Backspace']) fireEvent.keyDown(screen.getByLabelText('Hands'), { key });
    expect(red).not.toHaveBeenCalled();
    expect(space(screen.getByLabelText('Hands'))).toBe(false);
    expect(red).toHaveBeenCalledOnce();
  });
  it('is typed into a field, however it was reached', () => {
    const red = vi.fn();
    render(<View onSpace={red} onOther={() => {}} />);
    for (const by of ['pointer', 'key'] as const) {
      goTo(screen.getByLabelText('Title'), by);
      expect(space(screen.getByLabelText('Title'))).toBe(true);
    }
    expect(red).not.toHaveBeenCalled();
  });
});
