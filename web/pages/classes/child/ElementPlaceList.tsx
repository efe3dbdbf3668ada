import { perLanguage, t } from '../../../../core/words/say.ts';
import { format } from '../../../words/dates.ts';
import { Play } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { Link } from 'react-router';
import fitsTake from 'virtual:fits/take';
import type { ElementPlaces } from '../../../../contract/records.ts';
import type { TakeDetail } from '../../../../contract/take.ts';
import { parseRhythm } from '../../../../core/rhythm/text.ts';
import { beatTimes } from '../../../../core/timing/pulses.ts';
import { misreadingTitle } from '../../../../core/wording/misreadingSentences.ts';
import { placeText } from '../../../../core/wording/places.ts';
import type { NamingId } from '../../../../core/wording/valueNames.ts';
import { get } from '../../../api/client.ts';
import { useElementPlaces } from '../../../api/hooks.ts';
import { playPercussion } from '../../../audio/playPercussion.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useSave } from '../../../api/useSave.ts';

type Place = ElementPlaces[number]['places'][number];

const VERDICTS = perLanguage((): Readonly<Record<Place['verdict'], string>> => ({
  right: t`read right`,
  misread: t`misread`,
  'not-told': t`not told: lost or left out around it`,
}));

/** What is heard around a place, seconds. */
const AROUND = 1.2;

/** Plays the claps of a take around a place, with the click where there was one. */
async function hear(takeId: string, { from, to }: Place): Promise<void> {
  const take = await get<TakeDetail>(`/takes/${takeId}`, fitsTake);
  const read = parseRhythm(take.patternText);
  const near = (time: number) => time > from - AROUND && time < to + AROUND / 2;
  const shifted = (time: number) => time - from + AROUND;
  const beats = read.ok && !take.free ? beatTimes(read.pattern, take.bpm) : [];
  await playPercussion(
    take.onsets.filter(near).map((time) => ({ time: shifted(time), sound: 'clap' as const })),
    beats.filter(({ time }) => near(time)).map((beat) => ({ ...beat, time: shifted(beat.time) })),
  );
}

interface ElementPlaceListProps {
  readonly classId: string;
  readonly childId: string;
  readonly element: string;
  readonly naming: NamingId;
}

/** From what it is told how a child stands with an element: take by take, place by place; one press to hear it. */
export function ElementPlaceList({ classId, childId, element, naming }: ElementPlaceListProps) {
  const { data, error } = useElementPlaces(classId, childId, element);
  const hearing = useSave(({ takeId, place }: { takeId: string; place: Place }) => hear(takeId, place));
  if (error) return <Notice problem={error} />;
  if (!data) return null;
  return (
    <>
      {hearing.problem && <Notice problem={hearing.problem} />}
      <ul className="element-places">
        {data.map(({ takeId, title, takenAt, places }) => (
          <li key={takeId}>
            <Link to={`/classes/${classId}/takes/${takeId}`}>
              {title}, {format(takenAt, 'd MMM')}
            </Link>
            <ul>
              {places.map((place, i) => (
                <li key={i} className={`place-${place.verdict}`}>
                  <Button
                    size="sm"
                    variant="outline-dark"
                    aria-label={t`Hear ${placeText(place, naming)} of ${title}`}
                    onClick={() => void hearing.save({ takeId, place })}
                  >
                    <Play size={14} aria-hidden />
                  </Button>
                  {placeText(place, naming)}: {VERDICTS()[place.verdict]}
                  {place.code && ` (${misreadingTitle(place.code, { naming })})`}
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ul>
    </>
  );
}
