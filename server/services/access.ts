import { perLanguage, t } from '../../core/words/say.ts';
import type { Role } from '../../contract/schoolClass.ts';
import { Problem } from '../problem.ts';

const RANK: Readonly<Record<Role, number>> = { look: 0, hear: 1, owner: 2 };

const ONLY_LOOK = perLanguage(
  () =>
    new Problem(
      403,
      'only-look',
      t`This class is shared with you to look at. Ask whose class it is to let you hear its children too.`,
    ),
);
const NOT_YOURS = perLanguage(() => new Problem(403, 'not-yours', t`Only whose class this is can do that. Ask them.`));

/** Refuses what goes beyond the role a teacher has in a class. */
export function demand(role: Role, needed: Role): void {
  if (RANK[role] < RANK[needed]) throw needed === 'owner' ? NOT_YOURS() : ONLY_LOOK();
}
