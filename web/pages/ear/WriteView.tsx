import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { type ReactNode, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useSearchParams } from 'react-router';
import { canBeLaid, compareWritten } from '../../../core/ear/written.ts';
import { rhythmFrom } from '../../../core/exercises/rhythms/cells.ts';
import { randomFrom } from '../../../core/random.ts';
import type { Meter } from '../../../core/rhythm/meter.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { unfold } from '../../../core/rhythm/place.ts';
import type { ValueLetter } from '../../../core/rhythm/value.ts';
import { writtenHeadline } from '../../../core/wording/writtenWords.ts';
import { hearCounts } from '../../audio/hearCounts.ts';
import { StripBoard, hearStrips } from '../../strips/StripBoard.tsx';
import { TRAY } from '../../strips/stripLines.ts';
import { useStripLine } from '../../strips/useStripLine.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { HeardFrom, MADE } from './HeardFrom.tsx';
import { HeardLine } from './HeardLine.tsx';
import { Syllables } from './Syllables.tsx';
import { WrittenResult } from './WrittenResult.tsx';
import { type EarSettings, newSeed, useReadPatterns, useVocabulary } from './earSettings.ts';
import { measuresOf } from './measuresOf.ts';
import { useHear } from '../../audio/useHear.ts';

const BEAT: Readonly<Record<number, ValueLetter>> = { 1: 'w', 2: 'h', 4: 'q', 8: 'e', 16: 's' };

/** Hear it, write it down, compare. */
export function WriteView({ settings }: { settings: EarSettings }) {
  const { met, meter } = settings;
  const patterns = useReadPatterns().filter(({ pattern }) => canBeLaid(pattern));
  const [search] = useSearchParams();
  const asked = search.get('pattern');
  const [chosen, setChosen] = useState(asked ?? MADE);
  const [before, setBefore] = useState(asked);
  // A lesson goes from one to the next without leaving the view.
  if (asked !== before) {
    setBefore(asked);
    setChosen(asked ?? MADE);
  }
  const [measures, setMeasures] = useState(1);
  const [seed, setSeed] = useState(newSeed);
  const saved = patterns.find(({ id }) => id === chosen)?.pattern;
  const made = useMemo(() => {
    const plain = met.filter((id) => id !== 'triplet');
    return rhythmFrom({ elements: plain, meter, beats: measuresOf(meter, measures) }, randomFrom(seed));
  }, [met, meter, measures, seed]);
  const pattern = saved ? unfold(saved) : made;
  return (
    <>
      {pattern ? (
        <WriteOne
          key={JSON.stringify([chosen, measures, seed, met, meter])}
          pattern={pattern}
          settings={settings}
          onAnother={() => {
            setChosen(MADE);
            setSeed(newSeed());
          }}
        />
      ) : (
        <div className="empty">{t`From these elements no such measure can be made. Choose more of them above.`}</div>
      )}
      <HeardFrom
        id="write-from"
        patterns={patterns}
        chosen={saved ? chosen : MADE}
        onChoose={setChosen}
        measures={measures}
        onMeasures={setMeasures}
      />
    </>
  );
}

interface OneProps {
  readonly pattern: Pattern;
  readonly settings: EarSettings;
  readonly onAnother: () => void;
}

const beatOfMeter = ({ lower }: Meter) => BEAT[lower] ?? 'q';

/** What is in the tray: only what the class has met, unless it is opened up. */
function useTray(settings: EarSettings) {
  const { signs } = useVocabulary(settings);
  const [open, setOpen] = useState(false);
  const has = (sign: string) => [...signs].some((one) => one.includes(sign));
  const tray = open ? TRAY : TRAY.filter(({ base }) => has(base));
  const actions = open
    ? undefined
    : ['x', 'j', ...(has('~') ? ['t'] : []), ...(has('.') ? ['.'] : []), ...(has('(') ? ['r'] : [])];
  return { tray, actions, open, setOpen };
}

/** What is on the line, and how it compares to what is heard. */
function useWriting(pattern: Pattern, settings: EarSettings) {
  const { bpm, voice } = settings;
  const line = useStripLine({ meter: pattern.measures[0]!.meter, measures: pattern.measures.length });
  const [syllables, setSyllables] = useState(false);
  const [checked, setChecked] = useState<Pattern>();
  const { moment, hear, stop } = useHear();
  const own = line.pattern;
  const result = useMemo(() => checked && compareWritten(pattern, checked), [pattern, checked]);
  return {
    line,
    own,
    moment,
    syllables,
    checked,
    result,
    play: () => void hear(pattern, bpm, { plays: 1, turn: false }),
    hearOwn: () => {
      stop();
      if (own) hearStrips(own, line.strips, bpm);
    },
    say: () => {
      stop();
      setSyllables(true);
      void hearCounts(pattern, bpm, voice.counts);
    },
    compare: () => own && setChecked(own),
  };
}

type Writing = ReturnType<typeof useWriting>;

function WriteOne({ pattern, settings, onAnother }: OneProps) {
  const { voice } = settings;
  const writing = useWriting(pattern, settings);
  const { tray, actions, open, setOpen } = useTray(settings);
  const [asNotes, setAsNotes] = useState(false);
  const { line, moment, result, checked, syllables, play } = writing;
  const turn = () => setAsNotes(!asNotes);
  useKeys({
    ' ': result?.right ? onAnother : play,
    o: writing.hearOwn,
    Enter: writing.compare,
    y: writing.say,
  });
  const quiet = result ? writtenHeadline(result, voice.naming) : t`Listen, then write it`;
  return (
    <section className="write" aria-label={t`Write what you hear`}>
      <HeardLine moment={moment} quiet={line.trouble || quiet} />
      {syllables && <Syllables pattern={pattern} counts={voice.counts} />}
      <StripBoard
        line={line}
        naming={voice.naming}
        beat={beatOfMeter(pattern.measures[0]!.meter)}
        asNotes={asNotes}
        onNotes={turn}
        tray={tray}
        actions={actions}
      />
      {result && checked && <WrittenResult result={result} pattern={pattern} answer={checked} naming={voice.naming} />}
      <WriteActions writing={writing} asNotes={asNotes} onNotes={turn} onAnother={onAnother}>
        <Button variant="outline-dark" aria-pressed={open} onClick={() => setOpen(!open)}>
          {open ? t`Only what was met` : t`Open up the tray`}
        </Button>
      </WriteActions>
    </section>
  );
}

interface ActionsProps {
  readonly writing: Writing;
  readonly asNotes: boolean;
  readonly onNotes: () => void;
  readonly onAnother: () => void;
  readonly children: ReactNode;
}

function WriteActions({ writing, asNotes, onNotes, onAnother, children }: ActionsProps) {
  const { own, result, play, say, hearOwn, compare } = writing;
  const right = result?.right === true;
  return (
    <div className="stage-actions">
      <Button size="lg" variant={right ? 'outline-dark' : 'primary'} onClick={play}>
        {t`Hear it`} {!right && <kbd>{t`space`}</kbd>}
      </Button>
      <Button size="lg" variant="outline-dark" onClick={say}>
        {rich`In syllables ${<kbd>Y</kbd>}`}
      </Button>
      <Button size="lg" variant="outline-dark" disabled={!own} onClick={hearOwn}>
        {rich`Hear mine ${<kbd>O</kbd>}`}
      </Button>
      <Button size="lg" variant={right ? 'outline-dark' : 'dark'} disabled={!own} onClick={compare}>
        {rich`Compare ${<kbd>{t`enter`}</kbd>}`}
      </Button>
      <Button size="lg" variant={asNotes ? 'dark' : 'outline-dark'} aria-pressed={asNotes} onClick={onNotes}>
        {rich`As notes ${<kbd>N</kbd>}`}
      </Button>
      <Button size="lg" variant={right ? 'primary' : 'outline-dark'} onClick={onAnother}>
        {t`Another one`} {right && <kbd>{t`space`}</kbd>}
      </Button>
      {children}
    </div>
  );
}
