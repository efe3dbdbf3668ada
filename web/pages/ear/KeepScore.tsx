import { perLanguage, t } from '../../../core/words/say.ts';
import { format } from '../../words/dates.ts';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { v4 as uuid } from 'uuid';
import type { EarKind } from '../../../contract/ear.ts';
import { put } from '../../api/client.ts';
import { useEarTallies } from '../../api/earTallies.ts';
import { useClass, useRecords } from '../../api/hooks.ts';
import { Notice } from '../../ui/Notice.tsx';
import { mayHear } from '../../domain/currentClass.ts';
import { SelectField } from '../../ui/SelectField.tsx';
import { useSave } from '../../api/useSave.ts';
import type { EarSettings } from './earSettings.ts';

/** What a run came to. */
export interface RunKept {
  readonly kind: EarKind;
  readonly right: number;
  readonly asked: number;
  /** By what was mistaken, how often. */
  readonly mistakes: Readonly<Record<string, number>>;
}

const TITLES = perLanguage((): Readonly<Record<EarKind, string>> => ({
  echo: t`Echo`,
  choose: t`Choose`,
  write: t`Write it`,
  signs: t`Signs`,
}));

/** Made in the ear view: the title says so in the grid. */
const columnTitle = (kind: EarKind) => t`Ear: ${TITLES()[kind]}`;

const CLASS = '';

/** The score is kept for the class, or as a mark of one child. Nothing is kept unless it is asked for. */
export function KeepScore({ run, settings }: { run: RunKept; settings: EarSettings }) {
  const { schoolClass } = settings;
  if (!schoolClass || !mayHear(schoolClass) || run.asked === 0) return null;
  return <Keep run={run} classId={schoolClass.id} className={schoolClass.name} />;
}

function Keep({ run, classId, className }: { run: RunKept; classId: string; className: string }) {
  const { data: detail } = useClass(classId);
  const { data: records } = useRecords(classId);
  const [who, setWho] = useState(CLASS);
  const [kept, setKept] = useState<string>();
  const [id] = useState(() => uuid());
  const path = `/classes/${classId}`;
  const [now] = useState(() => new Date());
  const save = useSave(async () => {
    const { kind, right, asked, mistakes } = run;
    if (who === CLASS) return put(`${path}/ear/${id}`, { kind, right, asked, mistakes, takenAt: +now });
    // Everybody's marks of a day stand in one column.
    const title = columnTitle(kind);
    const today = format(now, 'yyyy-MM-dd');
    const column = records?.paper.find(
      (one) => one.title === title && one.outOf === asked && format(one.takenAt, 'yyyy-MM-dd') === today,
    );
    return put(`${path}/paper/${column?.id ?? id}`, {
      title,
      outOf: asked,
      takenAt: column?.takenAt ?? +now,
      points: { [who]: Math.min(right, asked) },
    });
  }, path);
  const children = detail?.children ?? [];
  const keep = async () => {
    if (await save.save()) setKept(who === CLASS ? className : children.find((child) => child.id === who)?.name);
  };
  return (
    <div className="keep-score">
      <SelectField
        id="keep-for"
        label={t`Keep the score`}
        value={who}
        options={[
          [CLASS, t`for ${className}`],
          ...children.map((child) => [child.id, `as a mark of ${child.name}`] as const),
        ]}
        onChoose={(chosen) => {
          setWho(chosen);
          setKept(undefined);
        }}
      />
      <Button variant="outline-dark" size="lg" disabled={save.saving || kept !== undefined} onClick={() => void keep()}>
        {kept === undefined ? t`Keep it` : t`Kept for ${kept}`}
      </Button>
      {save.problem && <Notice problem={save.problem} />}
      <LastTimes classId={classId} kind={run.kind} />
    </div>
  );
}

const MOST_SHOWN = 5;

/** How the class did before. */
function LastTimes({ classId, kind }: { classId: string; kind: EarKind }) {
  const { data } = useEarTallies(classId);
  const own = (data ?? []).filter((tally) => tally.kind === kind).slice(0, MOST_SHOWN);
  if (own.length === 0) return null;
  return (
    <p className="last-times">
      {t`The class before:
        ${own.map(({ takenAt, right, asked }) => t`${format(takenAt, 'd MMM')} ${right} of ${asked}`).join(' · ')}`}
    </p>
  );
}
