import { t } from '../../core/words/say.ts';
import { useEffect } from 'react';
import { ChooseName } from './ChooseName.tsx';
import { InRoom } from './InRoom.tsx';
import { TapPictures } from './TapPictures.tsx';
import { sendKept } from './keptTakes.ts';
import { useSeat } from './useSeat.ts';
import { useSpokenIn } from './useSpokenIn.ts';

/** The page of a child's own device: one thing at a time. */
export function RoomApp() {
  const { state, isThere, tapPictures, takeName, goOut, again } = useSeat();
  useEffect(() => void sendKept(() => undefined), []);
  useSpokenIn(state.at === 'room' ? state.room.voice.language : undefined);
  switch (state.at) {
    case 'looking':
      return <main className="room-page" aria-busy="true" />;
    case 'pictures':
      return <TapPictures said={state.said} onPictures={tapPictures} />;
    case 'names':
      return <ChooseName door={state.door} said={state.said} onName={takeName} onBack={goOut} />;
    case 'over':
      return (
        <main className="room-page room-still">
          <h1>{t`The lesson here is over.`}</h1>
          <button type="button" className="room-button" onClick={again}>{t`Into another room`}</button>
        </main>
      );
    case 'room':
      return <InRoom room={state.room} isThere={isThere} onOut={goOut} />;
  }
}
