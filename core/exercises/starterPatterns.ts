import { perLanguage, t } from '../words/say.ts';
/** A pattern to begin with. */
export interface StarterPattern {
  readonly title: string;
  readonly text: string;
}

const FIRST = perLanguage((): readonly StarterPattern[] => [
  { title: t`Four steps`, text: '4/4 q q q q | q q q q' },
  { title: t`Step and trot`, text: '4/4 q q e e q | q e e q q' },
  { title: t`Trot, trot, stop`, text: '4/4 e e e e q q | e e q e e q' },
  { title: t`Hush on four`, text: '4/4 q q q (q) | q q q (q)' },
  { title: t`Hush on two`, text: '4/4 q (q) e e q | q (q) q (q)' },
  { title: t`One long step`, text: '4/4 h q q | q q h' },
  { title: t`Two by two`, text: '2/4 q q | e e q | q e e | h' },
  { title: t`Long and hush`, text: '4/4 h e e q | e e q h' },
]);
const SECOND = perLanguage((): readonly StarterPattern[] => [
  { title: t`Stairs`, text: '4/4 q q e e q | e e q q q' },
  { title: t`Gap in the fence`, text: '4/4 q (q) e e q | e e q q (q)' },
  { title: t`Long jump`, text: '4/4 h e e q | q q h' },
  { title: t`Half asleep`, text: '4/4 h (h) | q q (h) | e e q h' },
  { title: t`Three in a ring`, text: '3/4 q q q | h. | q e e q | h.' },
  { title: t`Whole breath`, text: '4/4 q q h | w | e e q h | w' },
  { title: t`Tied shoelace`, text: '4/4 q q h~ | h q q | q q h' },
  { title: t`Skip a step`, text: '4/4 e (e) q e e q | q e (e) h' },
]);
const THIRD = perLanguage((): readonly StarterPattern[] => [
  { title: t`Warm hands`, text: '4/4 q e e q q | e e q (q) q' },
  { title: t`Over the line`, text: '4/4 q q h~ | q q q (q)' },
  { title: t`Off the kerb`, text: '4/4 e (e) e e q q | (e) e q h' },
  { title: t`Swing gate`, text: '4/4 e q e q q | e q e h' },
  { title: t`Leaning`, text: '4/4 q. e q q | q. e h' },
  { title: t`Rain`, text: '4/4 s s s s q e e q | q s s s s h' },
  { title: t`Short cut`, text: '2/4 e s s q | s s e q | e s s s s e | h' },
  { title: t`Barrel roll`, text: '6/8 q. e e e | q e q. | e e e q e | q. q.' },
]);
const FOURTH = perLanguage((): readonly StarterPattern[] => [
  { title: t`In and out`, text: '4/4 q. e (e) e q | q. e h' },
  { title: t`Against the grain`, text: '4/4 e q e (e) e q | e q e q~ q' },
  { title: t`Cobbles`, text: '4/4 s s s s e s s s s e e e | q e s s h' },
  { title: t`Limp`, text: '4/4 e. s q e. s q | e e e. s h' },
  { title: t`Rolling`, text: '6/8 q e e e e | q. q e | e (e) e q e | q. q.' },
  { title: t`Three on two`, text: '4/4 3{e e e} q 3{e e e} q | q 3{e e e} h' },
  { title: t`Late door`, text: '4/4 (q) q. e q~ | q e e h' },
  { title: t`Five paces`, text: '5/4 q q q q e e | h. h' },
]);

/** To begin with, by ages, the easiest first: each uses little that those before it do not. */
export const STARTER_PATTERNS = perLanguage(
  () =>
    ({
      '5-6': FIRST(),
      '7-8': [...FIRST().slice(0, 4), ...SECOND()],
      '9-10': [...SECOND().slice(0, 4), ...THIRD()],
      '11-13': [...THIRD().slice(0, 4), ...FOURTH()],
      musician: [...THIRD().slice(2), ...FOURTH()],
    }) as const satisfies Readonly<Record<string, readonly StarterPattern[]>>,
);
