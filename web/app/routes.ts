import { perLanguage, t } from '../../core/words/say.ts';
import { type ComponentType, lazy } from 'react';
import type { Teacher } from '../../contract/session.ts';

/** What every page is given. */
export interface PageProps {
  readonly teacher: Teacher;
}

interface PageRoute {
  readonly path: string;
  /** In the menu; pages without a title are reached from others. */
  readonly title?: string;
  /** Without the menu and the bar of a lesson: nothing in it is pressed. */
  readonly bare?: true;
  readonly Page: ComponentType<PageProps>;
}

/**
 * Every page, in the teacher's order: the router and the menu are made of it. To add one: its folder, and a row here.
 */
export const ROUTES = perLanguage((): readonly PageRoute[] => [
  { path: 'today', title: t`Today`, Page: lazy(() => import('../pages/today/TodayPage.tsx')) },
  { path: 'values', title: t`Values`, Page: lazy(() => import('../pages/values/ValuesPage.tsx')) },
  { path: 'values/:part', Page: lazy(() => import('../pages/values/ValuesPage.tsx')) },
  { path: 'patterns', title: t`Patterns`, Page: lazy(() => import('../pages/patterns/PatternsPage.tsx')) },
  { path: 'patterns/:patternId', Page: lazy(() => import('../pages/patterns/PatternPage.tsx')) },
  { path: 'make', title: t`Make`, Page: lazy(() => import('../pages/make/MakePage.tsx')) },
  { path: 'make/:part', Page: lazy(() => import('../pages/make/MakePage.tsx')) },
  { path: 'board/:patternId', Page: lazy(() => import('../pages/board/BoardPage.tsx')) },
  { path: 'show', bare: true, Page: lazy(() => import('../pages/show/ShowPage.tsx')) },
  { path: 'lead', title: t`Lead`, Page: lazy(() => import('../pages/lead/LeadPage.tsx')) },
  { path: 'ear', title: t`Ear`, Page: lazy(() => import('../pages/ear/EarPage.tsx')) },
  { path: 'ear/:part', Page: lazy(() => import('../pages/ear/EarPage.tsx')) },
  { path: 'take', title: t`Take`, Page: lazy(() => import('../pages/take/TakePage.tsx')) },
  { path: 'take/line-up', Page: lazy(() => import('../pages/take/line/LineUpSetupPage.tsx')) },
  { path: 'take/line-up/:classId/:lineUpId', Page: lazy(() => import('../pages/take/line/LineUpPage.tsx')) },
  { path: 'classes', title: t`Class`, Page: lazy(() => import('../pages/classes/ClassesPage.tsx')) },
  { path: 'classes/:classId', Page: lazy(() => import('../pages/classes/ClassPage.tsx')) },
  { path: 'classes/:classId/takes/:takeId', Page: lazy(() => import('../pages/classes/child/TakeResultPage.tsx')) },
  { path: 'classes/:classId/children/:childId', Page: lazy(() => import('../pages/classes/child/ChildPage.tsx')) },
  { path: 'classes/:classId/elements/:element', Page: lazy(() => import('../pages/classes/grid/ElementPage.tsx')) },
  { path: 'classes/:classId/together', Page: lazy(() => import('../pages/together/TogetherPage.tsx')) },
  { path: 'classes/:classId/reports', Page: lazy(() => import('../pages/classes/child/ReportsPage.tsx')) },
  { path: 'classes/:classId/terms/:termId', Page: lazy(() => import('../pages/classes/grid/TermPage.tsx')) },
  { path: 'classes/:classId/practice', Page: lazy(() => import('../pages/practice/PracticePage.tsx')) },
  { path: 'classes/:classId/practice/:weekId', Page: lazy(() => import('../pages/practice/PracticeWeekPage.tsx')) },
  { path: 'room/:classId', Page: lazy(() => import('../pages/room/RoomPage.tsx')) },
  { path: 'plan', title: t`Plan`, Page: lazy(() => import('../pages/plan/PlanPage.tsx')) },
  { path: 'plan/:part', Page: lazy(() => import('../pages/plan/PlanPage.tsx')) },
  { path: 'plan/:classId/:lessonId', Page: lazy(() => import('../pages/plan/LessonPage.tsx')) },
  { path: 'sheets', title: t`Sheets`, Page: lazy(() => import('../pages/sheets/SheetsPage.tsx')) },
  { path: 'sheets/booklet/:classId', Page: lazy(() => import('../pages/sheets/BookletPage.tsx')) },
  { path: 'sheets/:sheetId', Page: lazy(() => import('../pages/sheets/SheetsPage.tsx')) },
  { path: 'first-day', Page: lazy(() => import('../pages/firstDay/FirstDayPage.tsx')) },
  { path: 'school', Page: lazy(() => import('../pages/school/SchoolPage.tsx')) },
  { path: 'school/answers', Page: lazy(() => import('../pages/school/AnswersPage.tsx')) },
  { path: 'shelf', Page: lazy(() => import('../pages/shelf/ShelfPage.tsx')) },
  { path: 'licences', Page: lazy(() => import('../pages/licences/LicencesPage.tsx')) },
  { path: 'account/voice', Page: lazy(() => import('../pages/account/VoicePage.tsx')) },
  { path: 'account', Page: lazy(() => import('../pages/account/AccountPage.tsx')) },
]);

export const ACCOUNT = '/account';

/** Where a visit begins. */
export const HOME = '/today';
