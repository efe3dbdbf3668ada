import { DeviceClock, FEWEST_EXCHANGES, type Milliseconds } from '../../core/timing/deviceClock.ts';
import { askClock } from './roomApi.ts';

/** At first, one right after the other: the shortest of many is near the truth. */
const AT_FIRST = 2 * FEWEST_EXCHANGES;
const SOON_MS = 40;
/** Then so often, to follow the drift. */
const LATER_MS = 3_000;
const AFTER_TROUBLE_MS = 1_000;

/** The room's clock on this page; its times are milliseconds on the clock of the page's events. */
export interface RoomClock {
  /** When a moment of the room is here; undefined while the clock is not known well enough. */
  readonly here: (room: Milliseconds) => Milliseconds | undefined;
  readonly room: (here: Milliseconds) => Milliseconds | undefined;
  readonly known: () => boolean;
  readonly stop: () => void;
}

/**
 * Asks the room's clock many times, and then now and then.
 * @param ask     one exchange
 * @param onKnown  told once, when it is known well enough to begin with others
 */
export function followClock(onKnown: () => void, ask = askClock): RoomClock {
  const clock = new DeviceClock();
  let timer: ReturnType<typeof setTimeout> | undefined;
  let stopped = false;
  let asked = 0;
  const isKnown = () => clock.count >= FEWEST_EXCHANGES;
  const next = (ms: number) => {
    if (!stopped) timer = setTimeout(() => void once(), ms);
  };
  const once = async () => {
    const exchange = await ask().catch(() => undefined);
    if (stopped) return;
    if (!exchange) return next(AFTER_TROUBLE_MS);
    const before = isKnown();
    clock.add(exchange);
    asked++;
    if (!before && isKnown()) onKnown();
    next(asked < AT_FIRST ? SOON_MS : LATER_MS);
  };
  void once();
  return {
    here: (room) => (isKnown() ? clock.here(room) : undefined),
    room: (here) => (isKnown() ? clock.room(here) : undefined),
    known: isKnown,
    stop: () => {
      stopped = true;
      clearTimeout(timer);
    },
  };
}
