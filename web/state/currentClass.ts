import type { ClassSummary } from '../../contract/school.ts';
import type { CountOptions } from '../../core/counting/count.ts';
import type { SchoolId } from '../../core/counting/school.ts';
import type { NamingId } from '../../core/rhythm/names.ts';
import { useClasses } from '../api/hooks.ts';
import { readStored } from './stored.ts';

/** The class this device worked with last: its words and names hold wherever no class is chosen. */
export function useCurrentClass(): ClassSummary | undefined {
  const { data } = useClasses();
  return data?.find(({ id }) => id === readStored('take.class')) ?? data?.[0];
}

type Words = Pick<ClassSummary, 'school' | 'rests' | 'houseWords' | 'wordSet'>;

/** How a class counts; with `school` another way of counting, in the class's own words for it. */
export function countsOf(room: Words, school: SchoolId = room.school): CountOptions {
  return { school, rests: school === room.school ? (room.rests ?? undefined) : undefined, houseWords: room.houseWords?.[school], wordSet: room.wordSet ?? undefined };
}

export function namingOf(room: { naming?: NamingId | undefined } | undefined): NamingId {
  return room?.naming ?? 'quarters';
}
