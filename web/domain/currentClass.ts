import { t } from '../../core/words/say.ts';
import type { ClassSummary } from '../../contract/schoolClass.ts';
import { useStored } from '../store/stored.ts';
import { useClasses } from '../api/hooks.ts';

const KEY = 'take.class';

/** The class this device works with: its words and names hold in every view. It is kept here and nowhere else. */
export function useCurrentClass(): ClassSummary | undefined {
  const { data } = useClasses();
  const [id] = useStored(KEY, '');
  return data?.find((one) => one.id === id) ?? data?.[0];
}

/** The same where children are heard: not a class that is shared to be looked at only. */
export function useHearingClass(): ClassSummary | undefined {
  const { data } = useClasses();
  const current = useCurrentClass();
  return current?.role === 'look' ? data?.find(mayHear) : current;
}

/** The classes to choose from: where one of somebody else has the same name it says whose each is. */
export function classOptions(
  classes: readonly Pick<ClassSummary, 'id' | 'name' | 'role' | 'owner'>[],
): (readonly [id: string, name: string])[] {
  return classes.map(({ id, name, role, owner }) => {
    const isHers = classes.every((one) => one.name !== name || one.owner === owner);
    return [id, isHers ? name : `${name} (${role === 'owner' ? t`yours` : owner})`] as const;
  });
}

export const mayHear = ({ role }: Pick<ClassSummary, 'role'>): boolean => role !== 'look';

export function useChooseClass(): (id: string) => void {
  return useStored(KEY, '')[1];
}
