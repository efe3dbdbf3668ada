import { t } from '../words/say.ts';
import { type Fraction, compare, frac, mul } from '../rhythm/fraction.ts';
import { LARGEST_UPPER, LOWER_NUMBERS, type Meter, meterLength } from '../rhythm/meter.ts';
import { accidentalsOf } from './abcKey.ts';
import { plainWords } from './abcText.ts';
import { type AbcEvent, AbcVoice } from './abcVoice.ts';
import { WRITTEN_BY } from './musicXmlNames.ts';
import { BadFile, Budget, Leavings, type Piece, type ReadFile, reading } from './piece.ts';
import { timesOf } from './timesOf.ts';

/**
 * Reads ABC 2.1: every tune of a file with its voices.
 * @param text  the whole file
 */
export function readAbc(text: string): ReadFile {
  return reading('abc', text.length, () => {
    const budget = new Budget();
    const pieces = tunesOf(text).flatMap(({ file, lines }) => new TuneReader(file, budget).read(lines) ?? []);
    if (pieces.length === 0) throw new BadFile(t`there is no tune in it: a tune begins with X: and K: and has notes`);
    return pieces;
  });
}

const FIELD = /^([A-Za-z+]):(?!\|)/;

/** Text between `%%begin…` and `%%end…` is no music, whatever it looks like: one line in its stead says so. */
function withoutBlocks(lines: readonly string[]): string[] {
  let block: string | undefined;
  return lines.flatMap((line) => {
    const [, side, name] = /^\s*%%\s*(begin|end)(\S*)/.exec(line) ?? [];
    const inside = block !== undefined;
    if (!inside && side === 'begin') block = name;
    else if (inside && side === 'end' && name === block) block = undefined;
    if (inside) return [];
    return side === 'begin' ? ['%%text'] : [line];
  });
}

/** The lines of each tune, and those of the file before it, which hold for all. */
function tunesOf(text: string): { file: readonly string[]; lines: readonly string[] }[] {
  const lines = withoutBlocks(text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/));
  const numbered = lines.some((line) => /^\s*X:/.test(line));
  const file: string[] = [];
  const tunes: string[][] = [];
  let tune: string[] | undefined;
  for (const raw of lines) {
    const line = raw.trimStart();
    if (line.startsWith('X:')) {
      tunes.push((tune = [line]));
    } else if (line.trim() === '') {
      // Without numbers there is one tune, and empty lines are only air.
      if (numbered) tune = undefined;
    } else if (tune) tune.push(line);
    else if (numbered) file.push(line);
    else tunes.push((tune = [line]));
  }
  const shared = file.filter((line) => /^[LMIU]:|^%%/.test(line));
  return tunes.map((own) => ({ file: shared, lines: own }));
}

const DYNAMICS = /^(p{1,4}|f{1,4}|m[pf]|sfz|[<>][()]|(de)?crescendo[()]|diminuendo[()])$/;
const JUMPS = /^(segno|coda|D\.[CS]\.|dacapo|dacoda|fine|D\.S\..*|D\.C\..*)$/i;
const ACCIDENTALS: Readonly<Record<string, number>> = { '^': 1, '^^': 2, _: -1, __: -2, '=': 0 };
const FLAT = ['bb', 'b', '', '#', '##'];

/** Follows one tune from its first line to its last. */
class TuneReader {
  private title = '';
  private quarters: number | undefined;
  private unit: Fraction | undefined;
  private meter: Meter | undefined | 'unsaid' = 'unsaid';
  private key: ReadonlyMap<string, number> = new Map();
  private literal = false;
  private inBody = false;
  private readonly voices = new Map<string, AbcVoice>();
  private readonly names = new Map<string, string>();
  private readonly leavings = new Leavings();
  private voice: AbcVoice | undefined;
  private line = '';
  private i = 0;
  /** Accidentals hold to the bar. */
  private inMeasure = new Map<string, number>();
  private label: string | undefined;
  /** What `+:` goes on with. */
  private lastField = '';
  private firstVoice: string | undefined;
  private unreadMeter: string | undefined;

  constructor(
    file: readonly string[],
    private readonly budget: Budget,
  ) {
    budget.use('pieces');
    for (const line of file) if (!line.startsWith('%%')) this.field(line[0]!, line.slice(2));
  }

  read(lines: readonly string[]): Piece | undefined {
    for (const raw of lines) {
      if (raw.startsWith('%%')) {
        this.instruction(raw.slice(2));
        continue;
      }
      const line = raw.replace(/(^|[^\\])%.*$/, '$1');
      const field = FIELD.exec(line);
      if (field) this.field(field[1]!, line.slice(2));
      else if (line.trim() !== '') this.music(line);
    }
    const voices = [...this.voices.values()].flatMap((voice) => {
      const finished = voice.finished();
      const name = this.names.get(voice.id);
      return finished ? [{ ...finished, ...(name === undefined ? {} : { name }) }] : [];
    });
    if (voices.length === 0) return undefined;
    const name = this.title || t`Tune`;
    return {
      title: this.title,
      parts: [{ id: '1', name, voices }],
      voicesAreParts: true,
      leftOut: this.leavings.counts,
      ...(this.quarters === undefined ? {} : { quarters: this.quarters }),
    };
  }

  private field(name: string, rest: string): void {
    const text = rest.trim();
    if (name !== '+') this.lastField = name;
    switch (name) {
      case 'T':
        this.title ||= plainWords(text);
        break;
      case '+':
        if (this.lastField === 'T') this.title = `${this.title} ${plainWords(text)}`.trim();
        else if (this.lastField === 'w' || this.lastField === 'W') this.field(this.lastField, rest);
        break;
      case 'M':
        this.setMeter(text);
        break;
      case 'L':
        this.setUnit(text);
        break;
      case 'Q':
        this.tempo(text);
        break;
      case 'K':
        this.key = accidentalsOf(text);
        this.inBody = true;
        break;
      case 'V':
        this.chooseVoice(text);
        break;
      case 'P':
        if (this.inBody) this.here().mark({ letter: plainWords(text) });
        else this.leavings.add('jumps');
        break;
      case 'I':
        this.instruction(text);
        break;
      case 'w':
        this.leavings.add('lyrics', text.split(/[\s\-_*|~]+/).filter((word) => word !== '').length);
        break;
      case 'W':
        this.leavings.add('words');
        break;
    }
  }

  private setMeter(text: string): void {
    const read = meterOf(text);
    // Each measure is then as long as what is in it, and the first says so.
    if (read === undefined) this.unreadMeter = t`the meter “${text.slice(0, 20)}” cannot be read`;
    const meter = read ?? 'none';
    if (this.voice) this.voice.setMeter(meter === 'none' ? undefined : meter);
    else {
      if (this.inBody || this.voices.size > 0) this.here().setMeter(meter === 'none' ? undefined : meter);
      this.meter = meter === 'none' ? undefined : meter;
    }
  }

  private setUnit(text: string): void {
    const found = /^(\d{1,3})(?:\/(\d{1,4}))?/.exec(text);
    if (!found || Number(found[1]) === 0 || Number(found[2]) === 0) return;
    const unit = frac(Number(found[1]), Number(found[2] ?? 1));
    if (this.voice) this.voice.unit = unit;
    else this.unit = unit;
  }

  /** The unit of lengths: as written, or by the meter: a sixteenth below 3/4, else an eighth (ABC 2.1, 3.1.7). */
  private unitLength(): Fraction {
    if (this.unit) return this.unit;
    const meter = this.meter === 'unsaid' ? undefined : this.meter;
    return meter && compare(meterLength(meter), frac(3, 4)) < 0 ? frac(1, 16) : frac(1, 8);
  }

  private tempo(text: string): void {
    const found = /(?:(\d{1,3})\/(\d{1,3})[\s\d/]*=\s*)?(\d{1,4}(?:\.\d+)?)\s*$/.exec(
      text.replace(/"[^"]*"/g, '').trim(),
    );
    if (!found) return;
    const beat = found[1] ? Number(found[1]) / Number(found[2]) : 1 / 4;
    const quarters = Number(found[3]) * beat * 4;
    if (this.quarters !== undefined) this.leavings.add('tempo-marks');
    else if (quarters > 0 && Number.isFinite(quarters)) this.quarters = quarters;
  }

  private instruction(text: string): void {
    const [name, ...rest] = text.trim().split(/\s+/);
    if (name === 'text' || name === 'center') this.leavings.add('words');
    if (name === 'abc-creator') this.literal ||= rest[0] === WRITTEN_BY;
    else if (name === 'setbarnb' && /^\d{1,6}$/.test(rest[0] ?? '')) this.here().mark({ number: Number(rest[0]) });
    else if (name === 'ostinato' && this.literal) this.here().comesAgain(Number(rest[0]));
    else if (name === 'pickup' && this.literal) this.here().mark({ pickup: rest[0] === 'yes' });
  }

  private chooseVoice(text: string): void {
    const id = /^[^\s\]]+/.exec(text)?.[0];
    if (!id) return;
    const name = /\b(?:name|nm)="([^"]*)"/.exec(text)?.[1];
    if (name) this.names.set(id, plainWords(name));
    this.firstVoice ??= id;
    // In the header voices are only named; what is played begins with the first.
    if (this.inBody) this.voice = this.voiceOf(id);
  }

  private voiceOf(id: string): AbcVoice {
    let voice = this.voices.get(id);
    if (!voice) {
      const meter = this.meter === 'unsaid' ? { upper: 4, lower: 4 } : this.meter;
      this.voices.set(id, (voice = new AbcVoice(id, this.unitLength(), meter, this.literal, this.budget)));
    }
    return voice;
  }

  private here(): AbcVoice {
    return (this.voice ??= this.voiceOf(this.firstVoice ?? '1'));
  }

  /** One line of notes. */
  private music(line: string): void {
    this.inBody = true;
    this.line = line;
    this.i = 0;
    while (this.i < line.length) {
      const before = this.i;
      this.sign(line[this.i]!);
      if (this.i <= before) throw new BadFile(t`“${line.slice(before, before + 10)}” cannot be read`);
    }
  }

  /** Takes what the expression finds right here. */
  private accept(sign: RegExp): RegExpExecArray | undefined {
    const found = sign.exec(this.line.slice(this.i, this.i + 400));
    if (found) this.i += found[0].length;
    return found ?? undefined;
  }

  private sign(sign: string): void {
    const voice = this.here();
    let found: RegExpExecArray | undefined;
    if ((found = this.accept(/^\[([A-Za-z+]):([^\]]*)\]/))) this.field(found[1]!, found[2]!);
    else if ((found = this.accept(/^\[(?:(\d[\d,\-.]*)|"[^"]*")/))) voice.mark({ ending: endingOf(found[1]) });
    else if ((found = this.accept(/^(?:\[\||[:|])[:|\]]*/))) this.bar(voice, found[0]);
    else if (this.accept(/^\.\|/)) return;
    else if ((found = this.accept(/^"((?:[^"\\]|\\.)*)"?/))) this.words(found[1]!);
    else if ((found = this.accept(/^(?:!([^!\s]{0,40})!|\+([^+\s]{1,40})\+)/)))
      this.decoration(found[1] ?? found[2] ?? '');
    else if ((found = this.accept(/^\{([^}]*)\}?/)))
      voice.leavings.add('grace-notes', found[1]!.match(/[A-Ga-g]/g)?.length ?? 0);
    else if ((found = this.accept(/^\((\d{1,3})(?::(\d{0,3}))?(?::(\d{0,3}))?/))) this.openGroup(voice, found);
    else if (this.accept(/^\(&|^&\)?/)) this.overlay(voice);
    else if (this.accept(/^\.?\(/)) voice.leavings.add('slurs');
    else if ((found = this.accept(/^(>{1,3}|<{1,3})/))) voice.broken(found[0]);
    else if (sign === '[') this.chord(voice);
    else if ((found = this.accept(/^[ZX](\d*)/))) voice.restMeasures(Number(found[1] || 1));
    else if (this.accept(/^y[\d/]*/)) return;
    else if (/[a-gA-Gxz^_=]/.test(sign)) this.noteOrRest(voice);
    else if (this.accept(/^-/)) voice.tie();
    else if (this.accept(/^[.~H-Wh-w]/))
      voice.leavings.add(/[SO]/.test(sign) ? 'jumps' : sign === '.' ? 'articulations' : 'ornaments');
    else if (this.accept(/^[\s)\\`$*;?@#]/)) return;
    else {
      this.i += sign.length;
      voice.leavings.add('characters');
    }
  }

  private bar(voice: AbcVoice, sign: string): void {
    this.inMeasure = new Map();
    const bare = !/[|\]]/.test(sign);
    const lead = bare ? 1 : /^\[?(:*)/.exec(sign)![1]!.length;
    const trail = bare ? 1 : /(:*)$/.exec(sign)![1]!.length;
    if (bare && sign.length < 2) return;
    const section = lead + trail > 0 || /\|\||\]|\[\|/.test(sign);
    voice.bar({
      ...(lead > 0 ? { repeatEnd: lead + 1 } : {}),
      ...(trail > 0 ? { repeatStart: true } : {}),
      section,
      endingStops: section,
    });
    const ending = this.accept(/^\s?(\d[\d,\-.]*)/);
    if (ending) voice.mark({ ending: endingOf(ending[1]) });
  }

  private words(text: string): void {
    if (this.literal && text.startsWith('^')) this.label = plainWords(text.slice(1));
    else this.leavings.add(/^[\^_<>@]/.test(text) ? 'words' : 'chord-symbols');
  }

  private decoration(name: string): void {
    this.leavings.add(DYNAMICS.test(name) ? 'dynamics' : JUMPS.test(name) ? 'jumps' : 'ornaments');
  }

  private openGroup(voice: AbcVoice, found: RegExpExecArray): void {
    const n = Number(found[1]);
    const m = Number(found[2] || voice.usualTime(n));
    const count = Number(found[3] || n);
    if (n > 0 && m > 0 && count > 0) voice.openGroup({ n, m }, count);
  }

  /** A second line of notes in the same measure: it is left out up to the bar. */
  private overlay(voice: AbcVoice): void {
    voice.leavings.add('overlays');
    const rest = this.line.slice(this.i);
    // Fields, words and chords in it have bars of their own that are none.
    const [over] = /^(?:\[[A-Za-z]:[^\]]*\]|"[^"]*"|![^!|]*!|\[[^|\]:\d][^|\]]*\]|(?!\[\||:\|)[^|\]])*/.exec(rest)!;
    this.i += over.length;
  }

  private noteOrRest(voice: AbcVoice): void {
    const head = this.head();
    if (!head) {
      this.i++;
      voice.leavings.add('characters');
      return;
    }
    const written = mul(this.length(), voice.unit);
    this.put(voice, [head], written, new Set());
  }

  /** A letter with its accidental and octave. */
  private head(): { pitch: string; letter: string } | undefined {
    const found = this.accept(/^(\^\^?|__?|=)?([a-gA-Gxz])([,']*)/);
    if (!found) return undefined;
    const [, sign, name, octave] = found as unknown as [string, string | undefined, string, string];
    if (/[xz]/.test(name)) return { pitch: '', letter: '' };
    const letter = name.toUpperCase();
    if (sign !== undefined) this.inMeasure.set(letter, ACCIDENTALS[sign]!);
    const altered = this.inMeasure.get(letter) ?? this.key.get(letter) ?? 0;
    return { pitch: name + octave, letter: `${letter}${FLAT[altered + 2] ?? ''}` };
  }

  /** "3", "/", "3/2", "//": how many units. */
  private length(): Fraction {
    const found = this.accept(/^(\d{0,6})(\/{0,8})(\d{0,6})/)!;
    const [, above, slashes, below] = found as unknown as [string, string, string, string];
    const n = above === '' ? 1 : Number(above);
    if (slashes === '') return frac(n);
    const d = below === '' ? 2 ** slashes.length : Number(below) * 2 ** (slashes.length - 1);
    if (d === 0) throw new BadFile(t`a length “${found[0]}” has nothing to be divided by`);
    return frac(n, d);
  }

  private chord(voice: AbcVoice): void {
    this.i++;
    const heads: { pitch: string; letter: string }[] = [];
    const tied = new Set<string>();
    let first: Fraction | undefined;
    while (this.i < this.line.length && !this.accept(/^\]/)) {
      const head = this.head();
      if (!head) {
        // Decorations and words on single notes.
        if (!this.accept(/^("[^"]*"?|![^!]*!?|\{[^}]*\}?)/)) this.i++;
        continue;
      }
      const length = this.length();
      first ??= length;
      heads.push(head);
      if (this.accept(/^-/)) tied.add(head.pitch);
    }
    if (!first) return;
    voice.leavings.add('chord-notes', heads.length - 1);
    this.put(voice, heads, mul(mul(first, this.length()), voice.unit), tied);
  }

  private put(
    voice: AbcVoice,
    heads: readonly { pitch: string; letter: string }[],
    written: Fraction,
    tied: Set<string>,
  ): void {
    const sounding = heads.filter(({ pitch }) => pitch !== '');
    const label = this.label;
    this.label = undefined;
    if (written.n === 0) return;
    if (sounding.length > 0 && !this.literal) voice.leavings.add('pitches', sounding.length);
    if (this.unreadMeter !== undefined) voice.fault(this.unreadMeter);
    this.unreadMeter = undefined;
    const event: AbcEvent = {
      kind: sounding.length > 0 ? 'note' : 'rest',
      written,
      pitches: sounding.map(({ pitch }) => pitch),
      tied,
      ...(label === undefined || sounding.length === 0 ? {} : { label }),
      ...(sounding.length === 0 ? {} : { letter: sounding.at(-1)!.letter }),
    };
    voice.add(event);
  }
}

function endingOf(text: string | undefined): readonly number[] {
  const times = timesOf(text ?? '');
  return times.length > 0 ? times : [1];
}

/** undefined where it cannot be read. */
function meterOf(text: string): Meter | 'none' | undefined {
  const plain = text.replace(/[\s()]/g, '');
  if (plain === 'C') return { upper: 4, lower: 4 };
  if (plain === 'C|') return { upper: 2, lower: 2 };
  if (plain === '' || plain === 'none') return 'none';
  const found = /^(\d{1,3}(?:\+\d{1,3})*)\/(\d{1,3})$/.exec(plain);
  if (!found) return undefined;
  const groups = found[1]!.split('+').map(Number);
  const upper = groups.reduce((a, b) => a + b, 0);
  const lower = Number(found[2]);
  if (upper < 1 || upper > LARGEST_UPPER || !LOWER_NUMBERS.includes(lower) || groups.includes(0)) return undefined;
  return groups.length > 1 || /^\s*\(/.test(text) ? { upper, lower, groups } : { upper, lower };
}
