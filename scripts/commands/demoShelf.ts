import type { ShelfItemEdit } from '../../contract/schoolShelf.ts';

/** Who has laid the things of the demo's shelf there; nobody signs in with it. */
export const COLLEAGUE = 'Noor Tide';

const block = (key: number, kind: 'warm-up' | 'read' | 'ear' | 'close', note: string) => ({
  key,
  kind,
  note,
  steps: [],
  patterns: [],
});

/** What colleagues of the demo school have laid out for each other. */
export const SHELF: readonly ShelfItemEdit[] = [
  {
    title: 'Three ropes',
    about: 'Half notes that begin on every beat, each a little harder.',
    thing: {
      kind: 'lines',
      patterns: [
        { title: 'First rope', text: '4/4 h q q | h h' },
        { title: 'Second rope', text: '4/4 q h q | q q h' },
        { title: 'Third rope', text: '4/4 q q h~ | h h' },
      ],
    },
  },
  {
    title: 'Hide the rests',
    about: 'They say the rests first, then only think them.',
    thing: {
      kind: 'plan',
      plan: {
        title: 'Hide the rests',
        passes: [
          { activity: 'say', who: 'together' },
          { activity: 'say-clap', who: 'together' },
          { activity: 'clap', who: 'i-go' },
          { activity: 'clap', who: 'you-go' },
        ],
        chunks: { kind: 'whole' },
        ladder: [
          { bpm: 60, passes: 2 },
          { bpm: 76, passes: 2 },
        ],
        restBeats: 2,
        countIn: 'measure',
        countInEach: false,
        divided: false,
        twoLines: false,
      },
    },
  },
  {
    title: 'A short lesson before the holidays',
    about: 'Nothing new: games with what they know.',
    thing: {
      kind: 'lesson',
      lesson: {
        title: 'Before the holidays',
        minutes: 30,
        blocks: [
          block(0, 'warm-up', 'Pass a clap round the circle'),
          block(1, 'read', 'They choose the rhythm'),
          block(2, 'ear', 'Two teams'),
          block(3, 'close', 'The slowest one, very softly'),
        ],
      },
    },
  },
];
