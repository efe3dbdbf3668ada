import { describe, expect, it } from 'vitest';
import type { ClassRecords } from '../../../../contract/records.ts';
import { readClassList, textOf } from '../../../domain/classList.ts';
import { knownChildren } from '../../../domain/knownChildren.ts';
import { columnsOf, isElement, meanMark, practises, rowsOf } from './gridCells.ts';
import { marksCsv } from './marksCsv.ts';
import { pointsOf } from '../paper/paperKeys.ts';

const encode = (text: string, ...mark: number[]) => new Uint8Array([...mark, ...Buffer.from(text, 'utf8')]);

describe('a class list', () => {
  it.each([
    ['Ada\nBo\nCy', ['Ada', 'Bo', 'Cy']],
    ['Ada, Bo, Cy', ['Ada', 'Bo', 'Cy']],
    ['Ada;Bo;Cy', ['Ada', 'Bo', 'Cy']],
    ['  Ada  \r\n\r\nBo\r\n', ['Ada', 'Bo']],
    ['First name,Last name\nAda,Mole\nBo,Quay', ['Ada', 'Bo']],
    ['Last name\tFirst name\nMole\tAda\nQuay\tBo', ['Ada', 'Bo']],
    ['No;Name\n1;Ada\n2;Bo', ['Ada', 'Bo']],
    ['1;Ada\n2;Bo', ['Ada', 'Bo']],
    ['sep=;\nNachname;Vorname\nMole;Zoé', ['Zoé']],
    ['"Ada, called Ad"\n"Bo ""B"""', ['Ada, called Ad', 'Bo "B"']],
    ['\uFEFFName\nAda', ['Ada']],
    ['M-07\nM-08', ['M-07', 'M-08']],
    ['', []],
  ])('%j has %j', (text, names) => expect(readClassList(text, []).names).toEqual(names));
  it('leaves out who is there, and what is no name', () => {
    const read = readClassList(`ada\nBo\nBO\n${'x'.repeat(61)}\n${'y'.repeat(60)}`, ['Ada']);
    expect(read).toMatchObject({ names: ['Bo', 'BO', 'y'.repeat(60)], twice: ['ada'] });
    expect(read.tooLong).toHaveLength(1);
    expect(readClassList('Vorname\nAda', []).heading).toBe('Vorname');
  });
  it.each([
    [encode('Zoé')],
    [encode('Zoé', 0xef, 0xbb, 0xbf)],
    [new Uint8Array([0xff, 0xfe, ...Buffer.from('Zoé', 'utf16le')])],
    [new Uint8Array([0xfe, 0xff, ...Buffer.from('Zoé', 'utf16le').swap16()])],
    [new Uint8Array(Buffer.from('Zoé', 'latin1'))],
  ])('is read in any encoding a spreadsheet writes: %j', (bytes) =>
    expect(readClassList(textOf(bytes), []).names).toEqual(['Zoé']),
  );
});

const RECORDS: ClassRecords = {
  children: ['a', 'b'],
  patterns: [
    { key: 'p', title: 'First', lastAt: 1 },
    { key: 'q', title: '=Second', lastAt: 5 },
  ],
  marks: [
    { child: 0, pattern: 0, takes: 2, best: 4, last: 2, average: 3 },
    { child: 0, pattern: 1, takes: 1, best: 3, last: 3, average: 3.5 },
    { child: 1, pattern: 1, takes: 1, best: 0, last: 0, average: 0 },
  ],
  elements: [{ child: 1, element: 'tie', heard: 2, right: 1, state: 'new', lastSeen: 3 }],
  paper: [{ id: 'quiz', title: 'Quiz', outOf: 10, takenAt: 3, points: [{ child: 1, points: 7.5 }] }],
};
const CHILDREN = [
  { id: 'a', name: 'Ada', adaptations: null },
  { id: 'b', name: '-Bo', adaptations: null },
];

describe('the grid', () => {
  it('has the newest column first, and the mark that counts', () => {
    expect(columnsOf(RECORDS, 'patterns', 'quarters').map(({ title }) => title)).toEqual(['=Second', 'Quiz', 'First']);
    const marks = (counts: 'best' | 'last' | 'average' | undefined) =>
      rowsOf({ children: CHILDREN, ...(counts ? { counts } : {}) }, RECORDS, 'patterns')[0]!.cells['p']!.value;
    expect([marks('best'), marks('last'), marks('average'), marks(undefined)]).toEqual([4, 2, 3, 4]);
    const rows = rowsOf({ children: CHILDREN }, RECORDS, 'patterns');
    expect(rows.map(meanMark)).toEqual([3.5, 0]);
    expect(rows[1]!.cells['quiz']).toEqual({ kind: 'paper', value: 7.5, outOf: 10, scale: null });
    expect(meanMark({ childId: 'c', name: 'Cy', cells: {} })).toBeUndefined();
  });
  it('of elements has those somebody was heard in', () => {
    expect(columnsOf(RECORDS, 'elements', 'quarters')).toEqual([{ id: 'tie', title: 'tie', kind: 'element' }]);
    const [ada, bo] = rowsOf({ children: CHILDREN }, RECORDS, 'elements');
    expect([ada!.cells['tie'], bo!.cells['tie']]).toMatchObject([undefined, { state: 'new', heard: 2 }]);
    expect(knownChildren(RECORDS).map(({ mastery }) => mastery.length)).toEqual([0, 1]);
    expect([isElement('tie'), isElement('tune'), isElement(undefined)]).toEqual([true, false, false]);
    expect([practises('4/4 q~ q h', 'tie'), practises('4/4 w', 'tie'), practises('x', 'tie')]).toEqual([
      true,
      false,
      false,
    ]);
  });
  it.each([
    [',', `\uFEFFChild,Mean,'=Second,Quiz,First\r\nAda,3.50,3,,4\r\n'-Bo,0.00,0,7.5,\r\n`],
    [';', `\uFEFFChild;Mean;'=Second;Quiz;First\r\nAda;3,50;3;;4\r\n'-Bo;0,00;0;7,5;\r\n`],
  ] as const)('as a table with “%s” opens in a spreadsheet, and nothing in it is a formula', (separator, text) =>
    expect(
      marksCsv(
        columnsOf(RECORDS, 'patterns', 'quarters'),
        rowsOf({ children: CHILDREN }, RECORDS, 'patterns'),
        '0-4',
        separator,
      ),
    ).toBe(text),
  );
  it.each([
    ['6-1', 'Ada,2.50,3,,2', `'-Bo,6.00,6,7.5,`],
    ['1-5', 'Ada,4.50,4,,5', `'-Bo,1.00,1,7.5,`],
    ['A-D,F', 'Ada,A,B,,A', `'-Bo,F,F,7.5,`],
    [['low', 'mid', 'far', 'high', 'top'], 'Ada,top,high,,top', `'-Bo,low,low,7.5,`],
  ] as const)('has the marks of %j, and numbers where they are numbers', (scale, ada, bo) => {
    const rows = rowsOf({ children: CHILDREN, scale: scale as never }, RECORDS, 'patterns');
    const text = marksCsv(columnsOf(RECORDS, 'patterns', 'quarters'), rows, scale, ',');
    expect(text.split('\r\n').slice(1, 3)).toEqual([ada, bo]);
  });
  it('of elements has no mean, and no state that is taken for another', () => {
    const rows = rowsOf({ children: CHILDREN }, RECORDS, 'elements');
    expect(marksCsv(columnsOf(RECORDS, 'elements', 'quarters'), rows, '0-4', ',')).toBe(
      `\uFEFFChild,tie\r\nAda,\r\n'-Bo,hardly heard\r\n`,
    );
  });
  it.each([
    ['7', 7],
    [' 7,5 ', 7.5],
    ['', null],
    [undefined, null],
    ['11', undefined],
    ['-1', undefined],
    ['x', undefined],
  ])('points typed as %j are %j of 10', (typed, points) => expect(pointsOf(typed, 10)).toBe(points));
});
