import { type DragEvent, useRef, useState } from 'react';

/** Endings of files that can be brought in, for the browser's own choice of files. */
export const READABLE_FILES = '.txt,.musicxml,.xml,.mxl,.mid,.midi,.abc,.zip';

/** Files among what is dragged, not a link or a word of the page. */
const hasFiles = ({ dataTransfer }: DragEvent) => dataTransfer.types.includes('Files');

/**
 * Takes files that are dropped on an element. By hand, for this is all that is needed of it and the first view of the
 * day is to be small.
 */
export function useDrop(onFiles: (files: readonly File[]) => void) {
  const [over, setOver] = useState(false);
  // Every element inside is entered and left too.
  const depth = useRef(0);
  const enter = (by: number) => {
    depth.current = Math.max(0, depth.current + by);
    setOver(depth.current > 0);
  };
  return {
    over,
    zone: {
      onDragEnter: (event: DragEvent) => hasFiles(event) && enter(1),
      onDragLeave: (event: DragEvent) => hasFiles(event) && enter(-1),
      onDragOver: (event: DragEvent) => {
        if (hasFiles(event)) event.preventDefault();
      },
      onDrop: (event: DragEvent) => {
        enter(-depth.current);
        const files = [...event.dataTransfer.files];
        if (files.length === 0) return;
        event.preventDefault();
        onFiles(files);
      },
    },
  };
}
