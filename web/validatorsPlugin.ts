import { type TSchema, Type } from '@sinclair/typebox';
import { Ajv } from 'ajv';
import standalone from 'ajv/dist/standalone/index.js';
import type { Plugin } from 'vite';
import { JudgingPreview, RejudgingState } from '../contract/judging.ts';
import { ChildMastery, ClassMisread, ClassRecords, ElementPlaces, TakesPage } from '../contract/records.ts';
import { ClassCopy } from '../contract/classCopy.ts';
import { Bin } from '../contract/bin.ts';
import { FromHome, HomeWeek } from '../contract/home.ts';
import { LessonEdit, SavedLessons } from '../contract/lesson.ts';
import { LineUps } from '../contract/lineUp.ts';
import { SavedPattern } from '../contract/pattern.ts';
import { SavedPlan } from '../contract/plan.ts';
import { SavedSheet } from '../contract/sheet.ts';
import { ErrorBody } from '../contract/problem.ts';
import { ClassDetail, ClassSummary } from '../contract/schoolClass.ts';
import { Account, SessionState, SignOnDone, SignOnWay } from '../contract/session.ts';
import { EarTallies } from '../contract/ear.ts';
import { Hearings, TakesTogether } from '../contract/together.ts';
import { PracticeWeeks } from '../contract/practice.ts';
import { ChildRoom, OpenRooms, Room, RoomCodes, RoomDoor, RoundResults } from '../contract/room.ts';
import { ChildErased } from '../contract/childData.ts';
import { ClearedNights, HoldEdit, Invitations, RetentionTrial, School } from '../contract/school.ts';
import { Shelf, ShelfFile, ShelfItemWhole } from '../contract/schoolShelf.ts';
import { Shares } from '../contract/sharing.ts';
import { OneTimeCode, Staff } from '../contract/staff.ts';
import { TermDetail, Terms } from '../contract/term.ts';
import { HeardWeeks, TermPlan } from '../contract/termPlan.ts';
import { TakeDetail } from '../contract/take.ts';
import { Voice } from '../contract/voice.ts';

/** What the browser checks when it arrives: `virtual:fits/session` has the check as its default export. */
const ARRIVING: Readonly<Record<string, TSchema>> = {
  session: SessionState,
  account: Account,
  'sign-on-way': SignOnWay,
  'sign-on-done': SignOnDone,
  rejudging: RejudgingState,
  classes: Type.Array(ClassSummary),
  class: ClassDetail,
  patterns: Type.Array(SavedPattern),
  plans: Type.Array(SavedPlan),
  voice: Voice,
  sheets: Type.Array(SavedSheet),
  mastery: ChildMastery,
  'element-places': ElementPlaces,
  records: ClassRecords,
  misread: ClassMisread,
  'takes-page': TakesPage,
  'line-ups': LineUps,
  bin: Bin,
  shares: Shares,
  terms: Terms,
  term: TermDetail,
  practice: PracticeWeeks,
  lesson: LessonEdit,
  lessons: SavedLessons,
  'term-plan': TermPlan,
  'heard-weeks': HeardWeeks,
  ear: EarTallies,
  together: Hearings,
  'takes-together': TakesTogether,
  staff: Staff,
  school: School,
  cleared: ClearedNights,
  'retention-trial': RetentionTrial,
  hold: HoldEdit,
  'school-shelf': Shelf,
  'shelf-item': ShelfItemWhole,
  'shelf-file': ShelfFile,
  'child-erased': ChildErased,
  invitations: Invitations,
  'class-copy': ClassCopy,
  'one-time-code': OneTimeCode,
  'judging-preview': JudgingPreview,
  take: TakeDetail,
  'home-week': HomeWeek,
  'from-home': FromHome,
  'child-room': ChildRoom,
  'room-door': RoomDoor,
  room: Room,
  rooms: OpenRooms,
  'room-codes': RoomCodes,
  'round-results': RoundResults,
  error: ErrorBody,
};

const PREFIX = 'virtual:fits/';

/** Helpers come by `require`, which a browser does not know: a module imports them. */
function withImports(code: string): string {
  return code.replaceAll(
    /const (\w+) = require\("([^"]+)"\)\.default/g,
    'import $1Module from "$2.js";const $1 = $1Module.default ?? $1Module',
  );
}

/**
 * Compiles the contract's schemas to plain code when the pages are built, each to a module of its own, so that a page
 * loads only the checks it needs. (The content policy forbids making code at run time, which is how Ajv works
 * otherwise.)
 */
export function validatorsPlugin(): Plugin {
  return {
    name: 'contract-validators',
    resolveId: (id) => (id.startsWith(PREFIX) ? `\0${id}` : undefined),
    load: (id) => {
      if (!id.startsWith(`\0${PREFIX}`)) return undefined;
      const name = id.slice(PREFIX.length + 1);
      const schema = ARRIVING[name];
      if (!schema) throw new Error(`nothing is known of ${name}: add its schema here`);
      const ajv = new Ajv({ logger: false, unicode: false, code: { source: true, esm: true } });
      const make = (standalone as unknown as { default?: typeof standalone }).default ?? standalone;
      return withImports(make(ajv, ajv.compile(schema)));
    },
  };
}
