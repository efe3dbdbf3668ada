import { describe, expect, it } from 'vitest';
import { readClassList } from './classList.ts';

const read = (text: string, known: readonly string[] = []) => readClassList(text, known);
const ABC = ['Ada', 'Bo', 'Cy'];

describe('a class list as people have it', () => {
  it.each([
    // A line each, with what stands around names on paper.
    ['Ada\nBo\nCy'],
    ['1. Ada\n2. Bo\n3. Cy'],
    ['1) Ada\n2) Bo\n3) Cy'],
    ['(1) Ada\n(2) Bo\n(3) Cy'],
    ['1: Ada\n2: Bo\n3: Cy'],
    ['1 Ada\n2 Bo\n3 Cy'],
    ['1 - Ada\n2 - Bo\n3 - Cy'],
    ['01. Ada\n02. Bo\n03. Cy'],
    ['1.Ada\n2.Bo\n3.Cy'],
    ['- Ada\n- Bo\n- Cy'],
    ['* Ada\n* Bo\n* Cy'],
    ['• Ada\n• Bo\n• Cy'],
    ['•\tAda\n•\tBo\n•\tCy'],
    ['– Ada\n– Bo\n– Cy'],
    ['☐ Ada\n☑ Bo\n☐ Cy'],
    ['1\tAda\n2\tBo\n3\tCy'],
    ['\tAda\n\tBo\n\tCy'],
    ['Ada,\nBo,\nCy'],
    ['Ada;\nBo;\nCy;'],
    ['Ada.\nBo.\nCy.'],
    ['Ada *\nBo ✓\nCy -'],
    ['Ada \n\n\n Bo\r\n\r\nCy\r\n'],
    ['Ada\rBo\rCy'],
    // In one line.
    ['Ada, Bo, Cy'],
    ['Ada,Bo,Cy'],
    ['Ada; Bo; Cy'],
    ['Ada\tBo\tCy'],
    // Surnames first.
    ['Mole, Ada\nQuay, Bo\nReed, Cy'],
    ['1. Mole, Ada\n2. Quay, Bo\n3. Reed, Cy'],
    ['• Mole, Ada\n• Quay, Bo\n• Reed, Cy'],
    ['Name\nMole, Ada\nQuay, Bo\nReed, Cy'],
    ['Class 4b\nMole, Ada\nQuay, Bo\nReed, Cy'],
    ['van der Mole, Ada\nQuay-Reed, Bo\nReed, Cy'],
    ['"Mole, Ada",4b\n"Quay, Bo",4b\n"Reed, Cy",4b'],
    // Tables.
    ['First,Last\nAda,Mole\nBo,Quay\nCy,Reed'],
    ['Last,First\nMole,Ada\nQuay,Bo\nReed,Cy'],
    ['Last, First\nMole, Ada\nQuay, Bo\nReed, Cy'],
    ['Surname;First name\nMole;Ada\nQuay;Bo\nReed;Cy'],
    ['Family name\tGiven name\nMole\tAda\nQuay\tBo\nReed\tCy'],
    ['First Name,Last Name,Email\nAda,Mole,a@x\nBo,Quay,b@x\nCy,Reed,c@x'],
    ['No,Names\n1,Ada\n2,Bo\n3,Cy'],
    ['#;Pupil;Class\n1;Ada;4b\n2;Bo;4b\n3;Cy;4b'],
    ['Nr;Nachname;Vorname\n1;Mole;Ada\n2;Quay;Bo\n3;Reed;Cy'],
    ['1,Ada,4b\n2,Bo,4b\n3,Cy,4b'],
    ['a@x,Ada\nb@x,Bo\nc@x,Cy'],
    ['Ada,Mole\nBo,Quay\nCy,Reed'],
    ['sep=;\nFirst name;Last name\nAda;Mole\nBo;Quay\nCy;Reed'],
    // What is above and below.
    ['Names:\nAda\nBo\nCy'],
    ['Class 4b\nAda\nBo\nCy'],
    ['Year 4: Oak\n\nAda\nBo\nCy\n\nTotal: 3'],
    ['CHILDREN\nAda\nBo\nCy'],
  ])('%j', (text) => expect(read(text).names).toEqual(ABC));

  it.each([
    ['Ada M.\nBo', ['Ada M.', 'Bo']],
    ['Jean-Luc\nO’Neill\nMary Ann', ['Jean-Luc', 'O’Neill', 'Mary Ann']],
    ['M-07\nM-08', ['M-07', 'M-08']],
    ['Ada Mole\nBo Quay', ['Ada Mole', 'Bo Quay']],
    ['Zoé\nÇem\nÅsa', ['Zoé', 'Çem', 'Åsa']],
    ['', []],
    [' \n\t\n', []],
    ['12\n13', []],
  ])('%j has %j', (text, names) => expect(read(text).names).toEqual(names));

  it('two children of one name are both kept, and said; who is in the class is left out once', () => {
    expect(read('Ada\nBo\nada\nAda')).toMatchObject({ names: ['Ada', 'Bo', 'ada', 'Ada'], alike: ['ada', 'Ada'] });
    expect(read('Ada\nBo\nAda', ['ada'])).toMatchObject({ names: ['Bo', 'Ada'], alike: [], twice: ['Ada'] });
    expect(read('Ada\nAda', ['Ada', 'Ada', 'Bo'])).toMatchObject({ names: [], twice: ['Ada', 'Ada'] });
  });
  it('what was left out is listed', () => {
    expect(read('Class 4b\nName\nAda\n12\nTotal: 1')).toMatchObject({
      names: ['Ada'],
      dropped: ['Class 4b', 'Total: 1', '12'],
      heading: 'Name',
    });
  });
});
