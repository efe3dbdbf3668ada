import { perLanguage, t } from '../../../core/words/say.ts';
import { type ReactNode, Suspense, lazy, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link, useNavigate, useParams } from 'react-router';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { CountOptions } from '../../../core/counting/count.ts';
import { type Score, leadingPart } from '../../../core/rhythm/score.ts';
import type { NamingId } from '../../../core/wording/valueNames.ts';
import { namingOf, voiceOf } from '../../../core/wording/voice.ts';
import { remove } from '../../api/client.ts';
import { usePatterns } from '../../api/hooks.ts';
import { named } from '../../files/named.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { Loading } from '../../ui/Loading.tsx';
import { MadeBy, ToShelf } from '../../domain/ToShelf.tsx';
import { useCurrentClass } from '../../domain/currentClass.ts';
import { useSave } from '../../api/useSave.ts';
import { BarCheckLine } from './BarCheckLine.tsx';
import { LaneChooser, useCounts, type Lanes, useLanes } from '../../ruler/LaneChooser.tsx';
import { OtherWays } from '../../take/OtherWays.tsx';
import { NoteExplained, type Picked } from './NoteExplained.tsx';
import { RhythmField } from './RhythmField.tsx';
import { SpeechTrouble, SpokenReading, useSpoken } from './SpokenReading.tsx';
import { TextHelp } from './TextHelp.tsx';
import { type Draft, type DraftParse, type SaveState, forgetDraft, theirsIn } from './patternDraft.ts';
import { useDraft } from './useDraft.ts';
import './patterns.scss';

const BracketsForm = lazy(() => import('./BracketsForm.tsx'));
const PatternClash = lazy(() => import('./PatternClash.tsx'));
const PartsForm = lazy(() => import('./PartsForm.tsx'));
const TakeOut = lazy(() => import('../../files/TakeOut.tsx'));

export default function PatternPage() {
  const { patternId = '' } = useParams();
  const { data, error, mutate } = usePatterns();
  if (!data) return <Loading title={t`Pattern`} problem={error} again={() => void mutate()} />;
  return <Editor key={patternId} id={patternId} saved={data.find(({ id }) => id === patternId)} />;
}

function Editor({ id, saved }: { id: string; saved: SavedPattern | undefined }) {
  const { draft, parse, state, problem, change, choose } = useDraft(id, saved);
  const theirs = theirsIn(problem);
  const { lanes, set } = useLanes();
  const currentClass = useCurrentClass();
  const naming = namingOf(currentClass);
  const { reading: spoken, trouble } = useSpoken(draft.text, parse.error !== undefined);
  const counts = useCounts(lanes, currentClass);
  const write = (text: string) => change({ ...draft, text });
  return (
    <div className="pattern-editor">
      <EditorHead id={id} saved={saved !== undefined} draft={draft} state={state} onChange={change} />
      {theirs && (
        <Suspense fallback={null}>
          <PatternClash theirs={{ ...theirs }} mine={draft} onChosen={(theirsStays) => choose(theirs, theirsStays)} />
        </Suspense>
      )}
      {problem && !theirs && state === 'on-device' && <Notice problem={problem} />}
      <RhythmField text={draft.text} error={spoken ? undefined : parse.error} onChange={write} />
      <BarCheckLine parse={parse} naming={naming} />
      {spoken && <SpokenReading spoken={spoken} onUse={write} />}
      {trouble && <SpeechTrouble trouble={trouble} />}
      <LaneChooser lanes={lanes} set={set} parts={parse.score?.parts.length} />
      {!spoken && <DraftRuler parse={parse} lanes={lanes} counts={counts} brackets={saved?.brackets} />}
      {parse.score && !parse.error && !spoken && (
        <ReadPattern score={parse.score} {...{ draft, saved, state, naming }} onWrite={write} />
      )}
      <TextHelp naming={naming} />
    </div>
  );
}

interface ReadProps {
  readonly score: Score;
  readonly draft: Draft;
  readonly saved: SavedPattern | undefined;
  readonly state: SaveState;
  readonly naming: NamingId;
  readonly onWrite: (text: string) => void;
}

/** What can be done with a rhythm that can be read. */
function ReadPattern({ score, draft, saved, state, naming, onWrite }: ReadProps) {
  const [only] = score.parts;
  const { pattern } = leadingPart(score);
  return (
    <>
      {score.parts.length === 1 && <OtherWays pattern={only!.pattern} onUse={onWrite} />}
      <div className="pattern-tools no-print">
        <Opened name={t`Parts`}>
          <PartsForm score={score} text={draft.text} ownId={saved?.id} onWrite={onWrite} />
        </Opened>
        {saved && state === 'saved' && (
          <Opened name={t`Words over a stretch`}>
            <BracketsForm saved={saved} pattern={pattern} naming={naming} />
          </Opened>
        )}
        <Out score={score} draft={draft} saved={saved} />
      </div>
    </>
  );
}

/** A button that opens what is loaded when somebody wants it. */
function Opened({ name, beside, children }: { name: string; beside?: ReactNode; children: ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    <section className={open ? 'brackets-form tool-open' : 'brackets-form'}>
      <Button variant="outline-dark" aria-expanded={open} onClick={() => setOpen(!open)}>
        {name}
      </Button>{' '}
      {beside}
      {open && <Suspense fallback={null}>{children}</Suspense>}
    </section>
  );
}

/** The pattern as a file of another kind, and on paper. */
function Out({ score, draft: { title }, saved }: Pick<ReadProps, 'score' | 'draft' | 'saved'>) {
  const { counts } = voiceOf(useCurrentClass());
  const onPaper = saved && (
    <>
      <Link className="btn btn-outline-dark" to={`/sheets?pattern=${saved.id}`}>{t`On a sheet`}</Link>{' '}
      <ToShelf kind="pattern" id={saved.id} /> <MadeBy from={saved.from} />
    </>
  );
  return (
    <Opened name={t`Take out`} beside={onPaper}>
      <TakeOut patterns={[named(title, score)]} name={title} counts={counts} />
    </Opened>
  );
}

const STATES = perLanguage((): Readonly<Record<SaveState, string>> => ({
  saved: t`Saved`,
  saving: t`Saving …`,
  'on-device': t`Kept on this device, not saved yet`,
  unfinished: t`Kept on this device until the rhythm is complete`,
}));

interface HeadProps {
  readonly id: string;
  /** The server has it, perhaps in an older form. */
  readonly saved: boolean;
  readonly draft: Draft;
  readonly state: SaveState;
  readonly onChange: (draft: Draft) => void;
}

function EditorHead({ id, saved, draft, state, onChange }: HeadProps) {
  const navigate = useNavigate();
  const removal = useSave(() => remove(`/patterns/${id}`), '/patterns', '/classes');
  const removeIt = async () => {
    if (!confirm(t`Remove “${draft.title || t`this pattern`}”? Takes of it stay.`)) return;
    if (saved && !(await removal.save())) return;
    forgetDraft(id);
    await navigate('/patterns');
  };
  return (
    <>
      <h1 className="visually-hidden">{t`Pattern: ${draft.title || t`untitled`}`}</h1>
      <div className="page-head">
        <Form.Control
          className="title-field"
          value={draft.title}
          placeholder={t`Untitled`}
          aria-label={t`Title`}
          maxLength={60}
          onChange={(event) => onChange({ ...draft, title: event.target.value })}
        />
        <span role="status" className={`save-state save-${state}`}>
          {draft.text.trim() === '' ? '' : STATES()[state]}
        </span>
        <span className="flex-grow-1" />
        {saved && state === 'saved' && (
          <>
            <Button variant="outline-dark" onClick={() => void navigate(`/board/${id}`)}>{t`Board`}</Button>
            <Button variant="outline-dark" onClick={() => void navigate(`/lead?pattern=${id}`)}>
              {t`Lead the class`}
            </Button>
            <Button onClick={() => void navigate(`/take?pattern=${id}`)}>{t`Hear a child clap it`}</Button>
          </>
        )}
        <Button variant="outline-dark" onClick={() => void removeIt()}>{t`Remove`}</Button>
      </div>
      {removal.problem && <Notice problem={removal.problem} />}
    </>
  );
}

interface DraftRulerProps {
  readonly brackets: SavedPattern['brackets'];
  readonly parse: DraftParse;
  readonly lanes: Lanes;
  readonly counts: readonly CountOptions[];
}

function DraftRuler({ parse: { score, error }, lanes, counts, brackets }: DraftRulerProps) {
  const [picked, setPicked] = useState<Picked>();
  const naming = namingOf(useCurrentClass());
  if (!score)
    return (
      <div className="empty">{t`Write a rhythm above: letters are notes, parentheses are rests, | is a bar.`}</div>
    );
  const { notes, strips, hands, feet, size, oneLine } = lanes;
  const pattern = (score.parts[picked?.part ?? 0] ?? score.parts[0]!).pattern;
  return (
    <div className={`ruler-card ${error ? 'ruler-stale' : ''}`}>
      <Ruler
        pattern={score.parts[0]!.pattern}
        parts={score.parts}
        oneLine={oneLine}
        size={size}
        notes={notes}
        strips={strips}
        hands={hands}
        feet={feet}
        counts={counts}
        brackets={brackets}
        onPick={setPicked}
      />
      {picked && (
        <NoteExplained
          pattern={pattern}
          picked={picked}
          counts={counts}
          naming={naming}
          onPick={setPicked}
          onClose={() => setPicked(undefined)}
        />
      )}
    </div>
  );
}
