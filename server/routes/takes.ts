import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import { edited } from '../../contract/edited.ts';
import { MarkOverride, OnsetCorrection, TakeUpload } from '../../contract/take.ts';
import type { Resources } from '../resources.ts';
import { turnsOf } from '../turns.ts';
import { dropRecording, keepRecording, recordingOf } from '../services/recordings.ts';
import { correctTake, dropTake, setOwnMark, storeTake, takeOf } from '../services/takes.ts';
import { bodyOf, idOf, wordIn } from './body.ts';
import { teacherIn } from './session.ts';

/** One recording of a teacher at a time; the others are read only when it is their turn. */
const uploads = turnsOf(1, 8);

export function takeRoutes(resources: Resources): Router {
  const { db } = resources;
  const upload = bodyOf(TakeUpload);
  const override = bodyOf(edited(MarkOverride));
  const correction = bodyOf(OnsetCorrection);
  return Router()
    .get('/:takeId', async (request, response) => {
      response.json(await takeOf(resources, teacherIn(response).id, idOf(request, 'takeId', 'take')));
    })
    .put('/:takeId', async (request, response) => {
      const take = await storeTake(resources, teacherIn(response).id, idOf(request, 'takeId', 'take'), upload(request));
      response.json(take);
    })
    .put('/:takeId/override', async (request, response) => {
      const { was, ...wanted } = override(request);
      response.json(await setOwnMark(resources, teacherIn(response).id, idOf(request, 'takeId', 'take'), wanted, was));
    })
    .put('/:takeId/onsets', async (request, response) => {
      const { onsets } = correction(request);
      response.json(
        await correctTake(
          resources,
          teacherIn(response).id,
          idOf(request, 'takeId', 'take'),
          [...onsets].sort((a, b) => a - b),
        ),
      );
    })
    .put('/:takeId/recording', async (request, response) => {
      const teacherId = teacherIn(response).id;
      const takeId = idOf(request, 'takeId', 'take');
      const length = Number(request.headers['content-length'] ?? NaN);
      const mime = request.headers['content-type'] ?? '';
      const date = wordIn(request, 'until');
      const until = date !== undefined && /^\d{1,15}$/.test(date) ? Number(date) : undefined;
      try {
        await uploads(teacherId, () =>
          keepRecording(db, teacherId, takeId, mime, Number.isFinite(length) ? length : undefined, request, until),
        );
      } finally {
        // What is refused is still sent to its end by most browsers: they read the answer only then.
        request.resume();
      }
      response.status(204).end();
    })
    .get('/:takeId/recording', async (request, response) => {
      const { mime, bytes, pieces } = await recordingOf(db, teacherIn(response).id, idOf(request, 'takeId', 'take'));
      response.type(mime).setHeader('Content-Length', bytes);
      await pipeline(Readable.from(pieces()), response);
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
