import { useEffect, useRef, useState } from 'react';
import { NOTES_HEIGHTS } from '../../drawing/heights.ts';
import { loadAgain } from '../ui/lazyAgain.ts';
import { type RulerSize, type RulerSystem, systemKey } from '../../drawing/system.ts';

type Engraver = Pick<typeof import('./engrave.ts'), 'engrave'>;

let loaded: Engraver | undefined;

/** The engraver comes when the first notes are to be shown. */
function useEngraver(): Engraver | undefined {
  const [engraver, setEngraver] = useState(loaded);
  useEffect(() => {
    if (engraver) return;
    const ready = async () => {
      const { engrave, engravingReady } = await import('./engrave.ts');
      await engravingReady();
      return { engrave };
    };
    // Until it is there the strips and counts stand without notes: the network may come back.
    void loadAgain(ready).then((engraves) => {
      loaded = engraves;
      setEngraver(loaded);
    });
  }, [engraver]);
  return engraver;
}

interface NotesProps {
  readonly system: RulerSystem;
  readonly size: RulerSize;
  /** A second part on the same line, stems down. */
  readonly lower?: RulerSystem | undefined;
  /** Bar lines go on so far down: pixels. */
  readonly barsDown?: number | undefined;
}

export function NotesLane({ system, size, lower, barsDown = 0 }: NotesProps) {
  const engraver = useEngraver();
  const element = useRef<HTMLDivElement>(null);
  // What is drawn depends on nothing else: a line is drawn again only when this changes.
  const key = `${systemKey(system)} ${size} ${barsDown} ${lower ? systemKey(lower) : ''}`;
  useEffect(() => {
    const here = element.current;
    if (!engraver || !here) return;
    // Drawn aside and put in place at once: sign by sign in the page takes longer.
    const aside = document.createElement('div');
    engraver.engrave(aside, system, size, { barsDown, lower });
    here.replaceChildren(...aside.childNodes);
    // Everything the drawing shows is in the key.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [engraver, key]);
  return <div ref={element} className="lane-notes" style={{ height: NOTES_HEIGHTS[size] }} aria-hidden />;
}
