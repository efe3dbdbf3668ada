import type { Struck } from './sounds.ts';

/** How a part is heard: here, and in other programs by a key of General MIDI percussion with its name. */
export interface PartSound {
  readonly struck: Struck;
  readonly key: number;
  readonly title: string;
}

const CLAP: PartSound = { struck: 'clap', key: 39, title: 'Hand Clap' };

/** Body sounds, in MIDI by the nearest that there is; hands by two wood blocks. */
const SOUNDS: Readonly<Record<string, PartSound>> = {
  clap: CLAP,
  stamp: { struck: 'stamp', key: 36, title: 'Bass Drum 1' },
  pat: { struck: 'pat', key: 64, title: 'Low Conga' },
  snap: { struck: 'snap', key: 37, title: 'Side Stick' },
  left: { struck: 'low-wood', key: 77, title: 'Low Wood Block' },
  right: { struck: 'wood', key: 76, title: 'High Wood Block' },
};

/** Parts with names of their own, in their order. */
const OTHERS = [CLAP, SOUNDS['stamp']!, SOUNDS['right']!, SOUNDS['pat']!] as const;

/** The sound of a part, by its name or else by its place. */
export function partSound(name: string, index: number): PartSound {
  return SOUNDS[name.trim().toLowerCase()] ?? OTHERS[index % OTHERS.length]!;
}
