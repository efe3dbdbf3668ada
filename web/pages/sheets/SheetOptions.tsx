import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { Dices } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import type { SheetEdit } from '../../../contract/sheet.ts';
import { LARGEST_SEED } from '../../../core/random.ts';
import { PAPERS } from '../../../core/sheets/sheet.ts';
import { hasVersions } from '../../../core/sheets/sheetKinds.ts';
import { voiceOf } from '../../../core/wording/voice.ts';
import { FASTEST_BPM, SLOWEST_BPM } from '../../../core/timing/limits.ts';
import { classOptions } from '../../domain/currentClass.ts';
import { SelectField } from '../../ui/SelectField.tsx';
import { anySeed, spoken } from './sheetDraft.ts';
import { PAPER_NAMES } from '../../domain/partWords.ts';

const NOBODY = '';

interface OptionsProps {
  readonly sheet: SheetEdit;
  readonly classes: readonly ClassSummary[];
  readonly onChange: (sheet: SheetEdit) => void;
}

/** What holds for the whole sheet. */
export function SheetOptions({ sheet, classes, onChange }: OptionsProps) {
  const change = (some: Partial<SheetEdit>) => onChange({ ...sheet, ...some });
  const forClass = (id: string) => {
    const known = classes.find((one) => one.id === id);
    change({ classId: known?.id ?? null, names: known ? sheet.names : false, ...spoken(voiceOf(known)) });
  };
  const heard = sheet.parts.some(({ kind }) => kind === 'choose' || kind === 'write' || kind === 'slip');
  return (
    <div className="sheet-options">
      <SelectField
        id="sheet-class"
        label={t`For`}
        value={sheet.classId ?? NOBODY}
        options={[[NOBODY, t`any class`], ...classOptions(classes)]}
        onChoose={forClass}
      />
      <SelectField
        id="sheet-paper"
        label={t`Paper`}
        value={sheet.paper}
        options={PAPERS.map((paper) => [paper, PAPER_NAMES()[paper]] as const)}
        onChoose={(paper) => change({ paper })}
      />
      <SeedField seed={sheet.seed} onSeed={(seed) => change({ seed })} />
      {heard && (
        <Form.Group controlId="sheet-bpm">
          <Form.Label>{t`Beats a minute`}</Form.Label>
          <Form.Control
            type="number"
            min={SLOWEST_BPM}
            max={FASTEST_BPM}
            value={sheet.bpm}
            onChange={({ target }) => change({ bpm: Number(target.value) || sheet.bpm })}
          />
        </Form.Group>
      )}
      <Checks sheet={sheet} onChange={change} />
    </div>
  );
}

function SeedField({ seed, onSeed }: { seed: number; onSeed: (seed: number) => void }) {
  return (
    <Form.Group controlId="sheet-seed">
      <Form.Label>{t`Seed`}</Form.Label>
      <div className="sheet-seed">
        <Form.Control
          type="number"
          min={0}
          max={LARGEST_SEED}
          value={seed}
          onChange={({ target }) => onSeed(Math.max(0, Math.min(LARGEST_SEED, Math.round(Number(target.value)) || 0)))}
        />
        <Button variant="outline-dark" onClick={() => onSeed(anySeed())}>
          <Dices size={16} aria-hidden /> {rich`Other questions ${<kbd>N</kbd>}`}
        </Button>
      </div>
    </Form.Group>
  );
}

function Checks({ sheet, onChange }: { sheet: SheetEdit; onChange: (some: Partial<SheetEdit>) => void }) {
  return (
    <div className="sheet-checks">
      <Form.Check
        id="sheet-large"
        label={t`Large print`}
        checked={sheet.large}
        onChange={({ target }) => onChange({ large: target.checked })}
      />
      <Form.Check
        id="sheet-versions"
        label={t`Two versions, A and B`}
        disabled={!sheet.parts.some(({ kind }) => hasVersions(kind))}
        checked={sheet.versions}
        onChange={({ target }) => onChange({ versions: target.checked })}
      />
      <Form.Check
        id="sheet-two"
        label={t`Two to a page, smaller`}
        checked={sheet.twoToAPage === true}
        onChange={({ target }) => onChange({ twoToAPage: target.checked })}
      />
      <Form.Check
        id="sheet-names"
        label={t`The children’s names on it`}
        disabled={sheet.classId === null}
        checked={sheet.names}
        onChange={({ target }) => onChange({ names: target.checked })}
      />
    </div>
  );
}
