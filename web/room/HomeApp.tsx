import { useSpokenIn } from './useSpokenIn.ts';
import { t } from '../../core/words/say.ts';
import { Check } from 'lucide-react';
import { Suspense, useEffect, useState } from 'react';
import type { HomeWeek } from '../../contract/home.ts';
import { lazyAgain } from '../ui/lazyAgain.ts';
import { type HomeProblem, homeWeek, sayDone, secretIn } from './homeApi.ts';
import { sendFromHome } from './keptAtHome.ts';

const HomeItem = lazyAgain(() => import('./HomeItem.tsx'));

const DAY_MS = 24 * 3600 * 1000;
const AGAIN_MS = 5_000;

/** Which day of the week it is, from 0; before the first it is the first, after the last the last. */
export function dayOf(starts: string, now: Date): number {
  const [year, month, day] = starts.split('-').map(Number) as [number, number, number];
  const today = new Date(now.getFullYear(), now.getMonth(), now.getDate());
  const days = Math.round((+today - +new Date(year, month - 1, day)) / DAY_MS);
  return Math.max(0, Math.min(6, days));
}

/** One practice week of one child, at home: what there is to do, and nothing else. */
export function HomeApp() {
  const [secret] = useState(() => secretIn(location.hash));
  const [opened] = useState(() => new Date());
  const [week, setWeek] = useState<HomeWeek>();
  useSpokenIn(week?.voice.language);
  const [problem, setProblem] = useState<string>();
  const [open, setOpen] = useState<number>();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>;
    const look = () => {
      homeWeek(secret).then(
        (found) => {
          setWeek(found);
          setProblem(undefined);
          void sendFromHome();
        },
        ({ message, passes }: HomeProblem) => {
          setProblem(message);
          if (passes) timer = setTimeout(look, AGAIN_MS);
        },
      );
    };
    look();
    return () => clearTimeout(timer);
  }, [secret]);
  if (!week)
    return (
      <main className="room-page room-still">
        <div role="status">{problem && <h1>{problem}</h1>}</div>
      </main>
    );
  const today = dayOf(week.starts, opened);
  const done = (item: number) => {
    const own = week.done.find((one) => one.item === item && one.day === today)?.times ?? 0;
    const others = week.done.filter((one) => one.item !== item || one.day !== today);
    setWeek({ ...week, done: [...others, { item, day: today, times: own + 1 }] });
    void sayDone(secret, item, today).catch(() => undefined);
  };
  const item = open === undefined ? undefined : week.items[open];
  if (open !== undefined && item)
    return (
      <main className="room-page">
        <Suspense fallback={<div className="room-still" />}>
          <HomeItem
            key={open}
            secret={secret}
            index={open}
            item={item}
            week={week}
            onDone={() => done(open)}
            onBack={() => setOpen(undefined)}
          />
        </Suspense>
      </main>
    );
  return <Today week={week} today={today} onOpen={setOpen} />;
}

interface TodayProps {
  readonly week: HomeWeek;
  readonly today: number;
  readonly onOpen: (item: number) => void;
}

function Today({ week, today, onOpen }: TodayProps) {
  const due = week.items.map((item, index) => ({ item, index })).filter(({ item }) => item.days.includes(today));
  const shown = due.length > 0 ? due : week.items.map((item, index) => ({ item, index }));
  return (
    <main className="room-page">
      <h1>{due.length > 0 ? t`For today` : t`Nothing for today. You may practise all the same.`}</h1>
      <div className="home-items">
        {shown.map(({ item, index }) => {
          const times = week.done.find((one) => one.item === index && one.day === today)?.times ?? 0;
          return (
            <button key={index} type="button" className="home-item" onClick={() => onOpen(index)}>
              <strong>{item.title}</strong>
              <span>
                {t`${Math.min(times, item.times)} of ${item.times}`}{' '}
                {times >= item.times && <Check aria-label={t`done`} />}
              </span>
            </button>
          );
        })}
      </div>
    </main>
  );
}
