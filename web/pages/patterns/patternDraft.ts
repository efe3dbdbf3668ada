import { perLanguage, t } from '../../../core/words/say.ts';
import type { SavedPattern } from '../../../contract/pattern.ts';
import { isLegal } from '../../../core/rhythm/barCheck.ts';
import { type PartReport, type Score, checkParts } from '../../../core/rhythm/score.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import type { TextError } from '../../../core/rhythm/text.ts';
import { settled } from '../../store/settled.ts';
import { readStored, writeStored } from '../../store/stored.ts';

export interface Draft {
  readonly title: string;
  readonly text: string;
}

/** What the text means: what is wrong, if anything, and the last parse that made sense. */
export interface DraftParse {
  readonly score: Score | undefined;
  readonly error: TextError | undefined;
  readonly bars: readonly PartReport[];
}

export type SaveState = 'saved' | 'saving' | 'on-device' | 'unfinished';

/** What the page shows of a draft. */
export interface DraftMoment {
  readonly draft: Draft;
  readonly parse: DraftParse;
  readonly state: SaveState;
  readonly problem: Error | undefined;
}

/** Somebody else changed the same meanwhile: what the server has now. */
export function theirsIn(problem: Error | undefined): Draft | undefined {
  const theirs = (problem as { clash?: { theirs: Partial<Draft> } } | undefined)?.clash?.theirs;
  return typeof theirs?.title === 'string' && typeof theirs.text === 'string'
    ? { title: theirs.title, text: theirs.text }
    : undefined;
}

/** What a draft needs of its surroundings; in tests all of it is made up. */
export interface DraftDevices {
  /** Sends it to the server; fails when it is not stored. */
  readonly save: (draft: Draft, was: Draft | undefined) => Promise<unknown>;
  /** @returns what takes it back */
  readonly later: (action: () => void, ms: number) => () => void;
}

const SAVE_AFTER_MS = 700;
const AGAIN_MS = 4_000;
const UNTITLED = perLanguage(() => t`Untitled`);

const keyOf = (id: string) => `draft:${id}`;

/** What this device keeps of a pattern that the server does not have yet. */
export function storedDraft(id: string): Draft | undefined {
  try {
    const draft = JSON.parse(readStored(keyOf(id)) ?? 'null') as Partial<Draft> | null;
    return draft && typeof draft.title === 'string' && typeof draft.text === 'string'
      ? { title: draft.title, text: draft.text }
      : undefined;
  } catch {
    return undefined;
  }
}

export function forgetDraft(id: string): void {
  writeStored(keyOf(id), undefined);
}

/** @param before  the parts that stay in sight while the text cannot be read */
export function parseDraft(text: string, before: Score | undefined): DraftParse {
  if (text.trim() === '') return { score: undefined, error: undefined, bars: [] };
  const parsed = parseScore(text);
  if (!parsed.ok) return { score: before, error: parsed.at, bars: [] };
  return { score: parsed.score, error: undefined, bars: checkParts(parsed.score) };
}

function isComplete({ score, error, bars }: DraftParse): boolean {
  return score !== undefined && !error && bars.every(isLegal);
}

const same = (a: Draft | undefined, b: Draft) => a?.title === b.title && a.text === b.text;

/**
 * A pattern being written. Each keystroke is kept on this device at once, and sent to the server when the text makes
 * sense and the typing rests; what the server does not have yet stays here, through a reload too.
 */
export class PatternDraft {
  private shown: DraftMoment;
  /** What the server has. */
  private kept: Draft | undefined;
  private readonly listeners = new Set<() => void>();
  private cancel: () => void = () => undefined;

  constructor(
    private readonly id: string,
    saved: SavedPattern | undefined,
    private readonly devices: DraftDevices,
  ) {
    this.kept = saved && { title: saved.title, text: saved.text };
    const draft = storedDraft(id) ?? { title: saved?.title ?? '', text: saved?.text ?? '' };
    const before = saved && parseDraft(saved.text, undefined).score;
    this.shown = this.momentOf(draft, parseDraft(draft.text, before), undefined);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly moment = (): DraftMoment => this.shown;

  readonly change = (draft: Draft): void => {
    writeStored(keyOf(this.id), JSON.stringify(draft));
    const { parse, problem } = this.shown;
    const textChanged = draft.text !== this.shown.draft.text;
    this.show(draft, textChanged ? parseDraft(draft.text, parse.score) : parse, problem);
    this.plan(SAVE_AFTER_MS);
  };

  /**
   * The list at hand may be older than the pattern: what arrives later fills a page on which nothing was written yet.
   */
  readonly arrived = (saved: SavedPattern): void => {
    const { draft } = this.shown;
    if (this.kept || draft.title !== '' || draft.text !== '') return;
    this.kept = { title: saved.title, text: saved.text };
    this.show(this.kept, parseDraft(saved.text, undefined), undefined);
  };

  /** Of what both changed theirs stays in some parts; all else that either changed stays. */
  readonly choose = (theirs: Draft, theirsStays: ReadonlySet<string>): void => {
    this.cancel();
    const base = this.kept && { ...this.kept };
    const draft = settled(base, { ...theirs }, { ...this.sent }, theirsStays) as unknown as Draft;
    this.kept = theirs;
    forgetDraft(this.id);
    if (!same(theirs, draft)) writeStored(keyOf(this.id), JSON.stringify(draft));
    this.show(draft, parseDraft(draft.text, this.shown.parse.score), undefined);
    this.plan(0);
  };

  /** Begins to send what is not saved yet; at the end of a visit `close` sends it at once. */
  readonly open = (): void => this.plan(SAVE_AFTER_MS);

  readonly close = (): void => {
    this.cancel();
    if (this.isToSend()) void this.send();
  };

  private get sent(): Draft {
    const { title, text } = this.shown.draft;
    return { title: title.trim() || UNTITLED(), text };
  }

  private isToSend(): boolean {
    return isComplete(this.shown.parse) && !same(this.kept, this.sent);
  }

  private plan(ms: number): void {
    this.cancel();
    if (this.isToSend()) this.cancel = this.devices.later(() => void this.send(), ms);
  }

  private async send(): Promise<void> {
    const { sent } = this;
    try {
      await this.devices.save(sent, this.kept);
      this.kept = sent;
      // Only what is still on the page: the next keystroke may have come meanwhile.
      if (storedDraft(this.id)?.text === sent.text) forgetDraft(this.id);
      this.show(this.shown.draft, this.shown.parse, undefined);
    } catch (error) {
      this.show(this.shown.draft, this.shown.parse, error as Error);
      // Which of two versions is to stay only the teacher can say.
      if (!theirsIn(error as Error)) this.plan(AGAIN_MS);
    }
  }

  private momentOf(draft: Draft, parse: DraftParse, problem: Error | undefined): DraftMoment {
    const title = draft.title.trim() || UNTITLED();
    const isKept = same(this.kept, { title, text: draft.text });
    const state = !isComplete(parse) ? 'unfinished' : isKept ? 'saved' : problem ? 'on-device' : 'saving';
    return { draft, parse, state, problem };
  }

  private show(draft: Draft, parse: DraftParse, problem: Error | undefined): void {
    this.shown = this.momentOf(draft, parse, problem);
    for (const listener of this.listeners) listener();
  }
}
