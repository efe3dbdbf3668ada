import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Router } from 'express';
import { ClassPieces } from '../../contract/classCopy.ts';
import type { Resources } from '../resources.ts';
import { classCopy, putPieces } from '../services/classCopy.ts';
import { bodyOf, idOf } from './body.ts';
import { teacherIn } from './session.ts';

/** A whole class out as a file, and what was in one back in. */
export function copyRoutes(resources: Resources): Router {
  const pieces = bodyOf(ClassPieces);
  return Router()
    .get('/:classId/copy', async (request, response) => {
      const copy = classCopy(resources.db, teacherIn(response).id, idOf(request, 'classId', 'class'));
      // Refused is refused before anything is sent.
      const first = await copy.next();
      response.type('json').setHeader('Content-Disposition', 'attachment; filename="class.json"');
      const all = async function* () {
        if (!first.done) yield first.value;
        yield* copy;
      };
      await pipeline(Readable.from(all()), response);
    })
    .put('/:classId/copied', async (request, response) => {
      await putPieces(resources, teacherIn(response).id, idOf(request, 'classId', 'class'), pieces(request));
      response.status(204).end();
    });
}
