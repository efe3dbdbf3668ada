import { perLanguage, t } from '../../../../core/words/say.ts';
import { Download } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { ClassRecords } from '../../../../contract/records.ts';
import type { ClassDetail } from '../../../../contract/schoolClass.ts';
import { scaleOf } from '../../../../core/judging/scale.ts';
import { namingOf } from '../../../../core/wording/voice.ts';
import { Select } from '../../../ui/Select.tsx';
import { saveFile } from '../../../ui/saveFile.ts';
import { type GridView, columnsOf, rowsOf } from './gridCells.ts';
import { type Separator, marksCsv } from './marksCsv.ts';

/** As this device writes numbers, so its spreadsheet reads them. */
const USUAL_SEPARATOR: Separator = (1.5).toLocaleString().includes(',') ? ';' : ',';
const SEPARATORS = perLanguage((): readonly (readonly [Separator, string])[] => [
  [',', t`commas`],
  [';', t`semicolons`],
]);

interface SaveMarksProps {
  readonly schoolClass: ClassDetail;
  readonly records: ClassRecords;
  readonly view: GridView;
}

/** The grid as a table for a spreadsheet. */
export function SaveMarks({ schoolClass, records, view }: SaveMarksProps) {
  const [separator, setSeparator] = useState(USUAL_SEPARATOR);
  const save = () => {
    const columns = columnsOf(records, view, namingOf(schoolClass));
    const text = marksCsv(columns, rowsOf(schoolClass, records, view), scaleOf(schoolClass), separator);
    saveFile(t`${schoolClass.name} ${view}.csv`, new Blob([text], { type: 'text/csv' }));
  };
  return (
    <span className="save-marks">
      <Button size="sm" variant="outline-dark" onClick={save}>
        <Download size={15} aria-hidden /> {t`As a table with`}
      </Button>
      <Select size="sm" label={t`Separator`} value={separator} options={SEPARATORS()} onChoose={setSeparator} />
    </span>
  );
}
