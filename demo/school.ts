import type { CountingSystemId } from '../core/counting/countingSystems.ts';
import type { Ages } from '../core/judging/windows.ts';
import type { ElementId } from '../core/rhythm/elements.ts';

/** Marrow Lane School, in a harbour town that is on no map. Everyone and everything here is made up. */
export const SCHOOL = 'Marrow Lane School';
export const TEACHER = { name: 'Robin Quay', password: 'marrow-lane' } as const;

export interface DemoClass {
  readonly name: string;
  readonly ages: Ages;
  readonly school: CountingSystemId;
  /** How many of the patterns the class has worked through in the six weeks. */
  readonly patterns: number;
  /** When it has lessons: days from 0, Monday. */
  readonly slots: readonly { readonly weekday: number; readonly starts: string; readonly minutes: number }[];
  /** What is new in its term. */
  readonly order: readonly ElementId[];
  readonly children: readonly string[];
}

export const CLASSES: readonly DemoClass[] = [
  {
    name: 'Lighthouse 4',
    ages: '9-10',
    school: 'numbers',
    patterns: 15,
    slots: [
      { weekday: 0, starts: '09:40', minutes: 40 },
      { weekday: 3, starts: '11:20', minutes: 40 },
    ],
    order: ['tie', 'eighth-rest', 'syncopation', 'dotted-quarter', 'sixteenths', 'dotted-eighth'],
    children: [
      'Ada',
      'Bram',
      'Celia',
      'Dov',
      'Edda',
      'Finn',
      'Greta',
      'Hamid',
      'Ines',
      'Jonas',
      'Kaya',
      'Leif',
      'Mira',
      'Nils',
      'Odile',
      'Pia',
      'Quinn',
      'Rafi',
      'Suri',
      'Tomas',
      'Una',
      'Vito',
      'Wren',
      'Yara',
    ],
  },
  {
    name: 'Harbour 2',
    ages: '7-8',
    school: 'ta',
    patterns: 8,
    slots: [{ weekday: 1, starts: '10:30', minutes: 30 }],
    order: ['half', 'half-rest', 'dotted-half', 'whole'],
    children: [
      'Alma',
      'Benno',
      'Cleo',
      'Dario',
      'Elin',
      'Fritz',
      'Gwen',
      'Hugo',
      'Ivy',
      'Juno',
      'Kai',
      'Lotte',
      'Milo',
      'Nora',
      'Otis',
      'Petra',
      'Remy',
      'Sol',
      'Tilda',
      'Zeno',
    ],
  },
];

/** In the order in which the elements usually come (rules §9). */
export const PATTERNS: readonly { readonly title: string; readonly text: string }[] = [
  { title: 'Walking to the quay', text: '4/4 q q q q | q q q q' },
  { title: 'Two gulls', text: '4/4 q q e e q | e e q e e q' },
  { title: 'Wait for the ferry', text: '4/4 q q q (q) | e e q q (q)' },
  { title: 'Long rope', text: '4/4 h q q | q q h' },
  { title: 'Fog horn', text: '4/4 h (h) | q q (h) | e e q (h)' },
  { title: 'Rowing boat', text: '3/4 h. | q q q | q e e q | h.' },
  { title: 'Slow tide', text: '4/4 q q h | w' },
  { title: 'Knotted line', text: '4/4 q q h~ | h q q | h q q~ | q q h' },
  { title: 'Before the bell', text: '4/4 ^ q | q q e e q | h.' },
  { title: 'Hop the puddles', text: '4/4 e (e) q e (e) q | e e q e (e) q' },
  { title: 'Missing plank', text: '4/4 q (e) e q q | (e) e q q (q)' },
  { title: 'Rocking pier', text: '4/4 e q e q q | q e q e q' },
  { title: 'Leaning mast', text: '4/4 q. e q q | q. e h' },
  { title: 'Harbour waltz', text: '3/4 q. e q | q q e e | q. e q | h.' },
  { title: 'Rain on the roof', text: '4/4 s s s s q e e q | q s s s s h' },
  { title: 'Crab race', text: '2/4 e s s e e | s s e q | e s s s s e | h' },
  { title: 'Limping sailor', text: '4/4 e. s q e. s q | e e e. s h' },
  { title: 'Rolling barrels', text: '6/8 q. e e e | q e q. | e e e q e | q. q (e)' },
  { title: 'Three in a boat', text: '4/4 3{e e e} q 3{e e e} q | h. q' },
  { title: 'Round the lighthouse', text: '4/4 |: q e e q (q) | h e e q :| q. e q q | w' },
];

/** In parts: two groups, hands and feet, layers of sounds, a canon. */
export const PATTERNS_IN_PARTS: readonly { readonly title: string; readonly text: string }[] = [
  { title: 'Clap and stamp at the quay', text: '4/4 [clap] q q e e q | e e q e e q [stamp]* h h' },
  {
    title: 'Two boats calling',
    text: '4/4 [A] q e e q (q) | (w) | e e q q (q) | (w) [B] (w) | q e e q (q) | (w) | h h',
  },
  {
    title: 'Oars left and right',
    text: '6/8 [left] q. (q.) | q e (q.) | q. (q.) | q. q. [right] (q.) q. | (q.) q e | (q.) e e e | q. q.',
  },
  { title: 'Waves and gulls', text: '3/4 [gulls] q e e q | (q) e e q | q e e q | h. [waves] h. | h q | h. | h q' },
  {
    title: 'Harbour machine',
    text: '4/4 [clap] q (q) q q | e e q q (q) [pat] e e e e e e e e | q q h [stamp]* q (q) q (q) [snap]* (q) q (q) q',
  },
  {
    title: 'Canon of the two piers',
    text: '4/4 [first] q q e e q | h h | e e e e q q | w | (w) [second] (w) | q q e e q | h h | e e e e q q | w',
  },
];

export const TEMPOS: readonly number[] = [66, 72, 80];
export const WEEKS = 6;
