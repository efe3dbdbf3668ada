import { t } from '../../../core/words/say.ts';
import { rich } from '../../ui/rich.tsx';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useNavigate } from 'react-router';
import { v4 as uuid } from 'uuid';
import type { CountOptions } from '../../../core/counting/count.ts';
import { type CardSize, coveredMeasures } from '../../../core/ear/cards.ts';
import type { Pattern } from '../../../core/rhythm/pattern.ts';
import { printRhythm } from '../../../core/rhythm/text.ts';
import { put } from '../../api/client.ts';
import { Ruler } from '../../ruler/Ruler.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { useSave } from '../../api/useSave.ts';
import { useStored } from '../../store/stored.ts';
import { CardTable } from './CardTable.tsx';
import { HeardLine } from './HeardLine.tsx';
import { ToggleRow } from './ToggleRow.tsx';
import { type EarSettings, type ReadPattern, useReadPatterns, useVocabulary } from './earSettings.ts';
import { useCards } from './useCards.ts';
import { useHear } from '../../audio/useHear.ts';

/** A pattern with more measures would not lie on one table. */
const LONGEST = 12;

/** The measures or cells of a pattern as cards to be moved about. */
export function CardsView({ settings }: { settings: EarSettings }) {
  const patterns = useReadPatterns().filter(({ pattern }) => pattern.measures.length <= LONGEST && !pattern.pickup);
  const [stored, setStored] = useStored('take.pattern', '');
  const [size, setSize] = useStored('ear.cards', 'measures');
  const source = patterns.find(({ id }) => id === stored) ?? patterns[0];
  if (!source)
    return <div className="empty">{t`First write a rhythm under Patterns: its measures become the cards.`}</div>;
  const cut: CardSize = size === 'cells' ? 'cells' : 'measures';
  return (
    <>
      <Table
        key={`${source.id} ${cut} ${printRhythm(source.pattern)}`}
        source={source}
        size={cut}
        settings={settings}
      />
      <div className="ear-below">
        <SelectField
          id="cards-from"
          label={t`Pattern`}
          value={source.id}
          options={patterns.map(({ id, title }) => [id, title] as const)}
          onChoose={setStored}
        />
        <ToggleRow
          label={t`What is on a card`}
          value={cut}
          options={[
            ['measures', t`A measure a card`],
            ['cells', t`A cell a card`],
          ]}
          onChoose={setSize}
        />
      </div>
    </>
  );
}

/** The whole row as one rhythm, as large as there is room. */
function RowRuler({ pattern, counts }: { pattern: Pattern; counts: CountOptions }) {
  const lanes = useMemo(() => [counts], [counts]);
  return (
    <div className="cards-ruler">
      <Ruler fit pattern={pattern} counts={lanes} strips={false} />
    </div>
  );
}

function Table({ source, size, settings }: { source: ReadPattern; size: CardSize; settings: EarSettings }) {
  const row = useCards(source.pattern, size, useVocabulary(settings));
  const { moment, hear } = useHear();
  const navigate = useNavigate();
  const [id] = useState(() => uuid());
  const { pattern } = row;
  const keeping = useSave(
    (text: string) => put(`/patterns/${id}`, { title: t`Cards of ${source.title}`.slice(0, 60), text }),
    '/patterns',
  );
  const open = async (view: 'lead' | 'take' | 'patterns') => {
    if (!pattern || !(await keeping.save(printRhythm(pattern)))) return;
    const over = view === 'lead' ? coveredMeasures(row.cards, row.meter) : [];
    const search = new URLSearchParams({ pattern: id, ...(over.length > 0 ? { over: over.join(',') } : {}) });
    await navigate(view === 'patterns' ? `/patterns/${id}` : `/${view}?${search.toString()}`);
  };
  const play = () => pattern && void hear(pattern, settings.bpm, { plays: 1, turn: false });
  useKeys({
    ...Object.fromEntries(row.actions.map(({ key, run }) => [key, run])),
    Delete: row.actions.find(({ key }) => key === 'Backspace')!.run,
    ArrowLeft: ({ shiftKey }) => (shiftKey ? row.move(row.current, row.current - 1) : row.choose(row.current - 1)),
    ArrowRight: ({ shiftKey }) => (shiftKey ? row.move(row.current, row.current + 1) : row.choose(row.current + 1)),
    ' ': play,
    l: () => void open('lead'),
  });
  const covered = row.cards.some(({ faceDown }) => faceDown);
  return (
    <section className="cards" aria-label={t`Cards`}>
      <HeardLine
        moment={moment}
        quiet={row.trouble || (covered ? t`Clap it, the covered ones from memory` : t`Clap the row`)}
      />
      <CardTable row={row} />
      <div className="strip-actions" role="group" aria-label={t`Change the chosen card`}>
        {row.actions.map(({ key, name, run }) => (
          <Button key={key} variant="outline-dark" onClick={run}>
            {name} <kbd>{key === 'Backspace' ? '⌫' : key.toUpperCase()}</kbd>
          </Button>
        ))}
      </div>
      {pattern && !covered && <RowRuler pattern={pattern} counts={settings.voice.counts} />}
      {keeping.problem && <Notice problem={keeping.problem} />}
      <div className="stage-actions">
        <Button size="lg" onClick={play}>
          {rich`Hear it ${<kbd>{t`space`}</kbd>}`}
        </Button>
        <Button size="lg" variant="outline-dark" disabled={keeping.saving} onClick={() => void open('lead')}>
          {rich`Lead it ${<kbd>L</kbd>}`}
        </Button>
        <Button size="lg" variant="outline-dark" disabled={keeping.saving} onClick={() => void open('take')}>
          {t`Hear a child clap it`}
        </Button>
        <Button variant="outline-dark" disabled={keeping.saving} onClick={() => void open('patterns')}>
          {t`Save as a pattern`}
        </Button>
      </div>
    </section>
  );
}
