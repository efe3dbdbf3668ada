import type { Pattern } from '../../core/rhythm/pattern.ts';
import type { PlacedMeasure } from '../../core/rhythm/place.ts';
import { COUNTS_HEIGHTS, NOTES_HEIGHTS, STRIPS_HEIGHTS } from '../../drawing/heights.ts';
import { type RulerSystem, withPlaced } from '../../drawing/system.ts';
import { BeatLines, type CountsLane, SystemLanes, type SystemProps } from './SystemLanes.tsx';

/** A part with the lanes that stand under its notes. */
export interface PartGroup {
  /** Empty where there is one alone. */
  readonly name: string;
  readonly pattern: Pattern;
  readonly placed: readonly PlacedMeasure[];
  /** Its counts, all of them; and the lanes that are drawn, faded ones left out. */
  readonly spoken: readonly CountsLane[];
  readonly lanes: readonly CountsLane[];
}

interface PartLanesProps {
  readonly system: RulerSystem;
  readonly scale: number;
  readonly shown: Pick<
    SystemProps,
    'size' | 'handSigns' | 'notes' | 'strips' | 'beats' | 'feet' | 'onPick' | 'pickName'
  >;
  readonly groups: readonly PartGroup[];
  /** Two parts share a line of notes. */
  readonly oneLine: boolean;
  readonly resting: readonly number[];
}

/** Several parts on one axis, each a group of lanes with its name; bar lines go through all, the feet come last. */
export function PartLanes({ system, scale, shown, groups, oneLine, resting }: PartLanesProps) {
  const { size, notes, strips, beats, feet, pickName } = shown;
  const shared = oneLine && notes && groups.length === 2;
  const systems = groups.map(({ placed }) => withPlaced(system, placed, { scale, size }));
  const heights = groups.map(({ lanes }, i) => {
    const written = lanes.filter(({ measures }) => measures.length > 0).length * COUNTS_HEIGHTS[size];
    return (notes && !(shared && i > 0) ? NOTES_HEIGHTS[size] : 0) + (strips ? STRIPS_HEIGHTS[size] : 0) + written;
  });
  const through = shared ? 0 : heights.slice(0, -1).reduce((sum, height) => sum + height, 0);
  return (
    <>
      {beats && <BeatLines system={system} scale={scale} />}
      {groups.map(({ name, lanes }, i) => (
        <div key={i} className={`part-lanes ${resting.includes(i) ? 'part-resting' : ''}`} data-part={name}>
          <SystemLanes
            {...shown}
            system={systems[i]!}
            scale={scale}
            lanes={lanes}
            // They go through all parts, and are drawn once.
            beats={false}
            feet={feet && i === groups.length - 1}
            notes={notes && !(shared && i > 0)}
            lower={shared && i === 0 ? systems[1] : undefined}
            barsDown={i === 0 ? through : 0}
            part={{ index: i, name, sharesLine: shared }}
            pickName={`${pickName} ${name},`}
            heard={undefined}
            heardPlaced={undefined}
          />
        </div>
      ))}
    </>
  );
}
