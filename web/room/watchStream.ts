/** Why a stream is over. */
export interface StreamEnd {
  readonly status: number;
  readonly code: string;
  readonly message: string;
}

interface Watched<Problem> {
  /** Its whole address. */
  readonly path: string;
  /** Asks for the room in the usual way: why a stream was refused no browser tells. */
  readonly ask: () => Promise<unknown>;
  /** Whether what `ask` came to may pass. */
  readonly passes: (problem: Problem) => boolean;
  readonly onRoom: (room: unknown) => void;
  /** It is not to be watched any more. */
  readonly onOver: (end: StreamEnd | Problem) => void;
  /** Whether the stream is there. */
  readonly onThere: (there: boolean) => void;
}

const AGAIN_MS = 2_000;

/**
 * Watches a room, a teacher's or a child's; comes back by itself when the stream breaks off.
 * @returns stops watching
 */
export function watchStream<Problem>(watched: Watched<Problem>): () => void {
  const { path, ask, passes, onRoom, onOver, onThere } = watched;
  let source: EventSource;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let stopped = false;
  const stop = () => {
    stopped = true;
    clearTimeout(timer);
    source.close();
  };
  const over = (end: StreamEnd | Problem) => {
    if (stopped) return;
    stop();
    onOver(end);
  };
  const open = () => {
    source = new EventSource(path);
    source.addEventListener('room', ({ data }: MessageEvent<string>) => {
      onThere(true);
      onRoom(JSON.parse(data));
    });
    source.addEventListener('over', ({ data }: MessageEvent<string>) => over(JSON.parse(data) as StreamEnd));
    source.addEventListener('error', () => {
      onThere(false);
      // A stream that was refused is not taken up again by the browser.
      if (stopped || source.readyState !== EventSource.CLOSED) return;
      timer = setTimeout(open, AGAIN_MS);
      ask().catch((problem: Problem) => passes(problem) || over(problem));
    });
  };
  open();
  return stop;
}
