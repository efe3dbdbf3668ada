import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import { vocabularyOf } from '../../../core/exercises/rhythms/vocabulary.ts';
import { ELEMENT_IDS, type ElementId } from '../../../core/rhythm/elements.ts';
import { COMMON_TIME, type Meter } from '../../../core/rhythm/meter.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { parseMeter } from '../../../core/rhythm/text.ts';
import { type Voice, voiceOf } from '../../../core/wording/voice.ts';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { FEWEST, useHeardElements } from '../../domain/heardElements.ts';
import { useStored } from '../../store/stored.ts';
import { type LineOfPattern, eachPart } from '../../domain/eachPart.ts';
import { useOfferedPatterns } from '../../domain/offeredPatterns.ts';

export const EAR_METERS = ['2/4', '3/4', '4/4', '6/8'] as const;

/** What the views of the ear work with. */
export interface EarSettings {
  readonly schoolClass: ClassSummary | undefined;
  readonly voice: Voice;
  readonly meter: Meter;
  readonly meterName: string;
  readonly setMeter: (name: string) => void;
  readonly bpm: number;
  readonly setBpm: (bpm: number) => void;
  /** What the class has met: as its records say, or as the teacher chose. */
  readonly met: readonly ElementId[];
  /** Undefined: again as the records say. */
  readonly setMet: (met: readonly ElementId[] | undefined) => void;
  /** The teacher chose otherwise than the records say. */
  readonly ownMet: boolean;
}

export const SLOWEST_EAR = 50;
export const FASTEST_EAR = 132;

export function useEarSettings(): EarSettings {
  const schoolClass = useCurrentClass();
  const heard = useHeardElements(schoolClass?.id);
  const [kept, setKept] = useStored(`ear.met.${schoolClass?.id ?? ''}`, '');
  const [storedMeter, setMeter] = useStored('ear.meter', '4/4');
  const [storedBpm, setBpm] = useStored('ear.bpm', '80');
  const voice = useMemo(() => voiceOf(schoolClass), [schoolClass]);
  const [search, setSearch] = useSearchParams();
  // What another view asked for holds for this visit, until something else is chosen.
  const asked = search.get('elements');
  const own = useMemo(() => ELEMENT_IDS.filter((id) => (asked ?? kept).split(',').includes(id)), [asked, kept]);
  const ownMet = own.length >= FEWEST;
  const askedMeter = EAR_METERS.find((one) => one === search.get('meter'));
  const meterName = askedMeter ?? storedMeter;
  const read = parseMeter(meterName);
  const chooses = () => setSearch({}, { replace: true });
  return {
    schoolClass,
    voice,
    meter: read.ok ? read.meter : COMMON_TIME,
    meterName,
    setMeter: (name) => {
      setMeter(name);
      chooses();
    },
    bpm: Math.max(SLOWEST_EAR, Math.min(FASTEST_EAR, Number(storedBpm) || 80)),
    setBpm: (bpm) => setBpm(String(bpm)),
    met: ownMet ? own : heard,
    setMet: (met) => {
      setKept(met?.join(',') ?? '');
      chooses();
    },
    ownMet,
  };
}

/** A saved pattern that can be read; of one in parts each part. */
export interface ReadPattern {
  readonly id: string;
  readonly title: string;
  readonly pattern: Pattern;
  /** Of which pattern in parts it is one. */
  readonly among?: LineOfPattern['among'];
}

export function readPatterns(saved: readonly SavedPattern[] | undefined): ReadPattern[] {
  return (saved ?? []).flatMap((pattern) =>
    eachPart(pattern).map(({ id, title, rhythm, among }) => ({
      id,
      title,
      pattern: rhythm,
      ...(among ? { among } : {}),
    })),
  );
}

export function useReadPatterns(): readonly ReadPattern[] {
  const { data } = useOfferedPatterns();
  return useMemo(() => readPatterns(data), [data]);
}

/** The vocabulary of the class in the chosen meter. */
export function useVocabulary({ met, meter }: Pick<EarSettings, 'met' | 'meter'>) {
  return useMemo(() => vocabularyOf(met, meter), [met, meter]);
}

/** A number for a new set: this visit's own. */
export const newSeed = (): number => Math.floor(Math.random() * 100_000);
