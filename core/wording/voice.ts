import type { NamingId } from './valueNames.ts';
import type { CountOptions } from '../counting/count.ts';
import type { RestStyle, SchoolId, Words } from '../counting/school.ts';
import type { WordSet } from '../counting/wordSet.ts';

/** How a class speaks, as its teacher set it. */
export interface ClassWords {
  readonly school: SchoolId;
  readonly rests: RestStyle | null;
  readonly naming?: NamingId | undefined;
  /** The teacher's own words, by school. */
  readonly houseWords?: Readonly<Record<string, Words>> | null | undefined;
  readonly wordSet?: WordSet | null | undefined;
}

/** How a class counts; with `school` another way of counting, in the class's own words for it. */
export function countsOf(room: ClassWords, school: SchoolId = room.school): CountOptions {
  return {
    school,
    rests: school === room.school ? (room.rests ?? undefined) : undefined,
    houseWords: room.houseWords?.[school],
    wordSet: room.wordSet ?? undefined,
  };
}

export function namingOf(room: { naming?: NamingId | undefined } | undefined): NamingId {
  return room?.naming ?? 'quarters';
}
