import fc from 'fast-check';
import { expect, it } from 'vitest';
import { patternOf } from '../rhythm/arbitrary.test-helper.ts';
import { resultOf } from './judged.test-helper.ts';
import type { Ages } from './windows.ts';

/**
 * Takes that are told apart by a little only: what was clapped, the rhythm, beats a minute, ages, without a click, what
 * is said with its measure and beats, and the claps in hundredths of a second.
 */
const TAKES: readonly (readonly [string, string, number, Ages, boolean, readonly string[], readonly number[]])[] = [
  [
    'a loop without a click',
    '4/4 w | w | e q e q q | e e e e h | h. q | q (q) q q',
    93,
    '5-6',
    true,
    ['looped@2'],
    [99, 354, 623, 660, 728, 761, 825, 893, 1162, 1191, 1260, 1292, 1361, 1426, 1689, 1720, 1791, 1818, 1887],
  ],
  [
    'hands that are uneven in a dotted measure',
    '4/4 s s s s q q q | 3{e e e} q h | h (h) | e s s q s s e q | h. q | q. e q q',
    80,
    '7-8',
    false,
    [],
    [
      1, 19, 38, 56, 75, 96, 148, 227, 297, 320, 348, 371, 448, 602, 906, 943, 956, 979, 1046, 1066, 1083, 1121, 1197,
      1423, 1499, 1613, 1648, 1725,
    ],
  ],
  [
    'a beat too much at each bar line',
    '3/4 q e e q | q (h) | q (q) q | q e e q | e e q q',
    88,
    '7-8',
    false,
    ['measures-too-long@1 1/1'],
    [-6, 67, 101, 130, 271, 542, 678, 814, 884, 919, 955, 1079, 1117, 1146, 1217],
  ],
  [
    'a measure of two notes left silent',
    '2/4 q. e | q e e | q. e | q. e',
    82,
    '9-10',
    true,
    ['measure-silent@3'],
    [97, 218, 262, 344, 384, 587, 705],
  ],
  [
    'the pickup left out',
    '4/4 ^ e e | h (h) | w | q q q q | h (h)',
    52,
    '9-10',
    false,
    ['joined-late@0'],
    [-5, 455, 913, 1033, 1147, 1265, 1381],
  ],
  [
    'the beat over and over',
    '6/8 q. q. | e e e q. | e q q. | q e q.',
    74,
    '7-8',
    false,
    ['only-the-beat@1'],
    [-4, 77, 157, 237, 321, 405, 484, 569],
  ],
  [
    'hard measures hurried',
    '7/8 q q q. | e e e e q e | q e e e e e | q e e e e e | q q q. | q e e q. | q e e e e e',
    145,
    '7-8',
    false,
    ['rushing@2'],
    [
      -2, 70, 163, 286, 320, 359, 395, 436, 509, 543, 616, 653, 694, 734, 770, 803, 883, 919, 958, 997, 1031, 1070,
      1148, 1228, 1353, 1433, 1470, 1518, 1644, 1723, 1759, 1797, 1836, 1868,
    ],
  ],
  [
    'most of it right, without a click',
    '4/4 e e e e h | h (h) | e e e e h | s s s s q q q | q e (e) q q | h. q | (h) q q | (h) q q | h h | h q q',
    70,
    '5-6',
    true,
    [],
    [
      95, 142, 187, 222, 275, 460, 815, 862, 904, 952, 996, 1175, 1199, 1225, 1249, 1263, 1354, 1441, 1525, 1621, 1714,
      1802, 1891, 2170, 2437, 2521, 2751, 2827, 2922, 3099, 3283, 3452, 3545,
    ],
  ],
  [
    'a long note too long',
    '7/8 q q e e e | q q q. | q q q. | q q q. | q q q. | q q e e e | q e e e e e | ' +
      'q e e e e e | e e e e q e | q e e e e e | q e e e e e | q e e e e e',
    157,
    '5-6',
    false,
    ['hold-too-long@7 3/1'],
    [
      0, 69, 148, 185, 222, 264, 340, 423, 537, 615, 687, 800, 886, 957, 1073, 1150, 1218, 1333, 1411, 1490, 1526, 1570,
      1611, 1719, 1759, 1801, 1841, 1874, 1916, 1999, 2030, 2067, 2103, 2139, 2178, 2217, 2252, 2292, 2328, 2414, 2450,
      2528, 2563, 2597, 2639, 2679, 2717, 2797, 2836, 2865, 2909, 2951, 2982, 3054, 3091, 3136, 3167, 3210,
    ],
  ],
  [
    'breaths, without a click',
    '4/4 e. s q q q | 3{e e e} q h | (e) e q q q | q (q) h | w',
    102,
    '5-6',
    true,
    [],
    [102, 145, 164, 217, 292, 353, 374, 400, 415, 480, 634, 664, 724, 785, 849, 977, 1118],
  ],
  [
    'five measures of rest for four',
    '4/4 h (h) | e e e e h | (M4) | q. e h | h q q | e q e q q',
    88,
    '7-8',
    true,
    ['rest-too-long@3 20/1'],
    [103, 356, 391, 425, 459, 489, 1907, 2000, 2031, 2166, 2298, 2358, 2427, 2461, 2525, 2558, 2623],
  ],
  [
    'half a beat too much at each bar line',
    '6/8 e q q. | h. | q e q e | h. | h. | e e e q.',
    61,
    '5-6',
    false,
    ['measures-too-long@1 1/2'],
    [-6, 27, 95, 235, 487, 553, 584, 649, 730, 973, 1223, 1260, 1296, 1325],
  ],
  [
    'lost for a stretch, without a click',
    '4/4 q q h | q e e h | q. e q q | e e q q q | h q q | q q h',
    72,
    '9-10',
    true,
    ['lost-and-recovered@2'],
    [
      296, 386, 479, 630, 722, 771, 820, 1066, 1141, 1214, 1307, 1399, 1441, 1492, 1582, 1671, 1764, 1950, 2038, 2128,
      2223, 2311,
    ],
  ],
  [
    'what falls on the beat is clapped, and all of it to the end',
    '4/4 q q e e q | q. e h | q (q) e e e e | q q h | e e q q. e | q e e q q | q. e e e q | w',
    84,
    '9-10',
    false,
    ['only-the-beat@1'],
    [
      0, 70, 142, 211, 286, 428, 574, 714, 785, 857, 930, 1001, 1144, 1217, 1287, 1427, 1502, 1570, 1644, 1717, 1858,
      1930, 1997,
    ],
  ],
  [
    'twice the tempo from a bar line on',
    '4/4 q q e e q | q. e h | q (q) e e e e | q q h | e e q q. e | q e e q q | q. e e e q | w',
    84,
    '9-10',
    false,
    ['double-tempo@3'],
    [
      0, 70, 142, 175, 215, 286, 396, 428, 570, 642, 662, 679, 698, 717, 751, 784, 859, 874, 894, 931, 983, 1002, 1033,
      1054, 1074, 1105, 1144, 1197, 1214, 1239, 1250, 1285,
    ],
  ],
  [
    'each third note is left out, and nothing else is clapped',
    '4/4 q q e e q | q. e h | q (q) e e e e | q q h | e e q q. e | q e e q q | q. e e e q | w',
    84,
    '9-10',
    false,
    [],
    [72, 142, 214, 283, 429, 571, 753, 785, 856, 928, 1144, 1179, 1287, 1395, 1501, 1534, 1645, 1713, 1858, 1895, 2001],
  ],
  [
    'something comes between, and every note is in its place',
    '4/4 q q e e q | q. e h | q (q) e e e e | q q h | e e q q. e | q e e q q | q. e e e q | w',
    84,
    '9-10',
    false,
    [],
    [
      0, 70, 142, 166, 179, 214, 289, 392, 418, 428, 573, 715, 751, 779, 787, 820, 859, 927, 956, 1002, 1144, 1180,
      1212, 1241, 1288, 1390, 1430, 1501, 1526, 1543, 1572, 1642, 1715, 1737, 1823, 1857, 1892, 1930, 1952, 1999,
    ],
  ],
  [
    'half the tempo from a bar line on',
    '4/4 q q q q | e e q q (q) | h q q | e e e e q q | q (q) q q | h h',
    84,
    '9-10',
    false,
    ['half-tempo@3'],
    [
      2, 72, 145, 214, 287, 318, 358, 429, 569, 858, 1006, 1144, 1218, 1289, 1362, 1427, 1571, 1715, 1998, 2145, 2288,
      2569,
    ],
  ],
  [
    'each note comes back as an echo',
    '4/4 q q q q | e e q q (q) | h q q | e e e e q q | q (q) q q | h h',
    84,
    '9-10',
    false,
    [],
    [
      2, 31, 74, 102, 144, 169, 215, 245, 283, 316, 327, 353, 361, 390, 433, 457, 571, 602, 713, 746, 788, 813, 858,
      888, 892, 926, 928, 958, 963, 994, 1001, 1032, 1069, 1101, 1142, 1174, 1286, 1315, 1360, 1386, 1428, 1459, 1575,
      1601,
    ],
  ],
  [
    'half a beat after the click',
    '3/4 q e e q | h q | q. e q | e e e e q | q (q) q | h.',
    96,
    '9-10',
    false,
    ['behind-the-click@1'],
    [29, 92, 127, 156, 219, 342, 405, 503, 528, 595, 625, 654, 686, 720, 780, 905, 968],
  ],
  [
    'half a beat after the click, in three parts',
    '6/8 q e q e | e e e q. | q. q e | e e e e e e | q e q. | h.',
    66,
    '9-10',
    false,
    ['behind-the-click@1'],
    [44, 108, 136, 199, 227, 259, 290, 318, 410, 501, 562, 596, 622, 652, 685, 715, 742, 776, 834, 863, 954],
  ],
  [
    'the first note twice',
    '4/4 e s s q e. s q | q (q) e e q | e q e h | s s s s e e q q | q q e e q | w',
    72,
    '9-10',
    false,
    ['entered-late@1 1/1'],
    [
      -3, 83, 126, 144, 163, 250, 312, 334, 417, 585, 627, 668, 752, 791, 872, 917, 1082, 1103, 1126, 1145, 1166, 1207,
      1251, 1335, 1419, 1500, 1585, 1624, 1667, 1748,
    ],
  ],
  [
    'the measure before instead of this one',
    '4/4 q e e h | q. e q q | e e q q (q) | q q h',
    88,
    '9-10',
    true,
    ['measure-repeated@3 0/1'],
    [-2, 69, 104, 139, 272, 374, 408, 479, 544, 646, 684, 749, 817, 887, 953],
  ],
  [
    'a beat of three parts held for one and a half',
    '6/8 q e q e | e e e q. | q. q e | e e e e e e | q e q. | h.',
    66,
    '9-10',
    false,
    ['hold-too-long@2 3/2'],
    [0, 61, 91, 151, 181, 213, 244, 273, 411, 501, 561, 594, 619, 653, 680, 714, 740, 773, 832, 862, 951],
  ],
  [
    'the beat in one measure, like the next one but for its end',
    '4/4 e s s q e. s q | q (q) e e q | e q e h | s s s s e e q q | q q e e q | w',
    72,
    '9-10',
    false,
    ['lost-and-recovered@4'],
    [
      0, 42, 63, 84, 165, 230, 248, 336, 499, 543, 582, 669, 708, 793, 831, 1005, 1084, 1165, 1252, 1334, 1421, 1499,
      1542, 1582, 1669,
    ],
  ],
  [
    'a fifth slower from the bar line in the middle on',
    '7/8[2+2+3] q q q. | e e q q e | q q e e e | q e e q.',
    150,
    '9-10',
    false,
    ['dragging@3'],
    [0, 76, 158, 279, 320, 361, 442, 521, 560, 659, 755, 803, 851, 900, 997, 1052, 1092],
  ],
  [
    'a fifth faster from a bar line on, without a click',
    '4/4 q (e) e q q | e e q h | q q (h) | e (e) e (e) q q | w',
    92,
    '9-10',
    true,
    ['rushing@3'],
    [1, 96, 131, 196, 258, 297, 324, 392, 524, 570, 730, 782, 836, 886, 937],
  ],
  [
    'slower from a bar line on, said once',
    '2/4 e q e | q q | 3{e e e} q | e. s q | (e) e q | e s s e e | h',
    76,
    '9-10',
    false,
    ['dragging@4'],
    [2, 40, 120, 163, 237, 315, 347, 369, 393, 474, 533, 560, 707, 756, 854, 900, 927, 954, 1000, 1052],
  ],
  [
    'broken off after two claps and begun again, beside the click',
    '3/4 q q (q) | h q | h q | q q (q) | h q',
    70,
    '7-8',
    false,
    ['started-again@4 5/2'],
    [-2, 84, 254, 429, 512, 682, 764, 856, 979, 1065, 1234, 1409],
  ],
  [
    'broken off in the second measure and begun again',
    '7/8 e e e e q e | q e e e e e | q q e e e | q q e e e | q e e e e e',
    187,
    '11-13',
    false,
    ['started-again@2 17/2'],
    [
      -2, 32, 62, 92, 128, 190, 220, 288, 318, 351, 382, 415, 493, 559, 589, 620, 653, 682, 716, 782, 846, 878, 910,
      940, 1006, 1070, 1101, 1134, 1165, 1231, 1262, 1294, 1324, 1355,
    ],
  ],
  [
    'slower from a bar line on, though the whole seems to hurry',
    '5/4 q q q q q | h. h | h q q q | q q q q q | q e e q h | q e e q h | h q q q | q e e q h | h. h | h q q q | ' +
      'h q q q',
    70,
    '11-13',
    true,
    ['dragging@7'],
    [
      -5, 79, 160, 242, 328, 408, 658, 821, 990, 1074, 1156, 1238, 1324, 1404, 1489, 1570, 1656, 1735, 1775, 1816, 1897,
      2061, 2141, 2182, 2222, 2303, 2466, 2675, 2779, 2882, 2982, 3085, 3136, 3186, 3292, 3497, 3807, 4014, 4223, 4325,
      4430, 4533, 4739, 4841, 4943,
    ],
  ],
  [
    'two measures in each other’s place',
    '4/4 e s s q e. s q | q (q) e e q | e q e h | s s s s e e q q | q q e e q | w',
    72,
    '9-10',
    true,
    ['lost-and-recovered@2'],
    [
      0, 41, 64, 86, 168, 232, 249, 332, 375, 460, 501, 670, 833, 874, 916, 998, 1021, 1042, 1064, 1082, 1123, 1168,
      1251, 1335, 1419, 1502, 1540, 1585, 1670,
    ],
  ],
  [
    'four notes in a row late: the tempo sagged',
    '4/4 q e e q q | e e e e h | q e e q q | q q h',
    90,
    '9-10',
    false,
    [],
    [0, 69, 101, 133, 202, 280, 311, 344, 377, 400, 534, 599, 631, 668, 732, 798, 871, 932],
  ],
  [
    'four notes in a row early and late, right again after them',
    '4/4 q e e q q | q q q e e | q q q q | q e e h | q q h',
    80,
    '9-10',
    false,
    ['lost-and-recovered@2'],
    [0, 75, 111, 151, 226, 301, 360, 462, 541, 547, 602, 674, 747, 823, 899, 978, 1011, 1052, 1201, 1278, 1351],
  ],
  [
    'two claps more than a measure do not show that one was left out',
    '3/4 q q q | q e e q | h q | q q (q)',
    80,
    '9-10',
    true,
    ['stopped-early@3'],
    [2, 73, 150, 224, 377],
  ],
];

it.each(TAKES)('%s: %s', (_what, text, bpm, ages, free, said, claps) => {
  const onsets = claps.map((hundredths) => hundredths / 100);
  const { misreadings } = resultOf({ pattern: patternOf(text), bpm, ages, free, onsets });
  const named = misreadings.filter(({ instead }) => !instead);
  expect(named.map(({ code, measure, beats }) => `${code}@${measure}${beats ? ` ${beats.n}/${beats.d}` : ''}`)).toEqual(
    said,
  );
});

it('counts another tempo from a bar line on as drift', () => {
  const { tempo, mark } = resultOf({
    pattern: patternOf('4/4 q e e q q | q q e e q | q e e q q | q q h'),
    bpm: 60,
    ages: '9-10',
    onsets: [0, 1, 1.5, 2, 3, 4, 5, 6, 6.5, 7, 8, 9.25, 9.875, 10.5, 11.75, 13, 14.25, 15.5],
  });
  expect(tempo.driftPct).toBeCloseTo(-20, 0);
  expect(mark).toBe(2);
});

it('counts a hurried last measure as no drift', () => {
  const { tempo, misreadings } = resultOf({
    pattern: patternOf('4/4 q e e q q | q q e e q | q e e q q | q e e q e e'),
    bpm: 60,
    ages: '9-10',
    onsets: [0, 1, 1.5, 2, 3, 4, 5, 6, 6.5, 7, 8, 9, 9.5, 10, 11, 12, 12.8, 13.2, 13.6, 14.4, 14.8],
  });
  expect(misreadings).toMatchObject([{ code: 'rushing', measure: 4, part: true }]);
  expect(tempo.driftPct).toBe(0);
});

it('finds something to say of any few claps', () => {
  const short = ['4/4 q q h | w', '4/4 w | q q q q', '2/4 h | h', '3/4 h. | q q q', '4/4 (w) | q (q) h'];
  const claps = fc.array(fc.integer({ min: 0, max: 700 }), { minLength: 1, maxLength: 4 });
  fc.assert(
    fc.property(fc.constantFrom(...short), claps, fc.boolean(), (text, hundredths, free) => {
      const onsets = hundredths.map((one) => one / 100).sort((a, b) => a - b);
      const { notes, accuracy } = resultOf({ pattern: patternOf(text), bpm: 70, ages: '7-8', free, onsets });
      expect(notes.length).toBeGreaterThan(0);
      expect(accuracy).toBeGreaterThanOrEqual(0);
    }),
    { numRuns: 300 },
  );
});
