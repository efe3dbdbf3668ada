import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import type { Voice } from '../../contract/voice.ts';
import { t } from '../../core/words/say.ts';
import { put } from '../api/client.ts';
import { useSave } from '../api/useSave.ts';
import { VOICE_PATH, useVoice } from '../api/voice.ts';
import { Notice } from '../ui/Notice.tsx';

/** Whether the app counts with the teacher's own voice; where there is none, the way to it. */
export function OwnVoiceSwitch({ id }: { id: string }) {
  const { data, mutate } = useVoice();
  const choice = useSave(async (speaks: boolean) => {
    // It turns under the finger; where the server refuses it turns back.
    const chosen = (now: Voice | undefined): Voice => ({ words: [], ...now, speaks });
    await mutate(
      put(VOICE_PATH, { speaks }).then(() => chosen(data)),
      {
        optimisticData: chosen,
        rollbackOnError: true,
        revalidate: false,
      },
    );
  });
  if (!data) return null;
  return (
    <>
      {data.words.length === 0 ? (
        <Link to="/account/voice">{t`Count with your own voice`}</Link>
      ) : (
        <Form.Check
          type="switch"
          id={id}
          label={t`Count with my own voice`}
          checked={data.speaks}
          onChange={(event) => void choice.save(event.target.checked)}
        />
      )}
      {choice.problem && <Notice problem={choice.problem} />}
    </>
  );
}
