/** A pattern to begin with. */
export interface StarterPattern {
  readonly title: string;
  readonly text: string;
}

const FIRST: readonly StarterPattern[] = [
  { title: 'Four steps', text: '4/4 q q q q | q q q q' },
  { title: 'Step and trot', text: '4/4 q q e e q | q e e q q' },
  { title: 'Trot, trot, stop', text: '4/4 e e e e q q | e e q e e q' },
  { title: 'Hush on four', text: '4/4 q q q (q) | q q q (q)' },
  { title: 'Hush on two', text: '4/4 q (q) e e q | q (q) q (q)' },
  { title: 'One long step', text: '4/4 h q q | q q h' },
  { title: 'Two by two', text: '2/4 q q | e e q | q e e | h' },
  { title: 'Long and hush', text: '4/4 h e e q | e e q h' },
];
const SECOND: readonly StarterPattern[] = [
  { title: 'Stairs', text: '4/4 q q e e q | e e q q q' },
  { title: 'Gap in the fence', text: '4/4 q (q) e e q | e e q q (q)' },
  { title: 'Long jump', text: '4/4 h e e q | q q h' },
  { title: 'Half asleep', text: '4/4 h (h) | q q (h) | e e q h' },
  { title: 'Three in a ring', text: '3/4 q q q | h. | q e e q | h.' },
  { title: 'Whole breath', text: '4/4 q q h | w | e e q h | w' },
  { title: 'Tied shoelace', text: '4/4 q q h~ | h q q | q q h' },
  { title: 'Skip a step', text: '4/4 e (e) q e e q | q e (e) h' },
];
const THIRD: readonly StarterPattern[] = [
  { title: 'Warm hands', text: '4/4 q e e q q | e e q (q) q' },
  { title: 'Over the line', text: '4/4 q q h~ | q q q (q)' },
  { title: 'Off the kerb', text: '4/4 e (e) e e q q | (e) e q h' },
  { title: 'Swing gate', text: '4/4 e q e q q | e q e h' },
  { title: 'Leaning', text: '4/4 q. e q q | q. e h' },
  { title: 'Rain', text: '4/4 s s s s q e e q | q s s s s h' },
  { title: 'Short cut', text: '2/4 e s s q | s s e q | e s s s s e | h' },
  { title: 'Barrel roll', text: '6/8 q. e e e | q e q. | e e e q e | q. q.' },
];
const FOURTH: readonly StarterPattern[] = [
  { title: 'In and out', text: '4/4 q. e (e) e q | q. e h' },
  { title: 'Against the grain', text: '4/4 e q e (e) e q | e q e q~ q' },
  { title: 'Cobbles', text: '4/4 s s s s e s s s s e e e | q e s s h' },
  { title: 'Limp', text: '4/4 e. s q e. s q | e e e. s h' },
  { title: 'Rolling', text: '6/8 q e e e e | q. q e | e (e) e q e | q. q.' },
  { title: 'Three on two', text: '4/4 3{e e e} q 3{e e e} q | q 3{e e e} h' },
  { title: 'Late door', text: '4/4 (q) q. e q~ | q e e h' },
  { title: 'Five paces', text: '5/4 q q q q e e | h. h' },
];

/** To begin with, by ages, the easiest first: each uses little that those before it do not. */
export const STARTER_PATTERNS = {
  '5-6': FIRST,
  '7-8': [...FIRST.slice(0, 4), ...SECOND],
  '9-10': [...SECOND.slice(0, 4), ...THIRD],
  '11-13': [...THIRD.slice(0, 4), ...FOURTH],
  musician: [...THIRD.slice(2), ...FOURTH],
} as const satisfies Readonly<Record<string, readonly StarterPattern[]>>;
