import { t } from '../../core/words/say.ts';
import { inNaming } from '../../core/wording/valueNames.ts';
import type { Voice } from '../../core/wording/voice.ts';
import type { RulerSystem } from '../../drawing/system.ts';

/** A cover stands a little before the first note of its measure, and leaves the bar line free. */
const BEFORE = 14;
const FREE = 4;

interface CoversProps {
  readonly system: RulerSystem;
  /** By the place of a measure among those that are drawn, from 0. */
  readonly isCovered: (index: number) => boolean;
  readonly voice: Voice;
}

/** Paper over measures that are clapped from memory. */
export function Covers({ system, isCovered, voice }: CoversProps) {
  return system.measures
    .filter(({ index }) => isCovered(index))
    .map(({ index, x, width }) => (
      <div
        key={index}
        className="cover"
        style={{ left: x - BEFORE, width: width - FREE }}
        aria-label={inNaming(t`{Measure} ${index + 1} is covered`, voice.naming)}
      />
    ));
}
