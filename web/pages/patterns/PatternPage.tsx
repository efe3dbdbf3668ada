import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { useNavigate, useParams } from 'react-router';
import type { SavedPattern } from '../../../contract/school.ts';
import { remove } from '../../api/client.ts';
import { usePatterns, useRefresh } from '../../api/hooks.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { writeStored } from '../../ui/stored.ts';
import { BarCheckLine } from './BarCheckLine.tsx';
import type { CountOptions } from '../../../core/counting/count.ts';
import { countsOf, namingOf } from '../../../core/wording/voice.ts';
import { useCurrentClass } from '../../api/currentClass.ts';
import { NoteExplained, type Picked } from './NoteExplained.tsx';
import { SpokenReading, useSpoken } from './SpokenReading.tsx';
import { LaneChooser, useLanes } from './LaneChooser.tsx';
import { RhythmField } from './RhythmField.tsx';
import { TextHelp } from './TextHelp.tsx';
import { type SaveState, useDraft } from './useDraft.ts';
import './patterns.scss';

export default function PatternPage() {
  const { patternId = '' } = useParams();
  const { data, error, mutate } = usePatterns();
  if (!data) return error ? <Notice problem={error} again={() => void mutate()} /> : null;
  return <Editor key={patternId} id={patternId} saved={data.find(({ id }) => id === patternId)} />;
}

const STATES: Readonly<Record<SaveState, string>> = {
  saved: 'Saved',
  saving: 'Saving …',
  'on-device': 'Kept on this device, not saved yet',
  unfinished: 'Kept on this device until the rhythm is complete',
};

function Editor({ id, saved }: { id: string; saved: SavedPattern | undefined }) {
  const { draft, reading, state, problem, change } = useDraft(id, saved);
  const lanes = useLanes();
  const navigate = useNavigate();
  const refresh = useRefresh();
  const room = useCurrentClass();
  const [picked, setPicked] = useState<Picked>();
  const spoken = useSpoken(draft.text, reading.error !== undefined);
  const shownLanes = JSON.stringify([lanes.value.schools, lanes.value.rests]);
  const counts = useMemo(() => {
    const { schools, rests } = lanes.value;
    return schools.map((school): CountOptions => ({
      ...(room ? countsOf(room, school) : { school }),
      ...(rests ? { rests } : {}),
    }));
    // The lanes are read from the device's store each time; only what they say counts.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [shownLanes, room]);
  const removeIt = async () => {
    if (!confirm(`Remove “${draft.title || 'this pattern'}”? Takes of it stay.`)) return;
    if (saved) await remove(`/patterns/${id}`);
    writeStored(`draft:${id}`, undefined);
    await refresh('/patterns', '/classes');
    await navigate('/patterns');
  };
  return (
    <div className="pattern-editor">
      <div className="page-head">
        <Form.Control
          className="title-field"
          value={draft.title}
          placeholder="Untitled"
          aria-label="Title"
          maxLength={60}
          onChange={(event) => change({ ...draft, title: event.target.value })}
        />
        <span role="status" className={`save-state save-${state}`}>
          {draft.text.trim() === '' ? '' : STATES[state]}
        </span>
        <span className="flex-grow-1" />
        {saved && state === 'saved' && (
          <>
            <Button variant="outline-dark" onClick={() => void navigate(`/lead?pattern=${id}`)}>
              Lead the class
            </Button>
            <Button onClick={() => void navigate(`/take?pattern=${id}`)}>Hear a child clap it</Button>
          </>
        )}
        <Button variant="outline-dark" onClick={() => void removeIt()}>
          Remove
        </Button>
      </div>
      {problem && state === 'on-device' && <Notice problem={problem} />}
      <RhythmField
        text={draft.text}
        error={spoken ? undefined : reading.error}
        onChange={(text) => change({ ...draft, text })}
      />
      <BarCheckLine reading={reading} />
      {spoken && <SpokenReading spoken={spoken} onUse={(text) => change({ ...draft, text })} />}
      <LaneChooser lanes={lanes} />
      {spoken ? null : reading.pattern ? (
        <div className={`ruler-card ${reading.error ? 'ruler-stale' : ''}`}>
          <Ruler
            pattern={reading.pattern}
            size={lanes.value.size}
            notes={lanes.value.notes}
            strips={lanes.value.strips}
            hands={lanes.value.hands}
            feet={lanes.value.feet}
            counts={counts}
            onPick={setPicked}
          />
          {picked && (
            <NoteExplained
              pattern={reading.pattern}
              picked={picked}
              counts={counts}
              naming={namingOf(room)}
              onPick={setPicked}
              onClose={() => setPicked(undefined)}
            />
          )}
        </div>
      ) : (
        <div className="empty">Write a rhythm above: letters are notes, parentheses are rests, | is a bar.</div>
      )}
      <TextHelp naming={namingOf(room)} />
    </div>
  );
}
