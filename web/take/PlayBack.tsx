import { t } from '../../core/words/say.ts';
import { Volume2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { beatTimes } from '../../core/timing/pulses.ts';
import { playPercussion } from '../audio/playPercussion.ts';
import type { ShownTake } from './shownTake.ts';

/** The claps as they came, against the click. */
export function PlayBack({ take, pattern }: { take: ShownTake; pattern: Pattern }) {
  const [playing, setPlaying] = useState(false);
  const stop = useRef<() => void>(undefined);
  useEffect(() => () => stop.current?.(), []);
  const toggle = async () => {
    if (playing) {
      stop.current?.();
      setPlaying(false);
      return;
    }
    const claps = take.onsets.map((time) => ({ time, sound: 'clap' as const }));
    const started = await playPercussion(claps, take.free ? [] : beatTimes(pattern, take.bpm));
    if (!started) return;
    setPlaying(true);
    const timer = setTimeout(() => setPlaying(false), started.ms);
    stop.current = () => {
      clearTimeout(timer);
      started.stop();
    };
  };
  return (
    <Button variant="outline-dark" onClick={() => void toggle()}>
      {!playing && <Volume2 size={18} aria-hidden />} {playing ? t`Stop` : t`Hear it again`}
    </Button>
  );
}
