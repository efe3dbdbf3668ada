import { useMemo } from 'react';
import type { Question } from '../../core/exercises/question.ts';
import type { Pattern } from '../../core/rhythm/pattern.ts';
import { parseRhythm } from '../../core/rhythm/text.ts';
import { Ruler } from '../ruler/Ruler.tsx';
import { Equation, ShownSigns } from './ShownSigns.tsx';
import { Staff } from './StaffQuestions.tsx';

function readable(text: string): Pattern | undefined {
  const parsed = parseRhythm(text);
  return parsed.ok ? parsed.pattern : undefined;
}

/** What a question is about. */
export function Shown({ question: { asked, shows, sides, staccato, staff } }: { question: Question }) {
  const pattern = useMemo(() => readable(shows), [shows]);
  if (staff) return <Staff signs={staff} />;
  if (sides) return <Equation sides={sides} open={asked.kind === 'balance'} />;
  if (!pattern) return null;
  if (asked.kind === 'complete') return <Ruler pattern={pattern} strips={false} beats={false} />;
  return <ShownSigns pattern={pattern} meter={asked.kind === 'wrong-measure'} staccato={staccato} />;
}
