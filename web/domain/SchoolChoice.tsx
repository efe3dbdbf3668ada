import { useSearchParams } from 'react-router';
import { t } from '../../core/words/say.ts';
import type { OwnSchool } from '../../contract/school.ts';
import { SelectField } from '../ui/SelectField.tsx';

/** The school a page is about: that of its address ("?at=…"), or the first of the teacher's. */
export function useOwnSchool(schools: readonly OwnSchool[]): OwnSchool {
  const [search] = useSearchParams();
  return schools.find(({ id }) => id === search.get('at')) ?? schools[0]!;
}

interface SchoolChoiceProps {
  readonly schools: readonly OwnSchool[];
  readonly schoolId: string;
  readonly onChoose: (schoolId: string) => void;
}

/** Which school, for a teacher who is at several. */
export function SchoolChoice({ schools, schoolId, onChoose }: SchoolChoiceProps) {
  if (schools.length < 2) return null;
  return (
    <SelectField
      id="which-school"
      label={t`Your school`}
      value={schoolId}
      options={schools.map(({ id, name }) => [id, name] as const)}
      onChoose={onChoose}
    />
  );
}
