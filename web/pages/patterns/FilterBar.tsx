import { t } from '../../../core/words/say.ts';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import { LEVELS } from '../../../core/making/level.ts';
import { classStanding } from '../../../core/records/classStanding.ts';
import { ELEMENTS, ELEMENT_IDS, type ElementId } from '../../../core/rhythm/elements.ts';
import { type NamingId, inNaming } from '../../../core/wording/valueNames.ts';
import { useRecords } from '../../api/hooks.ts';
import { Select } from '../../ui/Select.tsx';
import { knownChildren } from '../../domain/knownChildren.ts';
import { SearchWords } from './SearchWords.tsx';
import { NO_FOLDER, PUT_AWAY, type Shelved } from './shelf.ts';
import { NOTHING_WANTED, type Wanted } from './wanted.ts';

interface FilterBarProps {
  readonly all: readonly Shelved[];
  readonly folders: readonly string[];
  readonly wanted: Wanted;
  readonly schoolClass: ClassSummary | undefined;
  readonly naming: NamingId;
  readonly onWanted: (wanted: Wanted) => void;
}

/** What patterns are looked for by. */
export function FilterBar({ all, folders, wanted, schoolClass, naming, onWanted }: FilterBarProps) {
  const change = (part: Partial<Wanted>) => onWanted({ ...wanted, ...part });
  const meters = [...new Set(all.map(({ meter }) => meter))].filter(Boolean).sort();
  const elements = ELEMENT_IDS.filter((id) => all.some((one) => one.elements.has(id)));
  const away = all.some(({ saved }) => saved.archived);
  return (
    <search className="filter-bar" aria-label={t`Patterns`}>
      <SearchWords words={wanted.words} onWords={(words) => change({ words })} />
      <Select
        label={t`Meter`}
        value={wanted.meter}
        options={[['', t`Any meter`], ...meters.map((meter) => [meter, meter] as const)]}
        onChoose={(meter) => change({ meter })}
      />
      <Select<ElementId | ''>
        label={t`With`}
        value={wanted.element}
        options={[['', t`Any element`], ...elements.map((id) => [id, inNaming(ELEMENTS()[id].title, naming)] as const)]}
        onChoose={(element) => change({ element })}
      />
      <Select
        label={t`Level`}
        value={wanted.level}
        options={[['', t`Any level`], ...LEVELS.map((level) => [String(level), `Level ${level}`] as const)]}
        onChoose={(level) => change({ level })}
      />
      {(folders.length > 0 || away) && (
        <Select
          label={t`Folder`}
          value={wanted.folder}
          options={[
            ['', t`All folders`],
            ...folders.map((folder) => [folder, folder] as const),
            [NO_FOLDER, t`In no folder`],
            ...(away ? ([[PUT_AWAY, t`Put away`]] as const) : []),
          ]}
          onChoose={(folder) => change({ folder })}
        />
      )}
      {schoolClass && (
        <MetCheck schoolClass={schoolClass} checked={wanted.met !== undefined} onMet={(met) => change({ met })} />
      )}
      {wanted !== NOTHING_WANTED && (
        <Button variant="link" onClick={() => onWanted(NOTHING_WANTED)}>{t`Show all`}</Button>
      )}
    </search>
  );
}

interface MetCheckProps {
  readonly schoolClass: ClassSummary;
  readonly checked: boolean;
  readonly onMet: (met: ReadonlySet<ElementId> | undefined) => void;
}

/** Only what is made of elements the class has met. */
function MetCheck({ schoolClass, checked, onMet }: MetCheckProps) {
  const records = useRecords(schoolClass.id).data;
  const met = () => {
    const standing = records ? classStanding(knownChildren(records)) : [];
    return new Set(standing.filter((one) => one.met).map(({ element }) => element));
  };
  return (
    <Form.Check
      type="checkbox"
      id="filter-met"
      label={t`Met by ${schoolClass.name}`}
      checked={checked}
      disabled={!records}
      onChange={({ target }) => onMet(target.checked ? met() : undefined)}
    />
  );
}
