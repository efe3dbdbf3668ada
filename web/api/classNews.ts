import { useEffect } from 'react';
import { useRefresh } from './useRefresh.ts';

type Listener = () => void;

/** A stream that was refused (signed out, server away) is tried again after so long. */
const AGAIN_MS = 3_000;

/**
 * One stream for a class, shared by all parts of the page. A page that is not in sight lets go of it: a browser has few
 * connections to one server, and catches up when the page comes back.
 */
class Stream {
  readonly listeners = new Set<Listener>();
  private source: EventSource | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private revision: string | undefined;

  constructor(private readonly classId: string) {
    document.addEventListener('visibilitychange', this.look);
    this.look();
  }

  readonly close = (): void => {
    document.removeEventListener('visibilitychange', this.look);
    this.letGo();
  };

  private readonly look = (): void => {
    this.letGo();
    if (document.visibilityState === 'visible') this.open();
  };

  private letGo(): void {
    clearTimeout(this.timer);
    this.source?.close();
    this.source = undefined;
  }

  private open(): void {
    const source = new EventSource(`/api/classes/${this.classId}/events`);
    this.source = source;
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const before = this.revision;
      this.revision = data;
      if (before !== undefined && before !== data) for (const listener of this.listeners) listener();
    };
    source.onerror = () => {
      // Broken off it comes back by itself; refused it does not.
      if (source.readyState !== EventSource.CLOSED) return;
      this.letGo();
      this.timer = setTimeout(this.look, AGAIN_MS);
    };
  }
}

const streams = new Map<string, Stream>();

function listen(classId: string, listener: Listener): () => void {
  const stream = streams.get(classId) ?? new Stream(classId);
  streams.set(classId, stream);
  stream.listeners.add(listener);
  return () => {
    stream.listeners.delete(listener);
    if (stream.listeners.size > 0) return;
    stream.close();
    streams.delete(classId);
  };
}

/** Fetches again what belongs to a class whenever anybody, anywhere, has changed something in it. */
export function useClassNews(classId: string | undefined): void {
  const refresh = useRefresh();
  useEffect(() => {
    if (classId === undefined) return undefined;
    return listen(classId, () => void refresh(`/classes/${classId}`, '/takes'));
    // `refresh` is another function each time, but does the same.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [classId]);
}
