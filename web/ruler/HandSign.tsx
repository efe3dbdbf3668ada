/** Two hands from above in a box of forty: together with a ring of sound, pushed forward, apart. */
const SIGNS = {
  clap: 'M17 14 V36 M23 14 V36 M20 1 V7 M9 4 L12 9 M31 4 L28 9',
  push: 'M17 17 V36 M23 17 V36 M12 10 L20 2 L28 10',
  open: 'M12 12 L5 36 M28 12 L35 36',
} as const;
const BOX = 40;

/** What the hands do, drawn, where its word has no room; the first of it stands at x. */
export function HandSigns({ text, x, y, size }: { text: string; x: number; y: number; size: number }) {
  const moves = text.split(/[-()]/).filter((move): move is keyof typeof SIGNS => Object.hasOwn(SIGNS, move));
  return moves
    .slice(0, 1)
    .map((move) => (
      <path
        key={move}
        className={`hand-sign hand-${text.startsWith('-') ? 'held' : move}`}
        transform={`translate(${x - size / 2} ${y - size}) scale(${size / BOX})`}
        d={SIGNS[move]}
      />
    ));
}
