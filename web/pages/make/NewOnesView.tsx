import { counted, t } from '../../../core/words/say.ts';
import { Sparkles } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { createPortal } from 'react-dom';
import { Link, useNavigate } from 'react-router';
import type { SavedPattern } from '../../../contract/pattern.ts';
import type { ClassSummary } from '../../../contract/schoolClass.ts';
import { MOST_DEALT } from '../../../core/records/lineUp.ts';
import { makeTroubleText } from '../../../core/wording/makingWords.ts';
import { type NamingId, capital } from '../../../core/wording/valueNames.ts';
import { useHear } from '../../audio/useHear.ts';
import { Notice } from '../../ui/Notice.tsx';
import { useKeys } from '../../ui/useKeys.ts';
import { lineUpOn } from '../../domain/keepPatterns.ts';
import { MadeCards } from './MadeCards.tsx';
import { MakeForm } from './MakeForm.tsx';
import { WhatNext } from './WhatNext.tsx';
import { type MakeSettings, SETTINGS, wantedOf } from './makeSettings.ts';
import { setFolder, useKeeping } from './useKeeping.ts';
import { type MadeCard, type MadeTrouble, useMade } from './useMade.ts';

export interface MakeViewProps {
  /** Where the main button goes. */
  readonly actions: HTMLElement;
  readonly patterns: readonly SavedPattern[];
  readonly schoolClass: ClassSummary | undefined;
  readonly naming: NamingId;
}

/** So many at a time. */
const TWELVE = 12;
const BPM = 76;

/** One card at a time is heard; pressed again it stops. */
function useListening() {
  const [hearing, setHearing] = useState<number>();
  const { moment, hear, stop } = useHear();
  const heard = moment.state === 'quiet' ? undefined : hearing;
  const listen = ({ key, pattern }: MadeCard) => {
    if (heard === key) return stop();
    setHearing(key);
    void hear(pattern, BPM, { plays: 1, turn: false });
  };
  return { heard, listen };
}

/** Twelve patterns at a time, to be heard, changed and kept. */
export function NewOnesView({ actions, patterns, schoolClass, naming }: MakeViewProps) {
  const [settings, setSettings] = SETTINGS.use();
  // What is kept in this visit may be easier and harder than itself all the same.
  const [known] = useState(() => patterns.map(({ text }) => text));
  const made = useMade(known);
  const keeping = useKeeping(patterns, naming);
  const make = (next: MakeSettings) => void (made.making ? undefined : made.anew(wantedOf(next), TWELVE));
  const change = (part: Partial<MakeSettings>) => {
    const next = { ...settings, ...part };
    setSettings(next);
    return next;
  };
  useKeys({ ' ': () => make(settings) });
  return (
    <>
      {createPortal(
        <Button size="lg" disabled={made.making} onClick={() => make(settings)}>
          <Sparkles size={18} aria-hidden /> {made.cards.length > 0 ? t`Make twelve others` : t`Make twelve`}{' '}
          <kbd>{t`space`}</kbd>
        </Button>,
        actions,
      )}
      <div className="make-work">
        <div>
          {schoolClass && <WhatNext schoolClass={schoolClass} onChoose={(part) => make(change(part))} />}
          <MakeForm settings={settings} naming={naming} onChange={change} />
        </div>
        <section aria-label={t`Made`} aria-busy={made.making}>
          {keeping.problem && <Notice problem={keeping.problem} />}
          <p className="make-said" role="status">
            {made.trouble && troubleText(made.trouble, naming)}
          </p>
          {made.cards.length === 0 ? (
            <div className="empty">{t`Choose what they are made of, then make twelve. Nothing is kept
              until you say so.`}</div>
          ) : (
            <TogetherBar made={made} keeping={keeping} schoolClass={schoolClass} settings={settings} />
          )}
          <Cards made={made} keeping={keeping} naming={naming} />
        </section>
      </div>
    </>
  );
}

interface MadeProps {
  readonly made: ReturnType<typeof useMade>;
  readonly keeping: ReturnType<typeof useKeeping>;
}

function Cards({ made, keeping, naming }: MadeProps & { naming: NamingId }) {
  const { heard, listen } = useListening();
  return (
    <MadeCards
      cards={made.cards}
      kept={new Set(keeping.kept.keys())}
      heard={heard}
      naming={naming}
      onHear={listen}
      onKeep={(card) => void keeping.keep([card])}
      onShift={(card, by) => void made.shift(card, by)}
      onAlike={(card) => void made.alike(card, TWELVE)}
      onAround={(card, locked) => void made.around(card, locked)}
    />
  );
}

function troubleText(trouble: MadeTrouble, naming: NamingId): string {
  if (trouble.kind === 'broken') return trouble.message;
  if (trouble.kind === 'short' && trouble.level !== undefined)
    return t`${counted(trouble.made, 'new pattern')} of level ${trouble.level}, no more; the
      others are harder.`;
  if (trouble.kind === 'short')
    return t`Only ${counted(trouble.made, 'pattern')} like this: no more are as hard, and unlike
      those you have.`;
  return `${capital(makeTroubleText(trouble.kind, trouble.focus, naming))}.`;
}

interface TogetherProps extends MadeProps {
  readonly schoolClass: ClassSummary | undefined;
  readonly settings: MakeSettings;
}

/** What can be done with all of them. */
function TogetherBar({ made, keeping: { kept, keep, saving }, schoolClass, settings }: TogetherProps) {
  const navigate = useNavigate();
  const all = made.cards.every(({ key }) => kept.has(key));
  const children = Math.min(MOST_DEALT, schoolClass?.children ?? 0);
  const lineUp = async () => {
    if (!schoolClass) return;
    const set = await made.set(wantedOf(settings), children);
    const ids = set.length > 0 ? await keep(set, setFolder(schoolClass.name)) : undefined;
    if (ids) await navigate(lineUpOn(schoolClass.id, ids));
  };
  return (
    <div className="made-together">
      <Button variant="outline-dark" disabled={all || saving} onClick={() => void keep(made.cards)}>
        {all ? t`All kept` : t`Keep all`}
      </Button>
      {schoolClass && children > 1 && (
        <Button variant="outline-dark" disabled={saving} onClick={() => void lineUp()}>
          {t`Line-up: another one for each of ${children} children`}
        </Button>
      )}
      <Link className="btn btn-outline-dark" to={testOf(settings)}>{t`A test for four levels`}</Link>
    </div>
  );
}

/** The sheet of a test, from the same elements. */
function testOf({ elements, meter }: MakeSettings): string {
  return `/sheets?${new URLSearchParams({ test: 'levels', elements: elements.join(','), meter }).toString()}`;
}
