import { perLanguage, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { parseISO } from 'date-fns';
import { format } from '../../words/dates.ts';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import type { ClassDetail } from '../../../contract/schoolClass.ts';
import type { Hearing } from '../../../contract/together.ts';
import { changedText } from '../../../core/wording/classTogetherWords.ts';
import type { Voice } from '../../../core/wording/voice.ts';
import { remove } from '../../api/client.ts';
import { useSave } from '../../api/useSave.ts';
import { mayHear, useChooseClass } from '../../domain/currentClass.ts';
import { HearingPicture } from '../../leading/HearingPicture.tsx';
import { WidthBar } from '../../leading/WidthBar.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { type Passes, type PatternWeeks, narrower, weeksOf } from '../../domain/togetherWeeks.ts';

const FROM = perLanguage(
  () =>
    ({
      microphone: t`heard while it was led`,
      recording: t`from a recording`,
      takes: t`from single takes`,
    }) as const,
);

interface WeeksProps {
  readonly schoolClass: ClassDetail;
  readonly hearings: readonly Hearing[];
  readonly voice: Voice;
}

/** A pattern a row, a week a column; the one that is chosen as a picture below. */
export function WeekByWeek({ schoolClass, hearings, voice }: WeeksProps) {
  const { mondays, rows } = useMemo(() => weeksOf(hearings), [hearings]);
  const [chosen, setChosen] = useState<string>();
  const chooseClass = useChooseClass();
  const shown = hearings.find(({ id }) => id === chosen) ?? rows[0]?.weeks.get(mondays.at(-1) ?? '')?.at(-1);
  if (rows.length === 0)
    return (
      <div className="empty">
        {rich`Nothing was heard of the class together yet. Lead a pattern and press E while it
          goes, or take its single takes or a recording above.
          ${<Link to="/lead" onClick={() => chooseClass(schoolClass.id)}>{t`Lead`}</Link>}`}
      </div>
    );
  return (
    <>
      <WeeksTable mondays={mondays} rows={rows} shown={shown?.id} onChoose={setChosen} />
      {shown && (
        <Heard
          key={shown.id}
          hearing={shown}
          schoolClass={schoolClass}
          passes={rows.flatMap(({ weeks }) => [...weeks.values()]).find((all) => all.includes(shown)) ?? [shown]}
          voice={voice}
          onChoose={setChosen}
        />
      )}
    </>
  );
}

interface TableProps {
  readonly mondays: readonly string[];
  readonly rows: readonly PatternWeeks[];
  /** The pass that is shown. */
  readonly shown: string | undefined;
  readonly onChoose: (id: string) => void;
}

function WeeksTable({ mondays, rows, shown, onChoose }: TableProps) {
  return (
    <div className="weeks-scroll">
      <table className="weeks-table" aria-label={t`How wide a clap of the class was`}>
        <thead>
          <tr>
            <th scope="col">{t`Pattern`}</th>
            {mondays.map((monday) => (
              <th key={monday} scope="col">
                {format(parseISO(monday), 'd MMM')}
              </th>
            ))}
            <th scope="col">{t`Since the week before`}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.text}>
              <th scope="row">{row.title}</th>
              {mondays.map((monday) => (
                <td key={monday}>
                  <WeekCell
                    row={row}
                    passes={row.weeks.get(monday)}
                    monday={monday}
                    shown={shown}
                    onChoose={onChoose}
                  />
                </td>
              ))}
              <td className="weeks-change">{changedText(narrower(row, mondays))}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface CellProps {
  readonly row: PatternWeeks;
  readonly passes: Passes | undefined;
  readonly monday: string;
  readonly shown: string | undefined;
  readonly onChoose: (id: string) => void;
}

/** The last pass of a week: what the class came to. */
function WeekCell({ row, passes, monday, shown, onChoose }: CellProps) {
  const last = passes?.at(-1);
  if (!passes || !last) return <span className="weeks-none">–</span>;
  const width = last.heard.widthMs ?? 0;
  return (
    <button
      type="button"
      className="weeks-cell"
      aria-pressed={passes.some(({ id }) => id === shown)}
      aria-label={t`${Math.round(width)} ms: ${row.title}, week of ${format(parseISO(monday), 'd MMMM')}`}
      onClick={() => onChoose(last.id)}
    >
      <WidthBar widthMs={width} least={8} />
      {t`${Math.round(width)} ms`}
    </button>
  );
}

interface HeardProps {
  readonly hearing: Hearing;
  readonly passes: Passes;
  readonly schoolClass: ClassDetail;
  readonly voice: Voice;
  readonly onChoose: (id: string) => void;
}

/** One pass, and the others of its week beside it. */
function Heard({ hearing, passes, schoolClass, voice, onChoose }: HeardProps) {
  const { id, title, takenAt, bpm, patternText, heard, from } = hearing;
  const removing = useSave(() => remove(`/classes/${schoolClass.id}/together/${id}`), '/classes', '/bin');
  const at = passes.indexOf(hearing);
  return (
    <section className="weeks-heard" aria-label={t`What was heard`}>
      <div className="weeks-heard-head">
        <h2>{title}</h2>
        <span>{t`${format(takenAt, 'd MMMM, HH:mm')}, ${Math.round(bpm)} beats a minute, ${FROM()[from]}`}</span>
        <span className="flex-grow-1" />
        {passes.length > 1 && (
          <>
            <Button size="sm" variant="outline-dark" disabled={at === 0} onClick={() => onChoose(passes[at - 1]!.id)}>
              {t`Pass before`}
            </Button>
            <span>{t`${at + 1} of ${passes.length}`}</span>
            <Button
              size="sm"
              variant="outline-dark"
              disabled={at === passes.length - 1}
              onClick={() => onChoose(passes[at + 1]!.id)}
            >
              {t`Pass after`}
            </Button>
          </>
        )}
        {mayHear(schoolClass) && (
          <Button size="sm" variant="outline-dark" onClick={() => void removing.save()}>{t`Remove this pass`}</Button>
        )}
      </div>
      {removing.problem && <Notice problem={removing.problem} />}
      <HearingPicture text={patternText} bpm={bpm} heard={heard} voice={voice} />
    </section>
  );
}
