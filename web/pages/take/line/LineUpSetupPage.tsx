import { counted, t } from '../../../../core/words/say.ts';
import { rich } from '../../../ui/rich.tsx';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Link, useLocation, useNavigate, useSearchParams } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { LineUp, NewLineUp } from '../../../../contract/lineUp.ts';
import type { ClassRecords } from '../../../../contract/records.ts';
import type { ClassDetail, ClassSummary } from '../../../../contract/schoolClass.ts';
import { partKey } from '../../../../core/records/partKey.ts';
import { ELEMENT_IDS, elementsOf } from '../../../../core/rhythm/elements.ts';
import { durationText } from '../../../../core/wording/leadWords.ts';
import { put } from '../../../api/client.ts';
import { useClass, useClasses, useLineUps, useRecords } from '../../../api/hooks.ts';
import { MicrophonePanel } from '../../../take/inputs/MicrophonePanel.tsx';
import { Notice } from '../../../ui/Notice.tsx';
import { Loading } from '../../../ui/Loading.tsx';
import { mayHear, useChooseClass, useHearingClass } from '../../../domain/currentClass.ts';
import { useKeys } from '../../../ui/useKeys.ts';
import { useSave } from '../../../api/useSave.ts';
import { heardIn } from '../WhoClaps.tsx';
import { type TakeSettings, useTakeSettings } from '../useTakeSettings.ts';
import { useOfferedPatterns } from '../../../domain/offeredPatterns.ts';
import { LineFields, type LineSettings } from './LineFields.tsx';
import { LineTable } from './LineTable.tsx';
import { Unfinished } from './Unfinished.tsx';
import { isOpen } from '../../../domain/openLineUps.ts';
import { type PlannedTurn, type ReadPattern, lineTime, planLine, readPatterns } from './linePlan.ts';
import './line.scss';

/** Before a class is heard child by child: what, how fast, who, and how long it will take. */
export default function LineUpSetupPage() {
  const classes = useClasses();
  const [search] = useSearchParams();
  const current = useHearingClass()?.id;
  const chosen = search.get('class') ?? current;
  const patterns = useOfferedPatterns(
    undefined,
    classes.data?.find(({ id }) => id === chosen),
  );
  const room = useClass(chosen);
  const records = useRecords(chosen);
  const lineUps = useLineUps(chosen);
  const problem = classes.error ?? patterns.error ?? room.error ?? records.error ?? lineUps.error;
  if (classes.data?.length === 0) return <Missing what={t`a class with the names of the children`} to="/classes" />;
  if (patterns.data?.length === 0) return <Missing what={t`a rhythm to clap`} to="/patterns" />;
  if (!classes.data || !patterns.data || !room.data || !records.data || !lineUps.data)
    return <Loading title={t`Line-up`} problem={problem} />;
  if (room.data.children.length === 0) return <Missing what={t`the children of the class`} to={`/classes/${chosen}`} />;
  return (
    <Setup
      key={`${room.data.id} ${search.toString()}`}
      classes={classes.data.filter(mayHear)}
      schoolClass={room.data}
      records={records.data}
      lineUps={lineUps.data}
      patterns={readPatterns(patterns.data)}
    />
  );
}

function Missing({ what, to }: { what: string; to: string }) {
  return (
    <div className="empty">
      <p>{t`For a line-up there must first be ${what}.`}</p>
      <Link className="btn btn-primary" to={to}>{t`Add it`}</Link>
    </div>
  );
}

interface SetupProps {
  readonly classes: readonly ClassSummary[];
  readonly schoolClass: ClassDetail;
  readonly records: ClassRecords;
  readonly lineUps: readonly LineUp[];
  readonly patterns: readonly ReadPattern[];
}

/** What a line-up says to this page when it is left. */
export interface LeftLine {
  readonly left: string;
}

const LONGEST_TITLE = 60;

/** What was asked for by the address: only some children, some patterns, an element to be practised. */
function useAsked(patterns: readonly ReadPattern[]) {
  const [search] = useSearchParams();
  const element = ELEMENT_IDS.find((id) => id === search.get('element'));
  const fitting = element && patterns.find(({ rhythm }) => elementsOf(rhythm).has(element));
  const wanted = (search.get('patterns') ?? search.get('pattern') ?? '').split(',');
  const asked = wanted.flatMap((id) => patterns.find((pattern) => pattern.id === id) ?? []);
  const usual = fitting ?? patterns[0];
  const [bpm, tries] = [Number(search.get('bpm')), Number(search.get('tries'))];
  return {
    patterns: asked.length > 0 || !usual ? asked : [usual],
    only: search.get('children')?.split(','),
    how: { ...(bpm > 0 ? { bpm } : {}), ...(tries > 0 ? { tries } : {}) },
  };
}

function Setup({ classes, schoolClass, records, lineUps, patterns }: SetupProps) {
  const asked = useAsked(patterns);
  const take = useTakeSettings();
  const chooseClass = useChooseClass();
  const navigate = useNavigate();
  const [id] = useState(() => uuid());
  const [settings, setSettings] = useState(() => usualSettings(asked, take.settings));
  const [away, setAway] = useState<ReadonlySet<string>>(
    () => new Set(asked.only ? schoolClass.children.flatMap((c) => (asked.only!.includes(c.id) ? [] : [c.id])) : []),
  );
  const chosen = settings.patternIds.flatMap((one) => patterns.find((pattern) => pattern.id === one) ?? []);
  const here = schoolClass.children.filter((child) => !away.has(child.id));
  const heard = chosen[0] ? heardIn(records, partKey(chosen[0].id, chosen[0].part.name)) : new Set<string>();
  const turns = chosen.length > 0 ? planLine(here, chosen, settings, heard) : [];
  const starting = useSave((lineUp: NewLineUp) => put(`/classes/${schoolClass.id}/line-ups/${id}`, lineUp), '/classes');
  const start = async () => {
    if (turns.length === 0) return;
    take.set({ bpm: settings.bpm, method: settings.heardBy });
    const done = await starting.save(lineUpOf(settings, chosen, turns));
    if (done) await navigate(`/take/line-up/${schoolClass.id}/${id}`);
  };
  const left = useLeft(lineUps);
  const goOn = () => void navigate(`/take/line-up/${schoolClass.id}/${left?.id}`);
  useKeys({ ' ': () => (left ? goOn() : void start()) });
  return (
    <div className="line-setup">
      <div className="page-head">
        <h1>{t`Line-up`}</h1>
        <TimeText turns={turns} tries={settings.tries} patterns={chosen.length} />
        <span className="flex-grow-1" />
        <StartButtons ready={turns.length > 0 && !starting.saving} onStart={() => void start()} onGoOn={left && goOn} />
      </div>
      {starting.problem && <Notice problem={starting.problem} />}
      <Unfinished classId={schoolClass.id} lineUps={lineUps} />
      <LineFields
        classes={classes}
        classId={schoolClass.id}
        patterns={patterns}
        settings={settings}
        onClass={(other) => {
          chooseClass(other);
          void navigate('/take/line-up', { replace: true });
        }}
        onSettings={(change) => setSettings({ ...settings, ...change })}
      />
      {settings.heardBy === 'microphone' && (
        <MicrophonePanel
          keeps={schoolClass.recordingDays ?? null}
          onTap={() => setSettings({ ...settings, heardBy: 'tap' })}
        />
      )}
      <LineTable schoolClass={schoolClass} turns={turns} away={away} heard={heard} onAway={setAway} />
    </div>
  );
}

interface StartButtonsProps {
  readonly ready: boolean;
  readonly onStart: () => void;
  /** Where one was left just now. */
  readonly onGoOn: (() => void) | undefined;
}

function StartButtons({ ready, onStart, onGoOn }: StartButtonsProps) {
  return (
    <>
      {onGoOn && (
        <Button size="lg" onClick={onGoOn}>
          {rich`Go on ${<kbd>{t`space`}</kbd>}`}
        </Button>
      )}
      <Button size="lg" variant={onGoOn ? 'outline-dark' : 'primary'} disabled={!ready} onClick={onStart}>
        {onGoOn ? t`Start another` : t`Start`} {!onGoOn && <kbd>{t`space`}</kbd>}
      </Button>
    </>
  );
}

interface TimeTextProps {
  readonly turns: readonly PlannedTurn[];
  readonly tries: number;
  readonly patterns: number;
}

/** How many are heard, how long that takes, and whether there are fewer patterns than children. */
function TimeText({ turns, tries, patterns }: TimeTextProps) {
  const time = lineTime(turns, tries);
  return (
    <span className="line-time" role="status">
      {t`${counted(turns.length, 'child', 'children')}, about
        ${durationText(time.once)}`}
      {tries > 1 && t`, with every try ${durationText(time.most)}`}
      {patterns > 1 && turns.length > patterns && t`; ${patterns} patterns, so that some come again`}
    </span>
  );
}

function usualSettings({ patterns, how }: ReturnType<typeof useAsked>, { bpm, method }: TakeSettings): LineSettings {
  const seed = Math.floor(Math.random() * 2 ** 32);
  const patternIds = patterns.map(({ id }) => id);
  return { patternIds, seed, bpm, heardBy: method, tries: 1, order: 'list', startsItself: false, ...how };
}

/** As it is sent; it is called after what is clapped. */
function lineUpOf(settings: LineSettings, chosen: readonly ReadPattern[], turns: readonly PlannedTurn[]): NewLineUp {
  const title = chosen.length === 1 ? chosen[0]!.title : t`${chosen[0]!.title} and ${chosen.length - 1} more`;
  return {
    title: title.slice(0, LONGEST_TITLE),
    settings: { ...settings, patternIds: [...settings.patternIds] },
    startedAt: Date.now(),
    turns: turns.map(({ child, pattern }) => ({ childId: child.id, patternId: pattern.id })),
  };
}

/** The line-up that was left just now: space goes on where it was. */
function useLeft(lineUps: readonly LineUp[]): LineUp | undefined {
  const state = useLocation().state as LeftLine | null;
  return lineUps.find((lineUp) => lineUp.id === state?.left && isOpen(lineUp));
}
