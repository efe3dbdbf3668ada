import { v4 as uuid } from 'uuid';

/** Ids by the names that routes have for them. */
export type Ids = Readonly<Record<string, string>> & {
  readonly classId: string;
  readonly childId: string;
  readonly takeId: string;
  readonly patternId: string;
};

/** Bodies that fit, with every part that may be in them. */
export function bodiesWith(ids: Ids) {
  const CLASS = {
    name: 'Gulls',
    ages: '9-10',
    school: 'numbers',
    rests: 'sh',
    naming: 'crotchets',
    houseWords: { ta: { quarter: 'taa' } },
    wordSet: { title: 'Boats', cells: { q: 'tug' } },
    onTimeMs: 90,
    borders: [{ mark: 4, accuracy: 0.9, driftPct: 5 }],
    clickCounts: true,
    recordingDays: 4,
  };
  const TAKE = {
    childId: ids.childId,
    patternId: ids.patternId,
    title: 'First',
    patternText: '4/4 q q h | q (q) h',
    bpm: 72,
    onsets: [0, 0.8, 1.7, 3.3],
    feet: [0, 0.8],
    releases: [0.4, null, 2, 4],
    free: false,
    source: 'tap',
    takenAt: 1_700_000_000_000,
  };
  const PLAN = {
    title: 'Warm up',
    passes: [{ activity: 'clap', who: 'together' }],
    chunks: { kind: 'joined', by: 2 },
    ladder: [{ bpm: 60, passes: 2, factor: 1 }],
    restBeats: 4,
    countIn: 'measure',
    countInWords: ['one'],
    countInEach: true,
    divided: false,
    twoLines: false,
  };
  const SHEET = {
    title: 'Week 7',
    seed: 1,
    paper: 'letter',
    large: true,
    versions: true,
    bpm: 72,
    parts: [
      {
        key: 0,
        kind: 'sums',
        count: 4,
        level: 2,
        elements: ['half'],
        meter: '3/4',
        beat: 'e',
        patterns: ['3/4 q q q'],
      },
    ],
    classId: ids.classId,
    names: true,
    counts: { school: 'ta', rests: 'sh', houseWords: { quarter: 'taa' }, wordSet: { title: 'B', cells: { q: 'tug' } } },
    naming: 'crotchets',
  };
  const WEEK = {
    starts: '2026-09-28',
    plan: {
      title: 'Week',
      items: [{ patternId: ids.patternId, title: 'Steps', text: '4/4 q q h', bpm: 72, times: 2, days: [0, 3] }],
      children: [ids.childId],
    },
  };
  const HEARING = {
    takenAt: 5,
    title: 'Tide',
    patternText: '4/4 q q h',
    bpm: 80,
    from: 'microphone',
    heard: {
      notes: [{ index: 0, played: 0, measure: 1, beat: { n: 1, d: 1 }, widthMs: 60, aheadMs: -8, loudness: 1 }],
      rests: [],
      holds: [{ kind: 'hold', played: 0, measure: 1, beat: { n: 4, d: 1 }, share: 0.1 }],
      driftPct: 0,
      widthMs: 60,
      aheadMs: -8,
      tooFew: false,
      confidence: 1,
    },
  };
  const TALLY = { kind: 'choose', takenAt: 5, right: 7, asked: 10, mistakes: { 'rest-clapped': 3 } };
  const LESSON = {
    title: 'Monday',
    minutes: 40,
    day: '2026-09-28',
    starts: '09:40',
    blocks: [
      {
        key: 0,
        kind: 'lead',
        minutes: 5,
        note: 'x',
        patterns: [{ patternId: ids.patternId, title: 'Steps', text: '4/4 q q h' }],
        steps: [{ element: 'half', step: 'meet' }],
        plan: PLAN,
        lineUp: { bpm: 72, tries: 1 },
      },
    ],
    held: { at: 5, seconds: 5, leftOut: [0] },
  };
  const TERM = {
    from: '2026-09-07',
    until: '2026-12-18',
    slots: [{ weekday: 3, starts: '11:20', minutes: 45 }],
    holidays: [{ from: '2026-10-19', until: '2026-10-25' }],
    order: ['half', 'tie'],
    contents: [[{ element: 'half', step: 'meet' }], []],
    left: [{ element: 'tie', step: 'hear' }],
  };
  const PIECES = {
    termFrom: 4,
    takes: [
      {
        ...TAKE,
        id: uuid(),
        patternKey: ids.patternId,
        override: 3,
        overrideReason: 'x',
        corrected: true,
      },
    ],
    paper: [{ id: uuid(), title: 'Quiz', outOf: 10, takenAt: 1, points: { [ids.childId]: 3 } }],
    lineUps: [],
    practice: [{ id: uuid(), ...WEEK }],
    ear: [{ id: uuid(), ...TALLY }],
    together: [{ id: uuid(), ...HEARING }],
    lessons: [{ id: uuid(), ...LESSON }],
    termPlan: TERM,
    terms: [
      {
        id: uuid(),
        title: 'Autumn',
        fromAt: 0,
        untilAt: 2,
        names: ['Ada'],
        records: { children: [ids.childId], patterns: [], marks: [], elements: [], paper: [] },
      },
    ],
  };
  const PASSKEY = { id: 'AA', rawId: 'AA', type: 'public-key', clientExtensionResults: {} };
  const line = {
    title: 'First',
    settings: {
      patternIds: [ids.patternId],
      seed: 1,
      bpm: 60,
      heardBy: 'tap',
      tries: 1,
      order: 'list',
      startsItself: false,
    },
    startedAt: 1,
    turns: [{ childId: ids.childId, patternId: ids.patternId }],
  };
  const ROUND = {
    number: 1,
    task: {
      kind: 'take',
      patternId: ids.patternId,
      title: 'First',
      text: '4/4 q q h',
      bpm: 72,
      heardBy: 'tap',
      echo: false,
      parts: [{ name: 'Clap', text: '4/4 q q h' }],
    },
    phase: 'going',
    startsAt: 1_700_000_000_000,
  };
  return { ROUND, CLASS, TAKE, PLAN, SHEET, WEEK, TALLY, HEARING, LESSON, TERM, PIECES, PASSKEY, LINE: line };
}
type Bodies = ReturnType<typeof bodiesWith>;

/**
 * What it takes to be answered: nothing, the secret of a slip, a child's seat in a room, a session, to be at the school
 * that is named or one of its administrators, or a role in the class that is named or that the take is in; `own` is
 * what a teacher has for herself.
 */
type Needs = 'nothing' | 'secret' | 'seat' | 'session' | 'school' | 'administrator' | 'own' | 'look' | 'hear' | 'owner';

interface Way {
  readonly needs: Needs;
  /** Behind the path. */
  readonly query?: (ids: Ids) => string;
  readonly body?: (bodies: Bodies, ids: Ids) => unknown;
}

/** Every route of the server: one that is not here fails a test, and so does one that is here only. */
export const EVERY_ROUTE: Readonly<Record<string, Way>> = {
  'GET /healthz': { needs: 'nothing' },
  'GET /livez': { needs: 'nothing' },
  'GET /metrics': { needs: 'nothing' },
  'GET /api/session': { needs: 'nothing' },
  'POST /api/session': { needs: 'nothing', body: () => ({ name: '', password: '' }) },
  'POST /api/session/visit': { needs: 'nothing', body: () => ({}) },
  'POST /api/session/reset': { needs: 'nothing', body: () => ({ name: '', code: '', password: 'short' }) },
  'POST /api/session/passkey/options': { needs: 'nothing', body: () => ({}) },
  'POST /api/session/passkey': {
    needs: 'nothing',
    body: ({ PASSKEY }) => ({
      challengeId: uuid(),
      answer: { ...PASSKEY, response: { clientDataJSON: 'AA', authenticatorData: 'AA', signature: 'AA' } },
    }),
  },
  'POST /api/session/invitation': { needs: 'nothing', body: () => ({ name: '', code: '', password: 'short' }) },
  'POST /api/session/sign-on': { needs: 'nothing', body: () => ({}) },
  'POST /api/session/sign-on/answer': { needs: 'nothing', body: () => ({ query: 'code=1&state=2' }) },
  'POST /api/session/sign-on/account': { needs: 'nothing', body: () => ({ name: 'Eva', code: 'x', state: 'y' }) },
  'DELETE /api/session': { needs: 'nothing' },
  'GET /api/account': { needs: 'session' },
  'PUT /api/account/password': { needs: 'session', body: () => ({ current: '', password: 'short' }) },
  'PUT /api/account/language': { needs: 'session', body: () => ({ language: 'de' }) },
  'DELETE /api/account/sessions/:sessionId': { needs: 'session' },
  'DELETE /api/account/other-sessions': { needs: 'session' },
  'POST /api/account/passkeys/options': { needs: 'session', body: () => ({}) },
  'POST /api/account/passkeys': {
    needs: 'session',
    body: ({ PASSKEY }) => ({
      challengeId: uuid(),
      name: 'x',
      answer: { ...PASSKEY, response: { clientDataJSON: 'AA', attestationObject: 'AA' } },
    }),
  },
  'DELETE /api/account/passkeys/:passkeyId': { needs: 'session' },
  'GET /api/account/voice': { needs: 'session' },
  'PUT /api/account/voice': { needs: 'session', body: () => ({ speaks: true }) },
  'DELETE /api/account/voice': { needs: 'session' },
  'PUT /api/account/voice/words': {
    needs: 'session',
    body: () => ({ words: [{ word: '1', vowel: 0.1, sound: Buffer.alloc(8000).toString('base64') }] }),
  },
  'DELETE /api/account/voice/words/:word': { needs: 'session' },
  'POST /api/account/schools': { needs: 'session', body: () => ({ code: 'x', name: 'Eva' }) },
  'POST /api/account/sign-on': { needs: 'session', body: () => ({}) },
  'DELETE /api/account/sign-on': { needs: 'session' },
  'GET /api/schools/:schoolId': { needs: 'school' },
  'PUT /api/schools/:schoolId': {
    needs: 'administrator',
    body: () => ({
      name: 'Marrow Lane',
      zone: 'Europe/Berlin',
      language: 'de',
      retention: { takes: 365, recordings: 30, terms: null, left: 90 },
    }),
  },
  'GET /api/schools/:schoolId/cleared': { needs: 'school' },
  'GET /api/schools/:schoolId/would-go': { needs: 'administrator', query: () => '?takes=365' },
  'GET /api/schools/:schoolId/staff': { needs: 'administrator' },
  'POST /api/schools/:schoolId/staff': { needs: 'administrator', body: () => ({ name: 'Eva' }) },
  'PUT /api/schools/:schoolId/staff/:teacherId': { needs: 'administrator', body: () => ({ closed: true }) },
  'POST /api/schools/:schoolId/staff/:teacherId/code': { needs: 'administrator', body: () => ({}) },
  'GET /api/schools/:schoolId/invitations': { needs: 'administrator' },
  'POST /api/schools/:schoolId/invitations': {
    needs: 'administrator',
    body: () => ({ administrator: false, uses: 3 }),
  },
  'DELETE /api/schools/:schoolId/invitations/:invitationId': { needs: 'administrator' },
  'GET /api/schools/:schoolId/shelf': { needs: 'school' },
  'GET /api/schools/:schoolId/shelf/:itemId': { needs: 'school' },
  'PUT /api/schools/:schoolId/shelf/:itemId': {
    needs: 'school',
    body: () => ({
      title: 'Steps',
      about: 'x',
      thing: { kind: 'pattern', pattern: { title: 'S', text: '4/4 q q h' } },
    }),
  },
  'DELETE /api/schools/:schoolId/shelf/:itemId': { needs: 'school' },
  'GET /api/bin': { needs: 'own' },
  'POST /api/bin/:kind/:id/out': { needs: 'own', body: () => ({}) },
  'DELETE /api/bin/:kind/:id': { needs: 'own' },
  'GET /api/patterns': { needs: 'own' },
  'PUT /api/patterns/shelf': {
    needs: 'own',
    body: (_bodies, { patternId }) => ({ patterns: [{ id: patternId, folder: 'Rests', archived: true }] }),
  },
  'PUT /api/patterns/:patternId': {
    needs: 'own',
    body: () => ({
      title: 'S',
      text: 'q q h',
      brackets: [{ from: { measure: 1, beat: 1 }, to: { measure: 1, beat: 2 }, words: 'x' }],
    }),
  },
  'DELETE /api/patterns/:patternId': { needs: 'own' },
  'GET /api/plans': { needs: 'own' },
  'PUT /api/plans/:id': { needs: 'own', body: ({ PLAN }) => PLAN },
  'DELETE /api/plans/:id': { needs: 'own' },
  'GET /api/sheets': { needs: 'own' },
  'PUT /api/sheets/:id': { needs: 'own', body: ({ SHEET }) => SHEET },
  'DELETE /api/sheets/:id': { needs: 'own' },
  'GET /api/classes': { needs: 'own' },
  'GET /api/classes/:classId': { needs: 'look' },
  'PUT /api/classes/:classId': { needs: 'owner', body: ({ CLASS }) => ({ ...CLASS, was: CLASS }) },
  'DELETE /api/classes/:classId': { needs: 'owner' },
  'POST /api/classes/:classId/judging-preview': {
    needs: 'owner',
    body: () => ({ ages: '9-10', onTimeMs: 50, borders: null, scale: '6-1', clickCounts: true }),
  },
  'GET /api/classes/:classId/rejudging': { needs: 'look' },
  'DELETE /api/classes/:classId/rejudging': { needs: 'owner' },
  'PUT /api/classes/:classId/children/:childId': {
    needs: 'owner',
    body: () => ({
      name: 'Ada',
      adaptations: { wider: 1.5, slower: 0.75, noClick: true, moreTries: 1, exempt: ['tie'] },
      reportLine: 'Well done.',
    }),
  },
  'DELETE /api/classes/:classId/children/:childId': { needs: 'owner' },
  'GET /api/classes/:classId/children/:childId/everything': { needs: 'owner' },
  'DELETE /api/classes/:classId/children/:childId/everything': { needs: 'owner' },
  'GET /api/classes/:classId/children/:childId/hold': { needs: 'owner' },
  'PUT /api/classes/:classId/children/:childId/hold': { needs: 'owner', body: () => ({ why: 'a report' }) },
  'GET /api/classes/:classId/hold': { needs: 'owner' },
  'PUT /api/classes/:classId/hold': { needs: 'owner', body: () => ({ why: null }) },
  'GET /api/classes/:classId/children/:childId/mastery': { needs: 'look' },
  'GET /api/classes/:classId/children/:childId/elements/:element': { needs: 'look' },
  'GET /api/classes/:classId/children/:childId/takes': {
    needs: 'look',
    query: ({ takeId }) => `?after=5.${takeId}&pattern=x`,
  },
  'GET /api/classes/:classId/records': { needs: 'look' },
  'GET /api/classes/:classId/misread': { needs: 'look' },
  'PUT /api/classes/:classId/paper/:columnId': {
    needs: 'hear',
    body: (_bodies, { childId }) => ({
      title: 'Quiz',
      outOf: 5,
      takenAt: 1,
      scale: '6-1',
      points: { [childId]: 3 },
    }),
  },
  'DELETE /api/classes/:classId/paper/:columnId': { needs: 'hear' },
  'GET /api/classes/:classId/patterns': { needs: 'hear' },
  'GET /api/classes/:classId/line-ups': { needs: 'look' },
  'PUT /api/classes/:classId/line-ups/:lineUpId': { needs: 'hear', body: ({ LINE }) => LINE },
  'PUT /api/classes/:classId/line-ups/:lineUpId/turns/:childId': {
    needs: 'hear',
    body: () => ({ state: 'heard', mark: 3 }),
  },
  'DELETE /api/classes/:classId/line-ups/:lineUpId': { needs: 'hear' },
  'GET /api/classes/:classId/shares': { needs: 'owner' },
  'PUT /api/classes/:classId/shares': { needs: 'owner', body: () => ({ name: 'Cleo', role: 'look' }) },
  'DELETE /api/classes/:classId/shares/:teacherId': { needs: 'owner' },
  'GET /api/classes/:classId/terms': { needs: 'look' },
  'GET /api/classes/:classId/terms/:termId': { needs: 'look' },
  'PUT /api/classes/:classId/terms/:termId': { needs: 'owner', body: () => ({ title: 'Autumn' }) },
  'POST /api/classes/:classId/moves': {
    needs: 'owner',
    body: (_bodies, { toId, childId }) => ({ to: toId ?? uuid(), children: [childId] }),
  },
  'GET /api/classes/:classId/practice': { needs: 'look' },
  'PUT /api/classes/:classId/practice/:weekId': { needs: 'hear', body: ({ WEEK }) => WEEK },
  'DELETE /api/classes/:classId/practice/:weekId': { needs: 'hear' },
  'GET /api/classes/:classId/lessons': { needs: 'look' },
  'PUT /api/classes/:classId/lessons/:lessonId': {
    needs: 'hear',
    body: ({ LESSON }) => ({ ...LESSON, was: LESSON }),
  },
  'DELETE /api/classes/:classId/lessons/:lessonId': { needs: 'hear' },
  'GET /api/classes/:classId/term-plan': { needs: 'look' },
  'PUT /api/classes/:classId/term-plan': { needs: 'hear', body: ({ TERM }) => ({ ...TERM, was: TERM }) },
  'GET /api/classes/:classId/heard-weeks': { needs: 'look', query: () => '?from=2026-09-07' },
  'GET /api/classes/:classId/ear': { needs: 'look' },
  'PUT /api/classes/:classId/ear/:tallyId': { needs: 'hear', body: ({ TALLY }) => TALLY },
  'DELETE /api/classes/:classId/ear/:tallyId': { needs: 'hear' },
  'GET /api/classes/:classId/together': { needs: 'look' },
  'GET /api/classes/:classId/together/takes': { needs: 'look', query: ({ patternId }) => `?pattern=${patternId}` },
  'PUT /api/classes/:classId/together/:hearingId': { needs: 'hear', body: ({ HEARING }) => HEARING },
  'DELETE /api/classes/:classId/together/:hearingId': { needs: 'hear' },
  'GET /api/classes/:classId/copy': { needs: 'owner' },
  'PUT /api/classes/:classId/copied': { needs: 'owner', body: ({ PIECES }) => PIECES },
  'GET /api/classes/:classId/events': { needs: 'look' },
  'GET /api/classes/:classId/rooms': { needs: 'hear' },
  'GET /api/classes/:classId/room-codes': { needs: 'hear' },
  'PUT /api/classes/:classId/rooms/:roomId': {
    needs: 'hear',
    body: () => ({ codes: false, marksShown: true, namesShown: false, newPictures: true }),
  },
  'GET /api/classes/:classId/rooms/:roomId': { needs: 'hear' },
  'GET /api/classes/:classId/rooms/:roomId/events': { needs: 'hear' },
  'PUT /api/classes/:classId/rooms/:roomId/round': { needs: 'hear', body: ({ ROUND }) => ROUND },
  'GET /api/classes/:classId/rooms/:roomId/rounds/:number': { needs: 'hear' },
  'DELETE /api/classes/:classId/rooms/:roomId/seats/:childId': { needs: 'hear' },
  'DELETE /api/classes/:classId/rooms/:roomId': { needs: 'hear' },
  'GET /api/classes/:classId/practice/:weekId/home': { needs: 'hear' },
  'PUT /api/classes/:classId/practice/:weekId/home/links': {
    needs: 'hear',
    body: (_bodies, { childId }) => ({ children: [childId] }),
  },
  'DELETE /api/classes/:classId/practice/:weekId/home/links/:childId': { needs: 'hear' },
  'POST /api/classes/:classId/practice/:weekId/home/taken': {
    needs: 'hear',
    body: (_bodies, { takeId }) => ({ ids: [takeId] }),
  },
  'POST /api/classes/:classId/practice/:weekId/home/left-out': {
    needs: 'hear',
    body: (_bodies, { takeId }) => ({ ids: [takeId] }),
  },
  'GET /api/home/week': { needs: 'secret' },
  'PUT /api/home/takes/:takeId': { needs: 'secret', body: () => ({ item: 0, onsets: [0, 1], source: 'tap' }) },
  'POST /api/home/done': { needs: 'secret', body: () => ({ item: 0, day: 3 }) },
  'GET /api/room/clock': { needs: 'nothing' },
  'POST /api/room/enter': { needs: 'nothing', body: () => ({ pictures: ['gull', 'gull', 'gull', 'gull'] }) },
  'GET /api/room/door': { needs: 'seat' },
  'POST /api/room/seat': { needs: 'seat', body: (_bodies, { childId }) => ({ childId }) },
  'GET /api/room/seat': { needs: 'seat' },
  'DELETE /api/room/seat': { needs: 'seat' },
  'GET /api/room/events': { needs: 'seat' },
  'PUT /api/room/rounds/:number/ready': { needs: 'seat', body: () => ({}) },
  'PUT /api/room/rounds/:number/answer': { needs: 'seat', body: () => ({ option: 1 }) },
  'PUT /api/room/takes/:takeId': {
    needs: 'seat',
    body: () => ({ round: 1, onsets: [0, 1, 2], releases: [1, 2, null] }),
  },
  'GET /api/takes/:takeId': { needs: 'look' },
  'PUT /api/takes/:takeId': { needs: 'hear', body: ({ TAKE }) => TAKE },
  'PUT /api/takes/:takeId/override': { needs: 'hear', body: () => ({ mark: 3, reason: 'brave' }) },
  'PUT /api/takes/:takeId/onsets': { needs: 'hear', body: () => ({ onsets: [0, 1, 2] }) },
  'PUT /api/takes/:takeId/recording': { needs: 'hear', body: () => 'RIFF' },
  'GET /api/takes/:takeId/recording': { needs: 'hear' },
  'DELETE /api/takes/:takeId/recording': { needs: 'hear' },
  'DELETE /api/takes/:takeId': { needs: 'hear' },
};

/** A row as a request. */
export interface Ask {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** The request of a row with these ids; one that it has no name for is made up. */
export function askFor(route: string, ids: Ids): Ask {
  const { query, body } = EVERY_ROUTE[route]!;
  const [method = '', pattern = ''] = route.split(' ');
  const path = pattern.replaceAll(/:(\w+)/g, (_, name: string) => ids[name] ?? uuid());
  return { method, path: path + (query?.(ids) ?? ''), body: body?.(bodiesWith(ids), ids) };
}
