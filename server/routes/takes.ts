import { Router } from 'express';
import { MarkOverride, OnsetCorrection, TakeUpload } from '../../contract/take.ts';
import type { Database } from '../database.ts';
import { dropRecording, keepRecording, recordingOf } from '../services/recordings.ts';
import { correctTake, dropTake, setOwnMark, storeTake, takeOf } from '../services/takes.ts';
import { bodyOf, idOf } from './body.ts';
import { teacherIn } from './session.ts';

export function takeRoutes(db: Database): Router {
  const upload = bodyOf(TakeUpload);
  const override = bodyOf(MarkOverride);
  const correction = bodyOf(OnsetCorrection);
  return Router()
    .get('/:takeId', async (request, response) => {
      response.json(await takeOf(db, teacherIn(response).id, idOf(request, 'takeId', 'take')));
    })
    .put('/:takeId', async (request, response) => {
      const take = await storeTake(db, teacherIn(response).id, idOf(request, 'takeId', 'take'), upload(request));
      response.json(take);
    })
    .put('/:takeId/override', async (request, response) => {
      const { mark, reason = '' } = override(request);
      response.json(await setOwnMark(db, teacherIn(response).id, idOf(request, 'takeId', 'take'), mark, reason));
    })
    .put('/:takeId/onsets', async (request, response) => {
      const { onsets } = correction(request);
      response.json(
        await correctTake(
          db,
          teacherIn(response).id,
          idOf(request, 'takeId', 'take'),
          [...onsets].sort((a, b) => a - b),
        ),
      );
    })
    .put('/:takeId/recording', async (request, response) => {
      await keepRecording(
        db,
        teacherIn(response).id,
        idOf(request, 'takeId', 'take'),
        request.headers['content-type'] ?? '',
        request.body as unknown,
      );
      response.status(204).end();
    })
    .get('/:takeId/recording', async (request, response) => {
      const { mime, sound } = await recordingOf(db, teacherIn(response).id, idOf(request, 'takeId', 'take'));
      response.type(mime).send(sound);
    })
    .delete('/:takeId/recording', async (request, response) => {
      await dropRecording(db, teacherIn(response).id, idOf(request, 'takeId', 'take'));
      response.status(204).end();
    })
    .delete('/:takeId', async (request, response) => {
      await dropTake(db, teacherIn(response).id, idOf(request, 'takeId', 'take'));
      response.status(204).end();
    });
}
