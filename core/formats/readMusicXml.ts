import { t } from '../words/say.ts';
import { SaxesParser } from 'saxes';
import { type Fraction, frac, mul } from '../rhythm/fraction.ts';
import { LARGEST_UPPER, LOWER_NUMBERS, type Meter } from '../rhythm/meter.ts';
import { type Dots, lengthOf } from '../rhythm/value.ts';
import { type MeasureMarks, type NoteFacts, PartReader } from './musicXmlPart.ts';
import { LETTER_OF_TYPE, OTHER_TYPES, WRITTEN_BY } from './musicXmlNames.ts';
import { BadFile, Budget, Leavings, type Piece, type ReadFile, reading } from './piece.ts';
import { timesOf } from './timesOf.ts';

/** A score is some seven tags deep. */
const DEEPEST = 60;
/** Measures of all parts together, as they stand in the file: more take seconds, so it is said at once. */
const MOST_WRITTEN = 20_000;
/** Letters are read in pieces, so that what is wrong at the beginning is found at the beginning. */
const PIECE = 65_536;

/**
 * Reads MusicXML, by parts or by time, of any version: every part and voice with its rhythm.
 * @param text  the whole file; entities that it declares itself are not expanded
 */
export function readMusicXml(text: string): ReadFile {
  return reading('musicxml', text.length, () => {
    const measures = text.match(/<measure[\s/>]/g)?.length ?? 0;
    if (measures > MOST_WRITTEN)
      throw new BadFile(t`it has ${measures} measures, and at most ${MOST_WRITTEN} are read; split it`);
    return [new ScoreReader().read(text)];
  });
}

type Attributes = Readonly<Record<string, string>>;

const NOTE_NOTATIONS: Readonly<Record<string, 'ornaments' | 'articulations'>> = {
  ornaments: 'ornaments',
  articulations: 'articulations',
  technical: 'articulations',
};
const JUMPS = ['dacapo', 'dalsegno', 'tocoda', 'fine'];
const FLAT = ['bb', 'b', '', '#', '##'];

function number(text: string, name: string): Fraction {
  const found = /^\s*(-?\d{1,12})(?:\.(\d{1,9}))?\s*$/.exec(text);
  if (!found) throw new BadFile(t`its ${name} “${text.slice(0, 20)}” is no number`);
  const decimals = found[2] ?? '';
  return frac(Number(`${found[1]}${decimals}`), 10 ** decimals.length);
}

function whole(text: string, name: string): number {
  const { n, d } = number(text, name);
  if (d !== 1) throw new BadFile(t`its ${name} “${text.slice(0, 20)}” is no whole number`);
  return n;
}

function emptyNote(): NoteFacts & { dots: number; type: string; normal: number; actual: number } {
  return {
    voice: '1',
    staff: '',
    rest: false,
    measureRest: false,
    chord: false,
    grace: false,
    cue: false,
    pitched: false,
    pitch: '',
    letter: '',
    duration: undefined,
    value: undefined,
    written: undefined,
    ratio: undefined,
    tieStart: false,
    tieStop: false,
    groupStarts: 0,
    groupStops: 0,
    label: undefined,
    dots: 0,
    type: '',
    normal: 0,
    actual: 0,
  };
}

/** Follows the tags of a score from the first to the last. */
class ScoreReader {
  private readonly budget = new Budget();
  private readonly path: string[] = [];
  private text = '';
  private readonly parts = new Map<string, PartReader>();
  private readonly names = new Map<string, string>();
  private readonly groups = new Map<string, string>();
  private readonly letters = new Map<number, string>();
  private readonly leavings = new Leavings();
  private part: PartReader | undefined;
  private partId: string | undefined;
  private measure: MeasureMarks | undefined;
  private note = emptyNote();
  private alter = 0;
  private repeatKind = '';
  private lyric = { name: '', text: '' };
  private time: { beats: string[]; types: string[]; symbol: string } = { beats: [], types: [], symbol: '' };
  private metronome = { unit: '', dots: 0, minute: '' };
  private title = '';
  private quarters: number | undefined;
  private literal = false;

  read(text: string): Piece {
    const parser = new SaxesParser({});
    parser.on('error', (error) => {
      throw new BadFile(
        t`the XML is broken at line ${parser.line}:
          ${error.message.replace(/^\d+:\d+: /, '').replace(/\.$/, '')}`,
      );
    });
    parser.on('opentag', ({ name, attributes }) => {
      this.open(name.replace(/^.*:/, ''), attributes);
    });
    parser.on('text', (part) => {
      this.text += part;
    });
    parser.on('cdata', (part) => {
      this.text += part;
    });
    parser.on('closetag', ({ name }) => {
      this.close(name.replace(/^.*:/, ''));
    });
    for (let at = 0; at < text.length; at += PIECE) parser.write(text.slice(at, at + PIECE));
    parser.close();
    return this.piece();
  }

  private piece(): Piece {
    const parts = [...this.parts].map(([id, part]) => ({
      id,
      name: this.names.get(id)?.trim() || id,
      voices: part.finished(this.literal, this.letters).map((voice) => ({ ...voice, ...this.comesAgain(id) })),
    }));
    if (parts.every(({ voices }) => voices.length === 0)) throw new BadFile(t`there are no measures in it`);
    return {
      title: this.title.trim(),
      parts,
      leftOut: this.leavings.counts,
      ...(this.quarters === undefined ? {} : { quarters: this.quarters }),
    };
  }

  /** So many measures of a part come again, where this program wrote that. */
  private comesAgain(id: string): { ostinato?: number } {
    const found = this.literal ? /^ostinato (\d{1,3})$/.exec(this.groups.get(id) ?? '') : null;
    return found ? { ostinato: Number(found[1]) } : {};
  }

  private open(name: string, attributes: Attributes): void {
    if (this.path.length === 0 && name !== 'score-partwise' && name !== 'score-timewise')
      throw new BadFile(t`it is XML, but no MusicXML score: it begins with <${name.slice(0, 40)}>`);
    if (this.path.length >= DEEPEST)
      throw new BadFile(t`its tags stand more than ${DEEPEST} deep in each other: that is no score`);
    const parent = this.path.at(-1);
    this.path.push(name);
    this.text = '';
    if (name === 'part' || (name === 'measure' && parent !== 'metronome')) this.enter(name, attributes);
    else if (name === 'score-part') this.partId = attributes['id'];
    else if (this.part) this.openInMeasure(name, attributes, parent);
  }

  /** Into a part or a measure; inside both, the measure of that part begins. */
  private enter(name: string, attributes: Attributes): void {
    if (name === 'part') this.partId = attributes['id'] ?? '';
    else this.measure = measureMarks(attributes);
    if (this.path.length !== 3) return;
    const id = this.partId ?? '';
    let part = this.parts.get(id);
    if (!part) this.parts.set(id, (part = new PartReader(this.budget)));
    this.part = part;
    part.begin({ ...this.measure });
  }

  private openInMeasure(name: string, attributes: Attributes, parent: string | undefined): void {
    const { note } = this;
    switch (name) {
      case 'note':
        this.note = emptyNote();
        break;
      case 'rest':
        note.rest = true;
        note.measureRest = attributes['measure'] === 'yes';
        break;
      case 'chord':
      case 'grace':
      case 'cue':
        if (parent === 'note') note[name] = true;
        break;
      case 'pitch':
      case 'unpitched':
        note.pitched = name === 'pitch';
        note.pitch = '';
        this.alter = 0;
        break;
      case 'tie':
      case 'tied':
        if (attributes['type'] === 'start') note.tieStart = true;
        if (attributes['type'] === 'stop') note.tieStop = true;
        break;
      case 'tuplet':
        if (attributes['type'] === 'start') note.groupStarts++;
        if (attributes['type'] === 'stop') note.groupStops++;
        break;
      case 'slur':
        if (attributes['type'] === 'start') this.leave('slurs');
        break;
      case 'fermata':
        this.leave('articulations');
        break;
      default:
        this.openMark(name, attributes, parent);
    }
  }

  private openMark(name: string, attributes: Attributes, parent: string | undefined): void {
    switch (name) {
      case 'lyric':
        this.lyric = { name: attributes['name'] ?? '', text: '' };
        break;
      case 'time':
        this.time = { beats: [], types: [], symbol: attributes['symbol'] ?? '' };
        break;
      case 'measure-repeat':
        this.repeatKind = attributes['type'] ?? 'start';
        break;
      case 'senza-misura':
        this.part!.free = true;
        break;
      case 'repeat':
        this.repeat(attributes);
        break;
      case 'ending':
        this.ending(attributes);
        break;
      case 'metronome':
        this.metronome = { unit: '', dots: 0, minute: '' };
        break;
      case 'beat-unit-dot':
        this.metronome.dots++;
        break;
      case 'sound':
        this.sound(attributes);
        break;
      default:
        this.count(name, attributes, parent);
    }
  }

  private count(name: string, attributes: Attributes, parent: string | undefined): void {
    const notation = parent === undefined ? undefined : NOTE_NOTATIONS[parent];
    if (notation) this.leave(notation);
    else if (parent === 'dynamics' || (name === 'wedge' && attributes['type'] !== 'stop'))
      this.leavings.add('dynamics');
    else if (name === 'words') this.leavings.add('words');
    else if (name === 'harmony' || name === 'figured-bass') this.leavings.add('chord-symbols');
  }

  private leave(kind: 'slurs' | 'ornaments' | 'articulations'): void {
    if (this.note.grace || !this.part) return;
    this.part.voiceLeavings(this.note).add(kind);
  }

  private repeat(attributes: Attributes): void {
    if (attributes['direction'] === 'forward') this.part!.mark({ repeatStart: true });
    else if (attributes['direction'] === 'backward') {
      const times = Number(attributes['times'] ?? 2);
      this.part!.mark({ repeatEnd: Number.isInteger(times) && times > 2 ? times : 2 });
    }
  }

  private ending(attributes: Attributes): void {
    if (attributes['type'] === 'start') {
      const times = timesOf(attributes['number'] ?? '1');
      if (times.length > 0) this.part!.mark({ ending: times });
    } else this.part!.mark({ endingStops: true });
  }

  private sound(attributes: Attributes): void {
    if (JUMPS.some((jump) => attributes[jump] !== undefined)) this.leavings.add('jumps');
    const tempo = Number(attributes['tempo']);
    if (tempo > 0 && Number.isFinite(tempo)) this.quarters ??= tempo;
  }

  private close(name: string): void {
    this.path.pop();
    const { text, part } = this;
    const parent = this.path.at(-1);
    this.text = '';
    if (name === 'part' || name === 'measure') this.leaveMeasure(name);
    else if (name === 'part-name' && parent === 'score-part') this.names.set(this.partId ?? '', text);
    else if (name === 'group' && parent === 'score-part') this.groups.set(this.partId ?? '', text.trim());
    else if (name === 'work-title') this.title = text;
    else if (name === 'movement-title') this.title ||= text;
    else if (name === 'software') this.literal ||= text.trim() === WRITTEN_BY;
    else if (part) this.closeInMeasure(part, name, text.trim(), parent, text);
  }

  private leaveMeasure(name: string): void {
    if (this.part && this.path.length === 2) {
      this.part.end();
      this.part = undefined;
    }
    if (name === 'part') this.partId = undefined;
    else this.measure = undefined;
  }

  private closeInMeasure(
    part: PartReader,
    name: string,
    text: string,
    parent: string | undefined,
    verbatim: string,
  ): void {
    const { note } = this;
    switch (name) {
      case 'note':
        this.closeNote(part);
        break;
      case 'duration':
        if (parent === 'note') note.duration = number(text, 'duration');
        else if (parent === 'backup') part.move(part.lengthOf(mul(number(text, 'duration'), frac(-1))));
        else if (parent === 'forward') part.move(part.lengthOf(number(text, 'duration')));
        break;
      case 'divisions':
        part.divisions = number(text, 'divisions');
        if (part.divisions.n <= 0)
          throw new BadFile(t`its divisions are “${text.slice(0, 20)}”; a quarter has at least one`);
        break;
      case 'voice':
        if (parent === 'note') note.voice = text || '1';
        break;
      case 'staff':
        if (parent === 'note') note.staff = text;
        break;
      case 'type':
        if (parent === 'note') note.type = text;
        break;
      case 'dot':
        if (parent === 'note') note.dots++;
        break;
      case 'actual-notes':
        if (parent === 'time-modification') note.actual = whole(text, t`group of notes`);
        break;
      case 'normal-notes':
        if (parent === 'time-modification') note.normal = whole(text, t`group of notes`);
        break;
      case 'text':
        if (parent === 'lyric') this.lyric.text += verbatim;
        break;
      case 'lyric':
        if (this.lyric.name === 'label') note.label ??= this.lyric.text;
        else if (this.lyric.name !== 'counts') part.voiceLeavings(note).add('lyrics');
        break;
      default:
        this.closeOther(part, name, text, parent);
    }
  }

  private closeOther(part: PartReader, name: string, text: string, parent: string | undefined): void {
    const { note } = this;
    switch (name) {
      case 'measure-repeat':
        part.repeated = this.repeatKind === 'start' ? Math.max(1, whole(text || '1', t`repeated measures`)) : 0;
        break;
      case 'multiple-rest': {
        const rests = whole(text || '1', t`number of measures of rest`);
        if (rests > 1) part.mark({ restRun: rests });
        break;
      }
      case 'rehearsal':
        if (text !== '') {
          part.mark({ letter: text });
          this.letters.set(part.infos.length, text);
        }
        break;
      case 'step':
      case 'display-step':
        note.pitch += text;
        if (name === 'step') note.letter = text.slice(0, 1);
        break;
      case 'octave':
      case 'display-octave':
        note.pitch += ` ${text}`;
        break;
      case 'alter':
        if (parent === 'pitch') {
          this.alter = Math.round(Number(text)) || 0;
          note.pitch += ` ${text}`;
        }
        break;
      case 'pitch':
        note.letter += FLAT[this.alter + 2] ?? '';
        break;
      case 'beats':
        if (parent === 'time') this.time.beats.push(text);
        break;
      case 'beat-type':
        if (parent === 'time') this.time.types.push(text);
        break;
      case 'time': {
        const meter = meterOf(this.time, this.literal);
        if (meter) part.setMeter(meter);
        break;
      }
      case 'beat-unit':
        this.metronome.unit ||= text;
        break;
      case 'per-minute':
        this.metronome.minute = text;
        break;
      case 'metronome':
        this.closeMetronome();
        break;
    }
  }

  private closeMetronome(): void {
    const { unit, dots, minute } = this.metronome;
    const letter = LETTER_OF_TYPE[unit];
    const perMinute = Number(/[\d.]+/.exec(minute)?.[0]);
    if (!letter || !(perMinute > 0)) return;
    const { n, d } = lengthOf({ base: letter, dots: Math.min(2, dots) as Dots });
    if (this.quarters === undefined) this.quarters = (perMinute * n * 4) / d;
    else if (this.path.length > 0 && Math.abs(this.quarters - (perMinute * n * 4) / d) > 0.01)
      this.leavings.add('tempo-marks');
  }

  private closeNote(part: PartReader): void {
    const { note } = this;
    const letter = LETTER_OF_TYPE[note.type];
    const other = OTHER_TYPES[note.type];
    const dotted = (length: Fraction) => mul(length, frac(2 ** (note.dots + 1) - 1, 2 ** note.dots));
    if (note.actual > 0 && note.normal > 0) note.ratio = { n: note.actual, m: note.normal };
    if (letter && note.dots <= 2) note.value = { base: letter, dots: note.dots as Dots };
    const plain = letter ? lengthOf({ base: letter, dots: 0 }) : other && frac(other[0], other[1]);
    const { ratio } = note;
    note.written = plain && (ratio ? mul(dotted(plain), frac(ratio.m, ratio.n)) : dotted(plain));
    part.note(note);
    this.note = emptyNote();
  }
}

function measureMarks(attributes: Attributes): MeasureMarks {
  const printed = attributes['number'] ?? '';
  return {
    ...(/^\d{1,9}$/.test(printed) ? { number: Number(printed) } : {}),
    ...(attributes['implicit'] === 'yes' ? { uncounted: true } : {}),
  };
}

/** One or several pairs: "3+2" over 8, or 2/4 + 3/8, which is 7/8 in groups of 2, 2 and 3. */
function meterOf(
  { beats, types, symbol }: { beats: string[]; types: string[]; symbol: string },
  literal: boolean,
): Meter | undefined {
  const pairs = beats.flatMap((text, i) => {
    const lower = Number(types[i]);
    const groups = text.split('+').map((part) => Number(part.trim()));
    return LOWER_NUMBERS.includes(lower) && groups.every((size) => Number.isInteger(size) && size > 0)
      ? [{ lower, groups }]
      : [];
  });
  if (pairs.length === 0 || pairs.length < beats.length) return undefined;
  const lower = Math.max(...pairs.map((pair) => pair.lower));
  const groups = pairs.flatMap((pair) => {
    const factor = lower / pair.lower;
    if (factor === 1) return pair.groups;
    return pair.groups.flatMap((size) => Array.from({ length: size }, () => factor));
  });
  const upper = groups.reduce((a, b) => a + b, 0);
  if (upper > LARGEST_UPPER) return undefined;
  const single = groups.length === 1 && !(literal && symbol === 'normal');
  return single ? { upper, lower } : { upper, lower, groups };
}
