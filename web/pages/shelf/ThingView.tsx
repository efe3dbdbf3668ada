import { useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import { Volume2 } from 'lucide-react';
import { t } from '../../../core/words/say.ts';
import type { ShelfThing } from '../../../contract/schoolShelf.ts';
import { parseScore } from '../../../core/rhythm/scoreText.ts';
import { ACTIVITY_NAMES, WHO_NAMES } from '../../../core/wording/leadWords.ts';
import { BLOCK_WORDS, elementName, stepText } from '../../../core/wording/planWords.ts';
import { SHEET_WORDS } from '../../../core/wording/sheetWords.ts';
import type { NamingId } from '../../../core/wording/valueNames.ts';
import { type Hearing, useHear } from '../../audio/useHear.ts';
import { MiniNotes } from '../../ruler/MiniNotes.tsx';

interface ThingViewProps {
  readonly thing: ShelfThing;
  readonly naming: NamingId;
}

/** A thing of the shelf to look at, and where it sounds, to hear. */
export function ThingView({ thing, naming }: ThingViewProps) {
  const hearing = useHear();
  switch (thing.kind) {
    case 'pattern':
      return <Rhythm {...thing.pattern} hearing={hearing} />;
    case 'lines':
      return thing.patterns.map((pattern, i) => <Rhythm key={i} {...pattern} hearing={hearing} />);
    case 'plan':
      return (
        <ol>
          {thing.plan.passes.map(({ activity, who }, i) => (
            <li key={i}>{`${ACTIVITY_NAMES()[activity]}, ${WHO_NAMES()[who]}`}</li>
          ))}
        </ol>
      );
    case 'sheet':
      return (
        <ul>
          {thing.sheet.parts.map(({ key, kind, count }) => (
            <li key={key}>{`${SHEET_WORDS()[kind].title}: ${count}`}</li>
          ))}
        </ul>
      );
    case 'lesson':
      return (
        <ol>
          {thing.lesson.blocks.map(({ key, kind, note, patterns }) => (
            <li key={key}>
              {[BLOCK_WORDS()[kind].title, ...patterns.map(({ title }) => `“${title}”`), note]
                .filter(Boolean)
                .join(', ')}
            </li>
          ))}
        </ol>
      );
    case 'term':
      return (
        <>
          <p>{thing.term.order.map((element) => elementName(element, naming)).join(', ')}</p>
          <ol>
            {thing.term.contents.map((steps, i) => (
              <li key={i}>{steps.map((step) => stepText(step, naming)).join(', ') || '–'}</li>
            ))}
          </ol>
        </>
      );
  }
}

const HEARD_AT = 80;

function Rhythm({ title, text, hearing }: { title: string; text: string; hearing: Hearing }) {
  const parsed = useMemo(() => parseScore(text), [text]);
  const { moment, hear, stop } = hearing;
  const sounds = moment.state !== 'quiet';
  const { pattern } = parsed.ok ? parsed.score.parts[0]! : {};
  return (
    <div className="shelf-rhythm">
      <strong>{title}</strong>
      {parsed.ok && <MiniNotes pattern={parsed.score.parts[0]!.pattern} parts={parsed.score.parts} />}
      <span className="pattern-text">{text}</span>
      {pattern && (
        <Button
          size="sm"
          variant="outline-dark"
          onClick={() => (sounds ? stop() : void hear(pattern, HEARD_AT, { plays: 1, turn: false }))}
        >
          <Volume2 size={16} aria-hidden /> {sounds ? t`Stop` : t`Hear “${title}”`}
        </Button>
      )}
    </div>
  );
}
