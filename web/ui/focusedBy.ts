/** How the focus came to where it is: a control that was clicked does not keep the keys of the view. */
let last: 'pointer' | 'key' = 'key';
let focusedByPointer: EventTarget | null = null;

/** Watches from now on how the focus moves. */
export function watchFocus(): void {
  // Where there is no page, nothing has the focus.
  if (typeof window === 'undefined') return;
  window.addEventListener('pointerdown', () => (last = 'pointer'), true);
  window.addEventListener('keydown', ({ key }) => (last = MOVES.has(key) ? 'key' : last), true);
  window.addEventListener('focusin', ({ target }) => (focusedByPointer = last === 'pointer' ? target : null), true);
  // A control that has the focus by key and is clicked then.
  window.addEventListener(
    'click',
    (event) => {
      const control = event.target instanceof Element ? event.target.closest(CONTROLS) : null;
      if (event.detail > 0 && control === document.activeElement) focusedByPointer = control;
    },
    true,
  );
}

const MOVES: ReadonlySet<string> = new Set(['Tab', 'ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'Home', 'End']);
const CONTROLS = 'button, a, summary, select, input';

/** Whether a pointer gave this the focus it has. */
export const byPointer = (target: EventTarget): boolean => target === focusedByPointer;
