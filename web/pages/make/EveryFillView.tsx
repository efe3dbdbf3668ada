import { counted, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { createPortal } from 'react-dom';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import { cellTexts, everyFill } from '../../../core/making/everyFill.ts';
import { MOST_DEALT } from '../../../core/records/lineUp.ts';
import type { Measure } from '../../../core/rhythm/pattern.ts';
import { soundings } from '../../../core/rhythm/soundings.ts';
import { measureText, parseRhythm, printRhythm } from '../../../core/rhythm/text.ts';
import { measureName } from '../../../core/wording/valueNames.ts';
import { CardNotes } from '../../ruler/CardNotes.tsx';
import { MiniNotes } from '../../ruler/MiniNotes.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { useStored } from '../../store/stored.ts';
import { lineUpOn, useKeepPatterns } from '../../domain/keepPatterns.ts';
import type { MakeViewProps } from './NewOnesView.tsx';
import { METERS, meterIn } from './makeSettings.ts';

/** Between the cells that are remembered. */
const BETWEEN = '|';
const USUAL_CELLS = ['h', '(h)'].join(BETWEEN);

/** A drill is as long as a class can go through at once. */
const MOST_IN_DRILL = 32;

const alone = (measure: Measure) => ({ pickup: false, measures: [measure] });

/** Every way to fill a measure from a few cells: as a drill, as cards, for a line-up. */
export function EveryFillView({ actions, schoolClass, naming }: MakeViewProps) {
  const [meterText, setMeter] = useStored('make.all.meter', '4/4');
  const [stored, setStored] = useStored('make.all.cells', USUAL_CELLS);
  const meter = meterIn(meterText);
  const cells = cellTexts(meter);
  const chosen = cells.filter((cell) => stored.split(BETWEEN).includes(cell));
  const { measures, all } = everyFill(meter, chosen);
  const folder = chosen.join(', ').slice(0, 60);
  const out = useOut(folder);
  const toggle = (cell: string) =>
    setStored(cells.filter((one) => (one === cell ? !chosen.includes(cell) : chosen.includes(one))).join(BETWEEN));
  const drill = () => void (measures.length > 0 ? out.drill(measures.slice(0, MOST_IN_DRILL)) : undefined);
  useKeys({ ' ': drill });
  return (
    <>
      {createPortal(
        <Button size="lg" disabled={measures.length === 0 || out.saving} onClick={drill}>
          {rich`Lead them as a drill ${<kbd>{t`space`}</kbd>}`}
        </Button>,
        actions,
      )}
      <div className="make-work">
        <section className="make-form" aria-label={t`What they are made of`}>
          <SelectField
            id="all-meter"
            label={t`Meter`}
            value={meterText}
            options={METERS.map((one) => [one, one] as const)}
            onChoose={setMeter}
          />
          <CellChecks meter={meterText} cells={cells} chosen={chosen} onToggle={toggle} />
        </section>
        <section aria-label={t`All of them`}>
          {out.problem && <Notice problem={out.problem} />}
          <FillActions
            said={countText(all, measures.length, measureName(naming, all !== 1))}
            measures={measures}
            out={out}
            classId={schoolClass?.id}
          />
          <ol className="fill-list">
            {measures.map((measure) => (
              <li key={measureText(measure)} className="made-card">
                <MiniNotes pattern={alone(measure)} />
                <span className="pattern-text">{measureText(measure)}</span>
              </li>
            ))}
          </ol>
        </section>
      </div>
    </>
  );
}

interface FillActionsProps {
  readonly said: string;
  readonly measures: readonly Measure[];
  readonly out: ReturnType<typeof useOut>;
  readonly classId: string | undefined;
}

/** How many there are, and where they can go. */
function FillActions({ said, measures, out, classId }: FillActionsProps) {
  const none = measures.length === 0 || out.saving;
  return (
    <div className="made-together">
      <p role="status">{said}</p>
      <Button variant="outline-dark" disabled={none} onClick={() => void out.cards(measures.slice(0, MOST_IN_DRILL))}>
        {t`As cards on paper`}
      </Button>
      {classId && (
        <Button variant="outline-dark" disabled={none} onClick={() => void out.lineUp(measures, classId)}>
          {t`For a line-up`}
        </Button>
      )}
    </div>
  );
}

function countText(all: number, shown: number, name: string): string {
  if (all === 0) return t`These fill no measure: choose others, or more.`;
  const more = shown < all ? t`, the first ${shown} of them here` : '';
  return `${counted(all, name, name)}${more}.`;
}

/** Pixels of a whole note where a cell is chosen. */
const WHOLE = 230;

interface CellChecksProps {
  readonly meter: string;
  readonly cells: readonly string[];
  readonly chosen: readonly string[];
  readonly onToggle: (cell: string) => void;
}

function CellChecks({ meter, cells, chosen, onToggle }: CellChecksProps) {
  return (
    <fieldset className="cell-checks">
      <legend>{t`Filled from`}</legend>
      {cells.map((cell) => {
        const parsed = parseRhythm(`${meter} ${cell}`);
        return (
          <label key={cell} className="cell-check">
            <Form.Check
              type="checkbox"
              aria-label={cell}
              checked={chosen.includes(cell)}
              onChange={() => onToggle(cell)}
            />
            {parsed.ok && <CardNotes pattern={parsed.pattern} whole={WHOLE} bar={false} />}
          </label>
        );
      })}
    </fieldset>
  );
}

/** Where the measures go: they are kept as patterns first, for everything else begins there. */
function useOut(folder: string) {
  const navigate = useNavigate();
  const { save, saving, problem } = useKeepPatterns();
  const asOne = async (measures: readonly Measure[]): Promise<string | undefined> => {
    const id = uuid();
    const text = printRhythm({ pickup: false, measures });
    return (await save([[id, { title: t`All of ${folder}`.slice(0, 60), text }]])) ? id : undefined;
  };
  return {
    saving,
    problem,
    drill: async (measures: readonly Measure[]) => {
      const id = await asOne(measures);
      if (id) await navigate(`/lead?pattern=${id}`);
    },
    cards: async (measures: readonly Measure[]) => {
      const id = await asOne(measures);
      if (id) await navigate(`/sheets?pattern=${id}&kinds=cards`);
    },
    lineUp: async (measures: readonly Measure[], classId: string) => {
      // A measure of rests alone gives nobody anything to clap.
      const sounded = measures.filter((measure) => soundings(alone(measure)).length > 0).slice(0, MOST_DEALT);
      const edits = sounded.map((measure) => {
        const text = printRhythm(alone(measure));
        return [uuid(), { title: text.slice(0, 60), text, folder }] as const;
      });
      if (edits.length === 0 || !(await save(edits))) return;
      await navigate(
        lineUpOn(
          classId,
          edits.map(([id]) => id),
        ),
      );
    },
  };
}
