import { type Request, Router } from 'express';
import { ChildEdit } from '../../contract/child.ts';
import { JudgingTrial } from '../../contract/judging.ts';
import { edited } from '../../contract/edited.ts';
import { NewLineUp, TurnEdit } from '../../contract/lineUp.ts';
import { PaperColumnEdit } from '../../contract/records.ts';
import { EarTallyEdit } from '../../contract/ear.ts';
import { HearingEdit } from '../../contract/together.ts';
import { PracticeEdit } from '../../contract/practice.ts';
import { type ClassSettings, NewOrEditedClass } from '../../contract/schoolClass.ts';
import { ShareEdit } from '../../contract/sharing.ts';
import { ClassMove, TermEdit } from '../../contract/term.ts';
import type { Database } from '../database.ts';
import type { Resources } from '../resources.ts';
import { dropChild, saveChild } from '../services/children.ts';
import {
  cancelRejudging,
  classDetail,
  classesOf,
  dropClass,
  rejudgingOf,
  saveClass,
  tryJudging,
} from '../services/classes.ts';
import { dropLineUp, lineUpsOf, setTurn, startLineUp } from '../services/lineUps.ts';
import {
  dropPaperColumn,
  masteryOfChild,
  misreadLately,
  placesOfElement,
  recordsReader,
  savePaperColumn,
  takesPage,
} from '../services/records.ts';
import { dropEarTally, earTalliesOf, saveEarTally } from '../services/ear.ts';
import { dropHearing, hearingsOf, saveHearing, takesTogether } from '../services/hearings.ts';
import { patternsOfClass } from '../services/patterns.ts';
import { dropPractice, practiceOf, savePractice } from '../services/practice.ts';
import type { ClassNews } from '../services/news.ts';
import type { RoomResources } from '../services/rooms.ts';
import type { Sessions } from '../services/session.ts';
import { endShare, shareClass, sharesOf } from '../services/sharing.ts';
import { closeTerm, moveChildren, termOf, termsOf } from '../services/terms.ts';
import { bodyOf, idOf, statusOf, wordIn } from './body.ts';
import { childDataRoutes } from './childData.ts';
import { fromHomeRoutes } from './home.ts';
import { inTurn } from './classTurns.ts';
import { copyRoutes } from './copies.ts';
import { eventRoutes } from './events.ts';
import { roomRoutes } from './rooms.ts';
import { planningRoutes } from './planning.ts';
import { teacherIn } from './session.ts';

export function classRoutes(resources: Resources, sessions: Sessions, news: ClassNews, rooms: RoomResources): Router {
  const { db } = resources;
  const settings = bodyOf(NewOrEditedClass);
  const trial = bodyOf(JudgingTrial);
  return (
    Router()
      .get('/', async (_request, response) => {
        response.json(await classesOf(db, teacherIn(response).id));
      })
      .get('/:classId', async (request, response) => {
        response.json(await classDetail(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
      })
      .post('/:classId/judging-preview', async (request, response) => {
        const classId = idOf(request, 'classId', 'class');
        response.json(await tryJudging(resources, teacherIn(response).id, classId, trial(request)));
      })
      .get('/:classId/rejudging', async (request, response) => {
        response.json(await rejudgingOf(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
      })
      .delete('/:classId/rejudging', async (request, response) => {
        await cancelRejudging(db, teacherIn(response).id, idOf(request, 'classId', 'class'));
        response.status(204).end();
      })
      // Breaking off does not wait for what it breaks off; everything else that changes a class does.
      .use('/:classId', inTurn)
      .put('/:classId', async (request, response) => {
        const classId = idOf(request, 'classId', 'class');
        const { was: before, schoolId, ...wanted } = settings(request);
        const { schoolId: _at, ...was } = before ?? {};
        const edit = { wanted, was: before && (was as ClassSettings) };
        const { done, values } = await saveClass(db, teacherIn(response), classId, edit, schoolId);
        response.status(statusOf(done)).json({ id: classId, ...values });
      })
      .delete('/:classId', async (request, response) => {
        await dropClass(db, teacherIn(response).id, idOf(request, 'classId', 'class'));
        response.status(204).end();
      })
      .use(childRoutes(db))
      .use(childDataRoutes(db))
      .use(recordRoutes(db))
      .use(lineUpRoutes(db))
      .use(shareRoutes(db))
      .use(termRoutes(db))
      .use(practiceRoutes(db))
      .use(fromHomeRoutes(resources))
      .use(planningRoutes(db))
      .use(earRoutes(db))
      .use(hearingRoutes(db))
      .use(copyRoutes(resources))
      .use(eventRoutes(db, sessions, news))
      .use(roomRoutes(rooms, sessions))
  );
}

/** Other teachers who may see a class. */
function shareRoutes(db: Database): Router {
  const share = bodyOf(ShareEdit);
  return Router()
    .get('/:classId/shares', async (request, response) => {
      response.json(await sharesOf(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .put('/:classId/shares', async (request, response) => {
      await shareClass(db, teacherIn(response).id, idOf(request, 'classId', 'class'), share(request));
      response.status(204).end();
    })
    .delete('/:classId/shares/:teacherId', async (request, response) => {
      const [classId, other] = [idOf(request, 'classId', 'class'), idOf(request, 'teacherId', 'teacher')];
      await endShare(db, teacherIn(response).id, classId, other);
      response.status(204).end();
    });
}

/** Terms that are over, and children who go on in another class. */
function termRoutes(db: Database): Router {
  const [closing, move] = [bodyOf(TermEdit), bodyOf(ClassMove)];
  const ids = (request: Request) => [idOf(request, 'classId', 'class'), idOf(request, 'termId', 'term')] as const;
  return Router()
    .get('/:classId/terms', async (request, response) => {
      response.json(await termsOf(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .get('/:classId/terms/:termId', async (request, response) => {
      response.json(await termOf(db, teacherIn(response).id, ...ids(request)));
    })
    .put('/:classId/terms/:termId', async (request, response) => {
      const done = await closeTerm(db, teacherIn(response).id, ...ids(request), closing(request));
      response.status(statusOf(done)).json({ id: ids(request)[1] });
    })
    .post('/:classId/moves', async (request, response) => {
      await moveChildren(db, teacherIn(response).id, idOf(request, 'classId', 'class'), move(request));
      response.status(204).end();
    });
}

function practiceRoutes(db: Database): Router {
  const edit = bodyOf(edited(PracticeEdit));
  const ids = (request: Request) =>
    [idOf(request, 'classId', 'class'), idOf(request, 'weekId', 'practice week')] as const;
  return Router()
    .get('/:classId/practice', async (request, response) => {
      response.json(await practiceOf(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .put('/:classId/practice/:weekId', async (request, response) => {
      const { was, ...wanted } = edit(request);
      const { done, week } = await savePractice(db, teacherIn(response).id, ...ids(request), wanted, was);
      response.status(statusOf(done)).json({ id: ids(request)[1], ...week });
    })
    .delete('/:classId/practice/:weekId', async (request, response) => {
      await dropPractice(db, teacherIn(response).id, ...ids(request));
      response.status(204).end();
    });
}

/** How the class did in the views of the ear. */
function earRoutes(db: Database): Router {
  const tally = bodyOf(EarTallyEdit);
  const ids = (request: Request) => [idOf(request, 'classId', 'class'), idOf(request, 'tallyId', 'tally')] as const;
  return Router()
    .get('/:classId/ear', async (request, response) => {
      response.json(await earTalliesOf(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .put('/:classId/ear/:tallyId', async (request, response) => {
      const done = await saveEarTally(db, teacherIn(response).id, ...ids(request), tally(request));
      response.status(statusOf(done)).json({ id: ids(request)[1] });
    })
    .delete('/:classId/ear/:tallyId', async (request, response) => {
      await dropEarTally(db, teacherIn(response).id, ...ids(request));
      response.status(204).end();
    });
}

/** How the class clapped together. */
function hearingRoutes(db: Database): Router {
  const hearing = bodyOf(HearingEdit);
  const ids = (request: Request) => [idOf(request, 'classId', 'class'), idOf(request, 'hearingId', 'hearing')] as const;
  return Router()
    .get('/:classId/together', async (request, response) => {
      response.json(await hearingsOf(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .get('/:classId/together/takes', async (request, response) => {
      const classId = idOf(request, 'classId', 'class');
      response.json(await takesTogether(db, teacherIn(response).id, classId, wordIn(request, 'pattern') ?? ''));
    })
    .put('/:classId/together/:hearingId', async (request, response) => {
      const done = await saveHearing(db, teacherIn(response).id, ...ids(request), hearing(request));
      response.status(statusOf(done)).json({ id: ids(request)[1] });
    })
    .delete('/:classId/together/:hearingId', async (request, response) => {
      await dropHearing(db, teacherIn(response).id, ...ids(request));
      response.status(204).end();
    });
}

/** The children of a class, under its address. */
function childRoutes(db: Database): Router {
  const childEdit = bodyOf(edited(ChildEdit));
  return Router()
    .put('/:classId/children/:childId', async (request, response) => {
      const { name, was, ...values } = childEdit(request);
      const edit = { id: idOf(request, 'childId', 'child'), name: name.trim(), ...values };
      const { done, child } = await saveChild(db, teacherIn(response).id, idOf(request, 'classId', 'class'), edit, was);
      response.status(statusOf(done)).json(child);
    })
    .get('/:classId/children/:childId/mastery', async (request, response) => {
      const [classId, childId] = [idOf(request, 'classId', 'class'), idOf(request, 'childId', 'child')];
      response.json(await masteryOfChild(db, teacherIn(response).id, classId, childId));
    })
    .get('/:classId/children/:childId/elements/:element', async (request, response) => {
      const [classId, childId] = [idOf(request, 'classId', 'class'), idOf(request, 'childId', 'child')];
      const { element } = request.params;
      response.json(await placesOfElement(db, teacherIn(response).id, classId, childId, element));
    })
    .get('/:classId/children/:childId/takes', async (request, response) => {
      const [classId, childId] = [idOf(request, 'classId', 'class'), idOf(request, 'childId', 'child')];
      const [after, pattern] = [wordIn(request, 'after'), wordIn(request, 'pattern')];
      response.json(await takesPage(db, teacherIn(response).id, classId, childId, after, pattern));
    })
    .delete('/:classId/children/:childId', async (request, response) => {
      const [classId, childId] = [idOf(request, 'classId', 'class'), idOf(request, 'childId', 'child')];
      await dropChild(db, teacherIn(response).id, classId, childId);
      response.status(204).end();
    });
}

/** What a class has shown so far. */
function recordRoutes(db: Database): Router {
  const read = recordsReader(db);
  const column = bodyOf(edited(PaperColumnEdit));
  return Router()
    .get('/:classId/records', async (request, response) => {
      const { tag, json, gzip } = await read(teacherIn(response).id, idOf(request, 'classId', 'class'));
      const compressed = request.acceptsEncodings('gzip') !== false;
      response.setHeader('ETag', `"${tag}"`);
      if (request.headers['if-none-match'] === `"${tag}"`) {
        response.status(304).end();
        return;
      }
      response.setHeader('Vary', 'Accept-Encoding');
      if (compressed) response.setHeader('Content-Encoding', 'gzip');
      response.type('json').send(compressed ? gzip : json);
    })
    .get('/:classId/misread', async (request, response) => {
      response.json(await misreadLately(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .put('/:classId/paper/:columnId', async (request, response) => {
      const [classId, columnId] = [idOf(request, 'classId', 'class'), idOf(request, 'columnId', 'column')];
      const { was, ...wanted } = column(request);
      const done = await savePaperColumn(db, teacherIn(response).id, classId, columnId, wanted, was);
      response.status(statusOf(done)).json({ id: columnId });
    })
    .delete('/:classId/paper/:columnId', async (request, response) => {
      const [classId, columnId] = [idOf(request, 'classId', 'class'), idOf(request, 'columnId', 'column')];
      await dropPaperColumn(db, teacherIn(response).id, classId, columnId);
      response.status(204).end();
    });
}

function lineUpRoutes(db: Database): Router {
  const [started, turn] = [bodyOf(NewLineUp), bodyOf(TurnEdit)];
  const at = '/:classId/line-ups/:lineUpId';
  const ids = (request: Request) => [idOf(request, 'classId', 'class'), idOf(request, 'lineUpId', 'line-up')] as const;
  return Router()
    .get('/:classId/patterns', async (request, response) => {
      response.json(await patternsOfClass(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .get('/:classId/line-ups', async (request, response) => {
      response.json(await lineUpsOf(db, teacherIn(response).id, idOf(request, 'classId', 'class')));
    })
    .put(at, async (request, response) => {
      const [classId, lineUpId] = ids(request);
      const done = await startLineUp(db, teacherIn(response).id, classId, lineUpId, started(request));
      response.status(statusOf(done)).json({ id: lineUpId });
    })
    .put(`${at}/turns/:childId`, async (request, response) => {
      const childId = idOf(request, 'childId', 'child');
      await setTurn(db, teacherIn(response).id, ...ids(request), childId, turn(request));
      response.status(204).end();
    })
    .delete(at, async (request, response) => {
      await dropLineUp(db, teacherIn(response).id, ...ids(request));
      response.status(204).end();
    });
}
