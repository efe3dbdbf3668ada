import { perLanguage, t } from '../../../core/words/say.ts';
import { useState } from 'react';
import { NavLink, Navigate, useParams } from 'react-router';
import { useClasses } from '../../api/hooks.ts';
import { Select } from '../../ui/Select.tsx';
import { classOptions, useChooseClass, useCurrentClass } from '../../domain/currentClass.ts';
import { OwnDevices } from '../../domain/OwnDevices.tsx';
import { CardsView } from './CardsView.tsx';
import { ChooseView } from './ChooseView.tsx';
import { DrawView } from './DrawView.tsx';
import { EarMaterial } from './EarMaterial.tsx';
import { EchoView } from './EchoView.tsx';
import { SignsView } from './SignsView.tsx';
import { WriteView } from './WriteView.tsx';
import { useEarSettings } from './earSettings.ts';
import '../../asking/lesson.scss';
import './ear.scss';

/** In the order of a lesson. */
const PARTS = perLanguage(
  () =>
    [
      { id: 'echo', title: t`Echo`, View: EchoView, rhythms: true, devices: 'echo' },
      { id: 'choose', title: t`Choose`, View: ChooseView, rhythms: true, devices: 'choose' },
      { id: 'write', title: t`Write it`, View: WriteView, rhythms: true, devices: 'write' },
      { id: 'cards', title: t`Cards`, View: CardsView, rhythms: true, devices: undefined },
      { id: 'signs', title: t`Signs`, View: SignsView, rhythms: false, devices: 'signs' },
      { id: 'draw', title: t`Draw it`, View: DrawView, rhythms: false, devices: undefined },
    ] as const,
);

/** For whom: what it has met, how it speaks, where a score is kept. */
function ClassChoice() {
  const { data: classes = [] } = useClasses();
  const current = useCurrentClass();
  const choose = useChooseClass();
  if (!current || classes.length < 2) return null;
  const options = classOptions(classes);
  return (
    <Select size="sm" className="w-auto" label={t`Class`} value={current.id} options={options} onChoose={choose} />
  );
}

/** Hear it, clap it back, choose it, write it; know the signs and draw them. */
export default function EarPage() {
  const { part = 'echo' } = useParams();
  const settings = useEarSettings();
  const [open, setOpen] = useState(false);
  const chosen = PARTS().find(({ id }) => id === part);
  if (!chosen) return <Navigate to="/ear" replace />;
  return (
    <div className="ear lesson">
      <div className="page-head">
        <h1 className="visually-hidden">{t`Ear`}</h1>
        <nav className="parts" aria-label={t`Parts of the lesson`}>
          {PARTS().map(({ id, title }) => (
            <NavLink key={id} to={`/ear/${id}`} className={id === chosen.id ? 'active' : ''}>
              {title}
            </NavLink>
          ))}
        </nav>
        <span className="flex-grow-1" />
        <ClassChoice />
        {chosen.devices && <OwnDevices doing={chosen.devices} />}
        {chosen.rhythms && <EarMaterial settings={settings} open={open} onOpen={setOpen} />}
      </div>
      <chosen.View settings={settings} />
    </div>
  );
}
