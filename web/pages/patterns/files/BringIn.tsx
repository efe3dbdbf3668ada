import { counted, t } from '../../../../core/words/say.ts';
import { rich } from '../../../ui/rich.tsx';
import { useEffect, useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { v4 as uuid } from 'uuid';
import type { PatternEdit } from '../../../../contract/pattern.ts';
import type { NamingId } from '../../../../core/wording/valueNames.ts';
import { namingOf } from '../../../../core/wording/voice.ts';
import { put } from '../../../api/client.ts';
import { readInWorker } from '../../../files/readFiles.ts';
import { Notice } from '../../../ui/Notice.tsx';
import { useCurrentClass } from '../../../domain/currentClass.ts';
import { useKeys } from '../../../ui/useKeys.ts';
import { useSave } from '../../../api/useSave.ts';
import { PieceCard } from './PieceCard.tsx';
import { PlayedCard } from './PlayedCard.tsx';
import { type Brought, type Offer, firstChoice, linesOf, offersAsMended, offersOf, voiceOf } from './broughtIn.ts';
import './files.scss';

interface BringInProps {
  readonly files: readonly File[];
  readonly onDone: () => void;
}

interface Unread {
  readonly key: string;
  readonly name: string;
  readonly trouble: string;
}

/** Reads the files one after the other; each shows as soon as it is read. */
function useBrought(files: readonly File[]) {
  const [brought, setBrought] = useState<readonly Brought[]>([]);
  const [unread, setUnread] = useState<readonly Unread[]>([]);
  const [waiting, setWaiting] = useState(files.length);
  useEffect(() => {
    let stopped = false;
    const readAll = async () => {
      for (const file of files) {
        const read = await readInWorker(file);
        if (stopped) return;
        if (read.ok) {
          const added = read.pieces.map((piece, i) => ({
            key: `${file.name} ${i} ${uuid()}`,
            file,
            piece,
            choice: firstChoice(piece, file.name),
            mended: {},
            left: [],
          }));
          setBrought((before) => [...before, ...added]);
        } else setUnread((before) => [...before, { key: uuid(), name: file.name, trouble: read.trouble }]);
        setWaiting((left) => left - 1);
      }
    };
    void readAll();
    return () => {
      stopped = true;
    };
  }, [files]);
  const change = (key: string, part: Partial<Brought>) =>
    setBrought((before) => before.map((one) => (one.key === key ? { ...one, ...part } : one)));
  const drop = (key: string) => setBrought((before) => before.filter((one) => one.key !== key));
  return { brought, unread, waiting, change, drop };
}

/** The patterns that would be saved: those that are taken, can be read and add up. */
function ready(offers: readonly Offer[], left: readonly number[]): PatternEdit[] {
  return offers.flatMap(({ title, text, score, trouble }, i) =>
    !left.includes(i) && score && trouble === undefined ? [{ title: title.trim() || t`Untitled`, text }] : [],
  );
}

/** Each with its lines and the patterns that come of it. */
function useCards(brought: readonly Brought[], naming: NamingId) {
  return useMemo(
    () =>
      brought.map((one) => {
        const lines = linesOf(one.piece);
        const voice = voiceOf(lines, one.choice.line);
        const offers = voice ? offersAsMended(offersOf(one.piece, voice, one.choice, naming), one, naming) : [];
        return { one, lines, voice, offers };
      }),
    [brought, naming],
  );
}

/** Each pattern keeps the id under which it was first sent: when the rest is tried again, nothing is there twice. */
function useIds() {
  const ids = useRef(new Map<string, string>());
  return (place: string) => {
    const id = ids.current.get(place) ?? uuid();
    ids.current.set(place, id);
    return id;
  };
}

/** What files hold, as notes; nothing is saved until the teacher says so. */
export default function BringIn({ files, onDone }: BringInProps) {
  const { brought, unread, waiting, change, drop } = useBrought(files);
  const naming = namingOf(useCurrentClass());
  const cards = useCards(brought, naming);
  const taken = cards.map(({ one, offers }) => ({
    key: one.key,
    edits: ready(offers, one.left),
  }));
  const count = taken.reduce((sum, { edits }) => sum + edits.length, 0);
  const idOf = useIds();
  const { save, saving, problem } = useSave(async () => {
    for (const { key, edits } of taken) {
      for (const [i, edit] of edits.entries()) await put(`/patterns/${idOf(`${key} ${i} ${edit.text}`)}`, edit);
      if (edits.length > 0) drop(key);
    }
  }, '/patterns');
  const saveAll = async () => {
    if (count > 0 && !saving && (await save())) onDone();
  };
  useKeys({ ' ': () => void saveAll(), Escape: onDone });
  return (
    <div className="bring-in">
      <div className="page-head">
        <h1>{t`Bring in`}</h1>
        <Button disabled={count === 0 || saving} onClick={() => void saveAll()}>
          {rich`Save ${counted(count, 'pattern', 'patterns')} ${<kbd>{t`space`}</kbd>}`}
        </Button>
        <Button variant="outline-dark" onClick={onDone}>{t`Back`}</Button>
      </div>
      {problem && <Notice problem={problem} again={() => void saveAll()} />}
      {unread.map(({ key, name, trouble }) => (
        <Notice key={key} problem={{ message: t`${name} cannot be read: ${trouble}.` }} />
      ))}
      {waiting > 0 && <p role="status">{t`Reading ${counted(waiting, 'file', 'files')} …`}</p>}
      {cards.map(({ one, lines, voice, offers }, i) => (
        <section key={one.key} className="piece-card" aria-label={t`${one.choice.title}, ${i + 1} of ${cards.length}`}>
          {lines.length > 0 && (
            <PieceCard
              brought={one}
              lines={lines}
              voice={voice}
              offers={offers}
              naming={naming}
              onChange={(part) => change(one.key, part)}
            />
          )}
          <PlayedCard piece={one.piece} file={one.file} />
        </section>
      ))}
    </div>
  );
}
