/** How a part is heard in other programs: a key of General MIDI percussion, and what it is called there. */
export interface PartSound {
  readonly key: number;
  readonly title: string;
}

const CLAP: PartSound = { key: 39, title: 'Hand Clap' };

/** Body sounds by the nearest that General MIDI has; hands by two wood blocks. */
const SOUNDS: Readonly<Record<string, PartSound>> = {
  clap: CLAP,
  stamp: { key: 36, title: 'Bass Drum 1' },
  pat: { key: 64, title: 'Low Conga' },
  snap: { key: 37, title: 'Side Stick' },
  left: { key: 77, title: 'Low Wood Block' },
  right: { key: 76, title: 'High Wood Block' },
};

/** Parts with names of their own, in their order. */
const OTHERS = [CLAP, SOUNDS['stamp']!, SOUNDS['right']!, SOUNDS['left']!] as const;

/** The sound of a part, by its name or else by its place. */
export function partSound(name: string, index: number): PartSound {
  return SOUNDS[name.trim().toLowerCase()] ?? OTHERS[index % OTHERS.length]!;
}
