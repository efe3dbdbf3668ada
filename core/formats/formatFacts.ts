import { perLanguage, t } from '../words/say.ts';
/** What a format is, without what writes it: a page that only offers it needs no more. */
export interface FormatFacts {
  readonly title: string;
  /** What it is good for, in a teacher's words. */
  readonly use: string;
  /** Endings of its files, the usual one first. */
  readonly endings: readonly string[];
  readonly mime: string;
  /** Several patterns in one file. */
  readonly many: boolean;
  /** Several parts of one pattern side by side. */
  readonly parts?: true;
  /** It holds the counts and nothing else. */
  readonly isCounts?: true;
  /** Which of the options make a difference. */
  readonly takes: readonly ('bpm' | 'counts' | 'each-rest' | 'count-in' | 'sound')[];
}

export const OUT_IDS = ['pdf', 'png', 'svg', 'musicxml', 'mxl', 'midi', 'wav', 'abc', 'text', 'braille'] as const;
export type OutId = (typeof OUT_IDS)[number];

/** Everything that patterns can go out as, in the order in which it is offered. */
export const OUT_FACTS = perLanguage((): Readonly<Record<OutId, FormatFacts>> => ({
  pdf: {
    title: 'PDF',
    use: t`to print`,
    endings: ['.pdf'],
    mime: 'application/pdf',
    parts: true,
    many: true,
    takes: ['counts', 'each-rest'],
  },
  png: {
    title: t`Picture, PNG`,
    use: t`for slides and messages`,
    endings: ['.png'],
    mime: 'image/png',
    many: false,
    parts: true,
    takes: ['counts', 'each-rest'],
  },
  svg: {
    title: t`Picture, SVG`,
    use: t`sharp at every size, for worksheets`,
    endings: ['.svg'],
    mime: 'image/svg+xml',
    parts: true,
    many: false,
    takes: ['counts', 'each-rest'],
  },
  musicxml: {
    title: 'MusicXML',
    use: t`for notation programs`,
    endings: ['.musicxml', '.xml'],
    mime: 'application/vnd.recordare.musicxml+xml',
    parts: true,
    many: false,
    takes: ['bpm', 'counts'],
  },
  mxl: {
    title: t`MusicXML, packed`,
    use: t`the same in a smaller file`,
    endings: ['.mxl'],
    mime: 'application/vnd.recordare.musicxml',
    parts: true,
    many: false,
    takes: ['bpm', 'counts'],
  },
  midi: {
    title: 'MIDI',
    use: t`for keyboards and sequencers`,
    endings: ['.mid', '.midi'],
    mime: 'audio/midi',
    parts: true,
    many: false,
    takes: ['bpm', 'count-in', 'sound'],
  },
  wav: {
    title: 'Sound',
    use: t`clapped over clicks, to practise with`,
    endings: ['.wav'],
    mime: 'audio/wav',
    parts: true,
    many: false,
    takes: ['bpm', 'sound'],
  },
  abc: {
    title: 'ABC',
    use: t`for song sites and plain text`,
    endings: ['.abc'],
    mime: 'text/vnd.abc',
    parts: true,
    many: true,
    takes: ['bpm'],
  },
  text: {
    title: t`Rhythm text`,
    use: t`short, for messages and for this app`,
    endings: ['.txt'],
    mime: 'text/plain',
    parts: true,
    many: true,
    takes: [],
  },
  braille: {
    title: t`Braille, BRF`,
    use: t`the counts for an embosser, a line a measure`,
    endings: ['.brf'],
    mime: 'application/x-brf',
    many: true,
    takes: [],
    isCounts: true,
  },
}));
