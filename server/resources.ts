import type { Database } from './database.ts';
import type { Judges } from './judging/judges.ts';
import type { SignOn } from './door/signOnPlace.ts';
import type { SignInTries } from './services/signInTries.ts';

/** What the services of one server work with. */
export interface Resources {
  readonly db: Database;
  readonly judges: Judges;
}

/** What those at the door work with. */
export interface DoorResources {
  readonly db: Database;
  readonly tries: SignInTries;
  /** Where another place vouches for teachers. */
  readonly signOn?: SignOn | undefined;
}
