import { type Request, Router } from 'express';
import { edited } from '../../contract/edited.ts';
import { LessonEdit } from '../../contract/lesson.ts';
import { TermPlanEdit } from '../../contract/termPlan.ts';
import type { Database } from '../database.ts';
import { dropLesson, heardWeeksOf, lessonsOf, saveLesson, saveTermPlan, termPlanOf } from '../services/planning.ts';
import { bodyOf, idOf, statusOf, wordIn } from './body.ts';
import { teacherIn } from './session.ts';

/** The lessons of a class, and what it does in its term. */
export function planningRoutes(db: Database): Router {
  const lessonEdit = bodyOf(edited(LessonEdit));
  const termEdit = bodyOf(edited(TermPlanEdit));
  const classIn = (request: Request) => idOf(request, 'classId', 'class');
  const ids = (request: Request) => [classIn(request), idOf(request, 'lessonId', 'lesson')] as const;
  return Router()
    .get('/:classId/lessons', async (request, response) => {
      response.json(await lessonsOf(db, teacherIn(response).id, classIn(request)));
    })
    .put('/:classId/lessons/:lessonId', async (request, response) => {
      const { was, ...wanted } = lessonEdit(request);
      const { done, lesson } = await saveLesson(db, teacherIn(response).id, ...ids(request), wanted, was);
      response.status(statusOf(done)).json({ id: ids(request)[1], ...lesson });
    })
    .delete('/:classId/lessons/:lessonId', async (request, response) => {
      await dropLesson(db, teacherIn(response).id, ...ids(request));
      response.status(204).end();
    })
    .get('/:classId/term-plan', async (request, response) => {
      response.json(await termPlanOf(db, teacherIn(response).id, classIn(request)));
    })
    .put('/:classId/term-plan', async (request, response) => {
      const { was, ...wanted } = termEdit(request);
      response.json(await saveTermPlan(db, teacherIn(response).id, classIn(request), wanted, was));
    })
    .get('/:classId/heard-weeks', async (request, response) => {
      response.json(await heardWeeksOf(db, teacherIn(response).id, classIn(request), wordIn(request, 'from')));
    });
}
