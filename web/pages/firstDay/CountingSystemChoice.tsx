import { perLanguage, t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { Volume2 } from 'lucide-react';
import { useEffect, useRef } from 'react';
import Button from 'react-bootstrap/Button';
import { countPattern, plainCounts } from '../../../core/counting/count.ts';
import { COUNTING_SYSTEM_CHOICES, type CountingSystemId } from '../../../core/counting/countingSystems.ts';
import { parseRhythm } from '../../../core/rhythm/text.ts';
import { MiniNotes } from '../../ruler/MiniNotes.tsx';
import { hearCounts } from '../../audio/hearCounts.ts';

/** A line in which the ways of counting differ. */
const LINE = parseRhythm('4/4 h e e s s s s');
const BPM = 72;
/** Ways that say nothing of their own are chosen later, in the settings of the class. */
const OFFERED = perLanguage(() => COUNTING_SYSTEM_CHOICES().filter(([id]) => id !== 'words' && id !== 'feet'));

/** How the class counts, chosen by seeing and hearing the same line in each way. */
export function CountingSystemChoice({
  school,
  onSchool,
}: {
  school: CountingSystemId;
  onSchool: (school: CountingSystemId) => void;
}) {
  const silence = useRef<() => void>(undefined);
  useEffect(() => () => silence.current?.(), []);
  const hear = async (id: CountingSystemId) => {
    silence.current?.();
    if (LINE.ok) silence.current = await hearCounts(LINE.pattern, BPM, { school: id });
  };
  return (
    <section className="card-paper">
      <h2>{t`3. How do you count?`}</h2>
      {LINE.ok && <MiniNotes pattern={LINE.pattern} />}
      <ul className="school-choice">
        {OFFERED().map(([id, title]) => (
          <li key={id} className={id === school ? 'chosen' : ''}>
            <label>
              <input type="radio" name="school" checked={id === school} onChange={() => onSchool(id)} />
              <strong>{title}</strong>
              <span className="counted">{countsOf(id)}</span>
            </label>
            <Button size="sm" variant="outline-dark" onClick={() => void hear(id)}>
              <Volume2 size={16} aria-hidden /> {rich`Hear it${<span className="visually-hidden">: {title}</span>}`}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function countsOf(school: CountingSystemId): string {
  if (!LINE.ok) return '';
  const counted = countPattern(LINE.pattern, { school });
  return counted.ok ? plainCounts(counted.measures) : '';
}
