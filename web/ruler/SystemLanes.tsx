import { perLanguage, t } from '../../core/words/say.ts';
import { type ReactNode, memo } from 'react';
import type { CountedMeasure } from '../../core/counting/count.ts';
import { toNumber } from '../../core/rhythm/fraction.ts';
import type { PlacedMeasure } from '../../core/rhythm/place.ts';
import { footOn } from '../../core/leading/hands.ts';
import { BeatsLane } from './BeatsLane.tsx';
import { HeardLane, type HeardMark } from './HeardLane.tsx';
import { NotesLane } from './NotesLane.tsx';
import { PartFigure } from './PartFigure.tsx';
import { StripsLane } from './StripsLane.tsx';
import { TokensLane } from './TokensLane.tsx';
import {
  type RulerMeasure,
  type RulerSize,
  type RulerSystem,
  beatXs,
  systemKey,
  withPlaced,
  xOf,
} from '../../drawing/system.ts';

/** Something written under the notes: counts, or what the hands do. */
export interface CountsLane {
  readonly name: string;
  readonly measures: readonly CountedMeasure[];
  /** Why the school cannot count this. */
  readonly refused?: string;
}

/** A note or rest that was pressed: measure among the placed ones, event in it. */
export type OnPick = (picked: { measure: number; event: number; part?: number }) => void;

/** One of several parts on the ruler. */
export interface PartShown {
  readonly index: number;
  readonly name: string;
  /** Where two share the line of notes, it is nobody's own. */
  readonly sharesLine: boolean;
}

export interface SystemProps {
  readonly system: RulerSystem;
  readonly scale: number;
  readonly size: RulerSize;
  readonly handSigns: boolean;
  readonly notes: boolean;
  readonly strips: boolean;
  readonly beats: boolean;
  readonly feet: boolean;
  readonly onPick: OnPick | undefined;
  readonly pickName: string;
  readonly lanes: readonly CountsLane[];
  readonly heard: readonly HeardMark[] | undefined;
  readonly heardPlaced: readonly PlacedMeasure[] | undefined;
  readonly part?: PartShown | undefined;
  /** Of the next part, on the same line of notes with its stems down. */
  readonly lower?: RulerSystem | undefined;
  /** Bar lines go on so far down, through the parts below: pixels. */
  readonly barsDown?: number;
}

/** The lane of what the hands do. */
export const HANDS = perLanguage(() => t`Hands`);

/** The feet: a step on every beat, right and left, never stopping. */
export const STEPS = perLanguage(
  () =>
    ({
      name: t`Steps`,
      className: 'token-step',
      textAt: ({ beatsBefore }: RulerMeasure, beat: number) => footOn(beatsBefore, beat),
    }) as const,
);

const SHOWN = new WeakMap<SystemProps, string>();

/**
 * Everything a line of the ruler shows, but for what was heard; asked again of what was shown before, so it is kept.
 */
function shown(props: SystemProps): string {
  const known = SHOWN.get(props);
  if (known !== undefined) return known;
  const { system, scale, size, handSigns, notes, strips, beats, feet, lanes, part, lower, barsDown } = props;
  let key = `${systemKey(system)} ${scale} ${size} ${handSigns} ${notes} ${strips} ${beats} ${feet}`;
  if (part) key += ` ${part.index} ${part.sharesLine} ${barsDown} ${part.name}\n${lower ? systemKey(lower) : ''}`;
  for (const { name, measures } of lanes) {
    key += `\n${name}`;
    for (const { index } of system.measures) {
      key += '|';
      for (const { kind, text } of measures[index]?.tokens ?? []) key += ` ${kind}${text}`;
    }
  }
  SHOWN.set(props, key);
  return key;
}

/** The lanes of one line. While a measure is typed, the lines that show the same as before are left alone. */
export const SystemLanes = memo(
  function SystemLanes({
    system,
    scale,
    size,
    handSigns,
    notes,
    strips,
    beats,
    feet,
    lanes,
    onPick,
    pickName,
    heard,
    heardPlaced,
    part,
    lower,
    barsDown,
  }: SystemProps) {
    const where = { system, size, scale };
    const own = part && <PartName name={part.name} index={part.index} />;
    const isNamed = notes && part?.sharesLine === false;
    const first = strips ? 'strips' : 'counts';
    const nameAt = (lane: 'strips' | 'counts', usual: string) => (part ? !isNamed && lane === first && own : usual);
    return (
      <>
        {beats && <BeatLines system={system} scale={scale} />}
        {notes && (
          <Lane
            name={part ? isNamed && own : t`Notes`}
            content={<NotesLane {...where} lower={lower} barsDown={barsDown} />}
          />
        )}
        {strips && <Lane name={nameAt('strips', t`Strips`)} content={<StripsLane {...where} part={part?.index} />} />}
        {lanes.map(
          ({ name, measures }, k) =>
            measures.length > 0 && (
              <Lane
                key={k}
                name={nameAt('counts', name)}
                content={
                  <TokensLane {...where} measures={measures} name={name} handSigns={handSigns && name === HANDS()} />
                }
              />
            ),
        )}
        {feet && <Lane name={t`Steps`} content={<BeatsLane {...where} {...STEPS()} />} />}
        {heard && <Lane name={t`Heard`} content={<HeardLane {...where} marks={heard} />} />}
        {heardPlaced && (
          <Lane
            name={t`Heard, as notes`}
            content={<NotesLane {...where} system={withPlaced(system, heardPlaced, where)} />}
          />
        )}
        {onPick && <PickLane system={system} scale={scale} onPick={onPick} name={pickName} part={part?.index} />}
      </>
    );
  },
  (before, now) =>
    before.heard === now.heard &&
    before.heardPlaced === now.heardPlaced &&
    before.onPick === now.onPick &&
    shown(before) === shown(now),
);

/** A button over each note and rest, as wide as its time. */
function PickLane({
  system,
  scale,
  name,
  onPick,
  part,
}: {
  system: RulerSystem;
  scale: number;
  name: string;
  onPick: OnPick;
  part: number | undefined;
}) {
  return (
    <div className="pick-lane">
      {system.measures.map((measure) =>
        measure.placed.events.map((event, i) => (
          <button
            key={`${measure.index}-${i}`}
            type="button"
            aria-label={t`${name} measure ${measure.placed.number}, sign ${i + 1}`}
            style={{ left: xOf(measure, event.onset, scale) - 8, width: toNumber(event.length) * scale - 4 }}
            onClick={() => onPick({ measure: measure.index, event: i, ...(part === undefined ? {} : { part }) })}
          />
        )),
      )}
    </div>
  );
}

/** A part: what it is called, and its figure. */
function PartName({ name, index }: { name: string; index: number }) {
  return (
    <span className="part-name">
      <PartFigure name={name} index={index} />
      <span className="part-word">{name}</span>
    </span>
  );
}

export function Lane({ name, content }: { name: ReactNode; content: ReactNode }) {
  return (
    <div className="lane">
      {name !== false && (
        <span className={typeof name === 'string' ? 'lane-name' : 'lane-name lane-of-part'} aria-hidden>
          {name}
        </span>
      )}
      {content}
    </div>
  );
}

export function BeatLines({ system, scale }: { system: RulerSystem; scale: number }) {
  return (
    <svg className="beat-lines" width={system.width} height="100%" aria-hidden>
      {system.measures.map((measure) =>
        beatXs(measure, scale).map(({ x, first }) => (
          <line key={x} className={first ? 'beat-first' : 'beat'} x1={x} x2={x} y1="0" y2="100%" />
        )),
      )}
    </svg>
  );
}
