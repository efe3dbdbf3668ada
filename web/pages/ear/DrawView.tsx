import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { DRAWN_SIGN_IDS, type DrawnSign, type Point, strokesOf } from '../../../core/ear/strokes.ts';
import { traceStroke } from '../../../core/ear/tracing.ts';
import { drawnSignName, faultText, strokeText } from '../../../core/wording/drawWords.ts';
import { useKeys } from '../../ui/useKeys.ts';
import { DrawBoard } from './DrawBoard.tsx';
import type { EarSettings } from './earSettings.ts';

/** Signs drawn stroke by stroke: a pen shows each, then it is traced. */
export function DrawView({ settings }: { settings: EarSettings }) {
  const [sign, setSign] = useState<DrawnSign>('quarter');
  const { naming } = settings.voice;
  return (
    <>
      <DrawOne key={sign} sign={sign} onNext={() => setSign(after(sign))} name={drawnSignName(sign, naming)} />
      <div className="draw-signs" role="group" aria-label={t`Which sign`}>
        {DRAWN_SIGN_IDS.map((id) => (
          <Button
            key={id}
            variant={id === sign ? 'dark' : 'outline-dark'}
            aria-pressed={id === sign}
            onClick={() => setSign(id)}
          >
            {drawnSignName(id, naming)}
          </Button>
        ))}
      </div>
    </>
  );
}

function after(sign: DrawnSign): DrawnSign {
  return DRAWN_SIGN_IDS[(DRAWN_SIGN_IDS.indexOf(sign) + 1) % DRAWN_SIGN_IDS.length]!;
}

interface Tried {
  readonly drawn: readonly Point[];
  readonly text: string;
}

function DrawOne({ sign, name, onNext }: { sign: DrawnSign; name: string; onNext: () => void }) {
  const strokes = strokesOf(sign);
  const [at, setAt] = useState(0);
  const [tried, setTried] = useState<Tried>();
  /** Goes up with every showing: the pen runs anew. */
  const [shows, setShows] = useState(1);
  const done = at >= strokes.length;
  const draw = (drawn: readonly Point[]) => {
    if (done) return;
    const traced = traceStroke(sign, at, drawn);
    if (!traced.ok) {
      setTried({ drawn, text: faultText(traced.fault) });
      return;
    }
    setTried(undefined);
    setAt(at + traced.strokes);
    setShows(shows + 1);
  };
  const again = () => {
    setAt(0);
    setTried(undefined);
    setShows(shows + 1);
  };
  const show = () => (done ? onNext() : setShows(shows + 1));
  useKeys({ ' ': show, a: again, n: onNext });
  const words = done ? t`${name}: well drawn` : (tried?.text ?? strokeText(strokes[at]!.says));
  return (
    <section className="draw" aria-label={t`Draw: ${name}`}>
      <p className="question-number">
        {name} · {done ? t`done` : t`stroke ${at + 1} of ${strokes.length}`}
      </p>
      <p className={`big-line ${tried ? 'draw-fault' : ''}`} role="status">
        {words}
      </p>
      <DrawBoard strokes={strokes} at={at} tried={tried?.drawn} shows={shows} onDrawn={draw} />
      <div className="stage-actions">
        <Button size="lg" onClick={show}>
          {done ? t`The next sign` : t`Show this stroke`} <kbd>{t`space`}</kbd>
        </Button>
        <Button size="lg" variant="outline-dark" onClick={again}>
          {rich`From the start ${<kbd>A</kbd>}`}
        </Button>
        <p className="draw-keys">{rich`With keys: arrows move the pen, ${<kbd>{t`enter`}</kbd>} puts it
          down and lifts it.`}</p>
      </div>
    </section>
  );
}
