import { inLanguage, t } from '../../core/words/say.ts';
import { useMemo } from 'react';
import type { ClassHeard } from '../../core/ensemble/classHeard.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { classTogetherSentence, withinText } from '../../core/wording/classTogetherWords.ts';
import type { Voice } from '../../core/wording/voice.ts';
import type { RulerLayout } from '../../drawing/layout.ts';
import type { RulerSystem } from '../../drawing/system.ts';
import { MovingBeat } from '../ruler/MovingBeat.tsx';
import { Ruler } from '../ruler/Ruler.tsx';
import { TogetherBand } from './TogetherBand.tsx';

interface PictureProps {
  readonly text: string;
  readonly bpm: number;
  readonly heard: ClassHeard;
  readonly voice: Voice;
  /** Seconds after beat 1 that sound now, while it is played. */
  readonly now?: (() => number | undefined) | undefined;
  readonly large?: boolean;
}

/** How together a class was: one sentence, and a band under each note. */
export function HearingPicture({ text, ...props }: PictureProps) {
  const read = useMemo(() => parseRhythm(text), [text]);
  if (!read.ok) return <p>{t`This pattern cannot be read. Open it under Patterns and mend its text.`}</p>;
  return <Picture {...props} pattern={read.pattern} />;
}

function Picture(props: Omit<PictureProps, 'text'> & { readonly pattern: Pattern }) {
  const { pattern, bpm, heard, voice, now, large = false } = props;
  const counts = useMemo(() => [voice.counts], [voice]);
  const band = (system: RulerSystem, layout: RulerLayout) => (
    <TogetherBand {...{ pattern, bpm, system, layout }} notes={heard.notes} until={Infinity} />
  );
  const beat = (system: RulerSystem, layout: RulerLayout) =>
    now && <MovingBeat {...{ pattern, bpm, now, system, layout }} />;
  return (
    <div className="hearing-picture">
      <p className="hearing-said">{inLanguage(voice.language, () => classTogetherSentence(heard, voice.naming))}</p>
      <Ruler
        pattern={pattern}
        size={large ? 'board' : 'desk'}
        strips={false}
        counts={counts}
        band={band}
        overlay={beat}
      />
      <p className="hearing-key">
        {t`${heard.widthMs === undefined ? '' : `${withinText(heard.widthMs)} `}The bar
          under a note is as long and as thick as its claps are spread; the line in it is
          the beat.`}
      </p>
    </div>
  );
}
