import { describe, expect, it } from 'vitest';
import type { ClassCopy } from '../../../../contract/classCopy.ts';
import { partKey } from '../../../../core/records/partKey.ts';
import { piecesOf, readCopy, renamed, soundIn } from './readCopy.ts';

const id = (n: number) => `${String(n).padStart(8, '0')}-0000-4000-8000-000000000000`;
const NEW = id(99);

const take = (n: number, childId: string, text = '4/4 q q h') => ({
  id: id(n),
  childId,
  patternId: id(5),
  patternKey: id(5),
  title: 'Steps',
  patternText: text,
  bpm: 60,
  onsets: [0, 1, 2],
  feet: null,
  releases: null,
  free: false,
  source: 'tap' as const,
  takenAt: n,
  override: null,
  overrideReason: '',
  corrected: false,
});

const COPY: ClassCopy = {
  kind: 'clapboard-class',
  version: 1,
  savedAt: 1,
  settings: { name: 'Gulls', ages: '9-10', school: 'numbers', rests: null },
  termFrom: 4,
  children: [{ id: id(1), name: 'Ada', adaptations: null }],
  patterns: [{ id: id(5), title: 'Steps', text: '4/4 q q h' }],
  terms: [
    { id: id(7), title: 'Second', fromAt: 2, untilAt: 4, names: [], records: records() },
    { id: id(6), title: 'First', fromAt: 0, untilAt: 2, names: ['Ada'], records: records() },
  ],
  paper: [{ id: id(8), title: 'Quiz', outOf: 10, takenAt: 1, points: { [id(1)]: 4 } }],
  practice: [],
  takes: [take(10, id(1)), take(11, id(1))],
  lineUps: [],
  sounds: [{ takeId: id(10), mime: 'audio/webm', until: 9, base64: btoa('claps') }],
};
function records() {
  return { children: [id(1)], patterns: [], marks: [], elements: [], paper: [] };
}

describe('a class in a file', () => {
  it('is read, or it is said why not', () => {
    expect(readCopy(JSON.stringify(COPY))).toEqual(COPY);
    expect(readCopy('{"kind":')).toContain('cannot be read');
    expect(readCopy('null')).toContain('no class in this file');
    expect(readCopy(JSON.stringify({ ...COPY, version: 2 }))).toContain('newer');
    expect(readCopy(JSON.stringify({ ...COPY, takes: [{}] }))).toContain('changed after it was saved');
  });

  it('gets names of its own everywhere, the same each time', () => {
    const own = renamed(COPY, NEW, []);
    const text = JSON.stringify(own);
    for (const n of [1, 5, 6, 7, 8, 10, 11]) expect(text).not.toContain(id(n));
    expect(own).toEqual(renamed(COPY, NEW, []));
    expect(renamed(COPY, id(98), []).children[0]!.id).not.toBe(own.children[0]!.id);
    const [child] = own.children;
    expect(Object.keys(own.paper[0]!.points)).toEqual([child!.id]);
    expect(own.terms[1]!.records.children).toEqual([child!.id]);
    expect(own.takes.map(({ childId, patternKey }) => [childId, patternKey])).toEqual([
      [child!.id, own.patterns[0]!.id],
      [child!.id, own.patterns[0]!.id],
    ]);
    expect(own.sounds[0]!.takeId).toBe(own.takes[0]!.id);
  });

  it('keeps takes of one part together, and with the one that was played beside them', () => {
    const [first, second] = COPY.takes;
    const pair = [
      { ...first!, part: 'clap', patternKey: partKey(first!.patternId!, 'clap'), besideId: second!.id },
      { ...second!, part: 'stamp', patternKey: partKey(first!.patternId!, 'stamp'), besideId: first!.id },
    ];
    const own = renamed({ ...COPY, takes: pair }, NEW, []);
    expect(own.takes.map(({ patternKey }) => patternKey)).toEqual(
      ['clap', 'stamp'].map((part) => partKey(own.patterns[0]!.id, part)),
    );
    expect(own.takes.map(({ besideId }) => besideId)).toEqual([own.takes[1]!.id, own.takes[0]!.id]);
  });

  it('uses a pattern that is there word for word', () => {
    const known = [
      { id: id(50), title: 'Steps', text: '4/4 h h' },
      { id: id(51), title: 'Steps', text: '4/4 q q h' },
    ];
    expect(renamed(COPY, NEW, known).takes[0]!.patternId).toBe(id(51));
  });

  it('is cut into pieces that are not too large, terms first and children together', () => {
    const long = '4/4 '.padEnd(60_000, ' ') + 'q q h';
    const takes = [1, 2, 1, 2, 1, 2, 1].map((child, n) => take(20 + n, id(child), long));
    const pieces = piecesOf({ ...COPY, takes });
    expect(pieces.every((piece) => JSON.stringify(piece).length < 300_000)).toBe(true);
    expect(pieces[0]!.terms!.map(({ title }) => title)).toEqual(['First', 'Second']);
    expect(pieces[1]).toEqual({ termFrom: 4 });
    const order = pieces.flatMap((piece) => piece.takes ?? []).map(({ childId }) => childId);
    expect(order).toEqual([...order].sort());
    expect(order).toHaveLength(7);
    expect(pieces.flatMap((piece) => piece.paper ?? [])).toEqual(COPY.paper);
  });

  it('holds recordings as they were', async () => {
    const blob = soundIn(COPY.sounds[0]!);
    expect([blob.type, await blob.text()]).toEqual(['audio/webm', 'claps']);
  });
});
