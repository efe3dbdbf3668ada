import { useState } from 'react';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { PracticeEdit, PracticeWeek } from '../../../contract/practice.ts';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import { BothVersions } from '../../domain/BothVersions.tsx';
import { namesIn } from '../../domain/namesIn.ts';
import { useEditing } from '../../api/useEditing.ts';
import { PracticeForm } from './PracticeForm.tsx';

interface ChangeProps {
  readonly schoolClass: ClassDetail;
  readonly week: PracticeWeek;
  readonly patterns: readonly SavedPattern[];
  readonly onClose: () => void;
}

/** Changes a week; what a colleague changed in it meanwhile stays. */
export function ChangeWeek({ schoolClass, patterns, week, onClose }: ChangeProps) {
  const [start] = useState((): PracticeEdit => ({ starts: week.starts, plan: week.plan }));
  const editing = useEditing<PracticeEdit>(`/classes/${schoolClass.id}/practice/${week.id}`, start, ['/classes']);
  const closeWhen = async (done: Promise<boolean>) => {
    if (await done) onClose();
  };
  return (
    <>
      {editing.clash && (
        <BothVersions
          clash={editing.clash}
          names={namesIn(schoolClass)}
          onChosen={(theirs) => void closeWhen(editing.settle(theirs))}
        />
      )}
      <PracticeForm
        schoolClass={schoolClass}
        patterns={patterns}
        start={start}
        problem={editing.problem}
        onCancel={onClose}
        onSave={(edit) => closeWhen(editing.save(edit))}
      />
    </>
  );
}
