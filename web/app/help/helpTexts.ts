import { perLanguage, t } from '../../../core/words/say.ts';
/** What a view is for, in a teacher's words, and its keys. */
export interface Help {
  /** Address of the view, as in the list of pages. */
  readonly path: string;
  readonly title: string;
  readonly points: readonly string[];
  readonly keys?: readonly (readonly [key: string, what: string])[];
}

const VALUES = perLanguage((): Omit<Help, 'path'> => ({
  title: t`Values`,
  points: [
    t`How long notes and rests are: by folding a sheet, laying strips, adding, and by
      asking which value gets the beat.`,
    t`Questions are made of the values you choose below; a wrong answer says what was mistaken.`,
    t`Everything is called as your class calls it. Change that under Class, Change.`,
  ],
  keys: [
    [t`space`, t`on: fold, hear the strips, show or hide the answer, next question`],
    [t`1 to 6`, t`an answer; in signs: the sign on the staff`],
    ['Q', t`in sums: a question; Esc: build one`],
    ['← →', t`fewer or more folds; the left or right side of the balance`],
    ['⌫', t`in sums: take the last value away`],
    ['N', t`in strips: as notes`],
    [t`A to D, Enter`, t`in signs: the name of the sign; done`],
  ],
}));

const EAR = perLanguage((): Omit<Help, 'path'> => ({
  title: t`Ear`,
  points: [
    t`Echo: hear it, clap it back while the beat goes on, then count it. A step harder
      each time it goes well.`,
    t`Choose: which of four is heard? Then the ruler opens beat by beat, and what it rules
      out steps back.`,
    t`Write it: lay strips for what you hear. What sounds the same is right, however it is written.`,
    t`Cards: the measures of a pattern moved about; the new row is led and heard like any pattern.`,
    t`Signs and Draw it: know the signs on five lines, and draw them stroke by stroke.`,
    t`Rhythms are made of what the class has met, by its records; “From … elements” changes that.`,
  ],
  keys: [
    [t`space`, t`on: play, open the next beat, the next one`],
    [t`A to D`, t`an answer`],
    ['H', t`count hands, then type four numbers`],
    [t`enter`, t`compare, open all, put down the pen`],
    ['N', t`strips or notes`],
  ],
}));

const MAKE = perLanguage((): Omit<Help, 'path'> => ({
  title: t`Make`,
  points: [
    t`Twelve rhythms at a time, made of what you choose, as hard as each other. Nothing is
      kept until you say so.`,
    t`What next: what the class has met, with what it is least sure of or misreads most,
      by its records.`,
    t`For a misreading: rhythms in which a child that misreads so is heard to. Each was
      tried by the judge.`,
    t`Easier and Harder change one card. Lock measures by their numbers and the others are made anew.`,
    t`Line-up: as many rhythms as children, as hard as each other, kept in a folder of their own.`,
    t`All of them: every way to fill a measure from a few cells, as a drill, cards, or a line-up.`,
  ],
  keys: [
    [t`space`, t`make twelve; lead all of them`],
    ['N', t`what next for the class`],
  ],
}));

const PLAN = perLanguage((): Omit<Help, 'path'> => ({
  title: t`Plan`,
  points: [
    t`Lessons: the next days of the term; Prepare it puts blocks and patterns together,
      from yours where some fit.`,
    t`Or begin with one of four kinds of lesson, for any day or none.`,
    t`Term: when the class has lessons, and what is new, in your order. Each is met, read,
      written, then heard.`,
    t`Drag a lesson to another day and the rest follows. What was not done moves on with one press.`,
    t`What is old comes back before three weeks are over; what does not is said.`,
    t`The picture: round is planned, square is what was heard; empty is met, half
      practised, full firm.`,
    t`Calendar file: all lessons with what is in them, for any calendar.`,
    t`Booklet of sheets: paper for every lesson of the term in one file, with contents and keys.`,
  ],
  keys: [[t`space`, t`prepare or open the next lesson; plan the term`]],
}));

const SHEETS = perLanguage((): Omit<Help, 'path'> => ({
  title: t`Sheets`,
  points: [
    t`Paper for the lesson, with its key: choose what is on it, how many questions, and
      how hard they are.`,
    t`Several kinds stand on one sheet: drag them into order, or use their arrows.`,
    t`At the right are the pages as they are printed: what the children get, what you
      clap, and the key.`,
    t`Two versions have different questions that are as hard. With names on it there is a
      copy for each child.`,
    t`A sheet that is kept is the same next year: the seed says which questions it has.`,
    t`Enter the totals: they go into the class as marks from paper, with one key a child.`,
    t`Strips and cards are true to length when they are printed without fitting to the page (100 %).`,
  ],
  keys: [
    [t`space`, t`open to print`],
    ['N', t`other questions`],
  ],
}));

/** The first that fits counts. */
export const HELP = perLanguage((): readonly Help[] => [
  { path: 'values', ...VALUES() },
  { path: 'values/:part', ...VALUES() },
  { path: 'ear', ...EAR() },
  { path: 'ear/:part', ...EAR() },
  { path: 'make', ...MAKE() },
  { path: 'make/:part', ...MAKE() },
  { path: 'plan', ...PLAN() },
  { path: 'plan/:part', ...PLAN() },
  {
    path: 'plan/:classId/:lessonId',
    title: t`A lesson`,
    points: [
      t`Blocks in the order of the lesson: drag them, or use their arrows. Minutes are
        computed, or typed.`,
      t`What the class has not met is said beside its block. “New” says where it meets it.`,
      t`Start lesson: a bar above every view says where you are, what is next and how the
        time stands.`,
      t`What is left out moves on in the term. A copy for another class has what that class has met.`,
    ],
    keys: [
      [t`space`, t`start the lesson`],
      ['>', t`in a lesson, in every view: the next part`],
      ['B', t`in a lesson: a dark screen, and light again (a clicker sends it, with PageDown and PageUp)`],
      ['<', t`the part before`],
    ],
  },
  { path: 'sheets', ...SHEETS() },
  {
    path: 'sheets/booklet/:classId',
    title: t`Booklet of the term`,
    points: [
      t`A sheet a lesson, in the order of the plan, in one file: contents first, lists and
        keys at the end.`,
      t`For each lesson: a sheet made of its elements and patterns, one that you have kept, or none.`,
      t`What stands on the sheets that are made, and how hard it is, is chosen once for all of them.`,
      t`This device remembers your choice. The same booklet can be printed again; N makes
        other questions.`,
    ],
    keys: [
      [t`space`, t`open it to print`],
      ['N', t`other questions`],
    ],
  },
  { path: 'sheets/:sheetId', ...SHEETS() },
  {
    path: 'today',
    title: t`Today`,
    points: [
      t`The lesson that is on or comes next, by the terms of all your classes; the space
        bar starts it.`,
      t`Every class at one press; what is due in it this week stands below its name.`,
      t`The half circle above: colours for a dark room, for a bright one, or as usual;
        this device remembers it.`,
      t`Left over: line-ups that go on, takes that broke off, what waits to be sent, who
        was away last time.`,
    ],
    keys: [[t`space`, t`start the lesson; prepare it where nothing is prepared`]],
  },
  {
    path: 'patterns',
    title: t`Patterns`,
    points: [
      t`Your rhythms, each in a line of text and as notes. Open one to change it, show it,
        lead it or hear it.`,
      t`Bring in: MusicXML, MIDI, ABC, rhythm text or a zip of them, many at once, or
        dropped on the list.`,
      t`What comes of them is shown as notes first; nothing is saved until you say so.`,
      t`Choose the part, the measures, phrases, letter names on the notes. Measures keep
        the numbers of their piece.`,
      t`MIDI that was played freely becomes no notes: it can be heard as a child’s take.`,
      t`Look for them by words, or by meter, element, level, folder, and by what the class has met.`,
      t`Arrange: drag them into your order or use the arrows, put them into folders, or
        away; doubles are said.`,
      t`Page of lines: choose some in order; they are kept as one, and led, practised and
        heard without stopping.`,
      t`Take out: some or all as PDF, picture, MusicXML, MIDI, sound, ABC or text, in a
        zip that comes in again.`,
    ],
    keys: [
      [t`space`, t`a new pattern; save what was brought in`],
      ['B', t`bring in`],
      ['L', t`lead the page of lines`],
      ['F', t`look for some`],
      ['Esc', t`back to the list`],
    ],
  },
  {
    path: 'patterns/:patternId',
    title: t`A pattern`,
    points: [
      t`The meter, then a letter for each note: w h q e s, a dot to lengthen, parentheses
        for a rest, | for a bar.`,
      t`Or write what you say: “ta ti-ti ta ta” becomes notes.`,
      t`Everything is kept as you type; what is not complete yet stays on this device.`,
      t`Press a note on the ruler to hear why it is counted so.`,
      t`Words over a stretch stand over the notes when the pattern is led, and in results.`,
      t`Parts: two to four lines at once, for groups, hands and feet, or sounds; each
        button can be taken back.`,
      t`Typed, a part has its name in brackets: [clap] q q h [stamp] h h; [stamp]* comes
        again to the end.`,
    ],
    keys: [
      ['← →', t`from note to note, when one is open`],
      ['Esc', t`close the note`],
    ],
  },
  {
    path: 'board/:patternId',
    title: t`The board`,
    points: [t`Only the ruler, for the back row: larger, smaller, lanes on and off.`],
    keys: [
      [t`space`, t`the next pattern`],
      ['+ −', t`larger, smaller`],
      [t`letters`, t`what stands on the buttons`],
    ],
  },
  {
    path: 'show',
    title: t`The second window`,
    points: [
      t`Shows the class what the board or the run in the other window shows, in step,
        without anything to press.`,
    ],
    keys: [['F', t`fill the screen`]],
  },
  {
    path: 'lead',
    title: t`Lead`,
    points: [
      t`Leads the class through a pattern: says, claps, echoes, covers measures, and gets
        faster by your plan.`,
      t`The sounds have levels of their own below; start quiet.`,
      t`A pattern in parts: each part alone, then together; every group looks at its own side.`,
      t`Heard by the microphone, each pass is said how together it was; widths are kept
        with the class, no sound.`,
      t`A small presenter works: its forward key starts and goes on.`,
    ],
    keys: [
      [t`space`, t`start, pause, go on`],
      ['↑ ↓', t`faster, slower`],
      ['→ ←', t`next pass, pass before`],
      ['A', t`this pass again`],
      ['H', t`half speed`],
      ['L', t`this pass again and again`],
      ['E', t`hear the class, or no longer`],
      ['M', t`the measure that was not together, again`],
      ['O', t`a second window, for the projector`],
      ['1 … 9, 0', t`of a page: one line alone, all again`],
      ['C U', t`cover one more measure, uncover all`],
      ['G', t`in parts: the groups change over`],
      ['[ ]', t`a measure back, a measure on`],
      ['F', t`whole screen`],
      ['Esc', t`end`],
    ],
  },
  {
    path: 'room/:classId',
    title: t`Own devices`,
    points: [
      t`A child opens the address on the board, taps the four pictures in their order, and
        then its own name.`,
      t`All clap at once: every device counts in at the same moment. Each child sees its
        own result, you see the class.`,
      t`Takes go into the records as always. The note most missed and what was misread
        most stand on the board.`,
      t`Questions are answered at A to D and opened when you say so. No names stand on the
        board unless you like.`,
      t`A name taken by mistake is freed under “For the teacher”. The room ends after 90
        minutes, or when you end it.`,
    ],
    keys: [
      [t`space`, t`on: open, to all devices, start, show the answer, go on`],
      ['A', t`the same again`],
      ['P', t`play what is asked`],
    ],
  },
  {
    path: 'take/line-up',
    title: t`Hear the class`,
    points: [
      t`One child after another, each with one key. How long it will take is said before it starts.`,
      t`Several patterns are dealt out so that neighbours have different ones.`,
      t`Of a pattern in parts two children at a time, one at F and one at J: choose “In pairs”.`,
      t`It stops at any time, and goes on days later or on another device. Whoever comes
        late is added at the end.`,
    ],
    keys: [[t`space`, t`begin`]],
  },
  {
    path: 'take/line-up/:classId/:lineUpId',
    title: t`Hear the class`,
    points: [
      t`The name on the screen is whose turn it is. What is made easier for a child is
        applied without a word.`,
      t`With the microphone it goes on by itself when the room is quiet, if you chose so.`,
    ],
    keys: [
      [t`space`, t`start; after the result: the next child`],
      [t`0 to 4`, t`a mark by hand; in another scale its figure or first letter, as on the buttons`],
      ['X', t`absent`],
      ['S', t`later`],
      ['L', t`slower for this child`],
      ['A', t`again, after a result; R where A is a mark`],
      ['H', t`hold the result on the screen`],
      ['Esc', t`stop here`],
    ],
  },
  {
    path: 'take',
    title: t`Take`,
    points: [
      t`Hears one child clap or tap a pattern, and says at once what was right and the one
        thing to work on.`,
      t`By taps on the space bar or the screen, by microphone, or from a recording.`,
      t`Of a pattern in parts one part, the app playing the others; or two at once, at F
        and J, by one child or two.`,
      t`Takes are safe on this device until the server has them, also without a network.`,
    ],
    keys: [
      [t`space`, t`start; tap; then the next child`],
      ['F J', t`taps with two fingers`],
      ['↑ ↓', t`faster, slower, before it starts`],
      ['A', t`again`],
      ['Esc', t`break off`],
    ],
  },
  {
    path: 'classes',
    title: t`Classes`,
    points: [
      t`Your classes, and those a colleague shares with you.`,
      t`What you or a colleague removed lies in the bin for 30 days. A class that was
        saved as a file is read in here.`,
    ],
  },
  {
    path: 'classes/:classId',
    title: t`A class`,
    points: [
      t`What the class needs next, then all marks. A filled circle is firm, a triangle
        shaky, a clock due again.`,
      t`Press a heading to sort. Enter on a mark opens the take it comes from.`,
      t`What a mark needs, and how your school writes marks, is set under “Marks”.`,
      t`More: share it with a colleague, close the term, move children up, save it as a
        file, reports for parents.`,
      t`A colleague who may look changes nothing. One who may hear takes, marks and
        corrects, and plans lessons.`,
      t`What such a colleague removes lies in your bin. Children, words, terms and sharing
        stay yours alone.`,
      t`What somebody else changes on another screen appears here by itself.`,
    ],
    keys: [
      [t`arrows`, t`from mark to mark`],
      ['Enter', t`open the take`],
    ],
  },
  {
    path: 'classes/:classId/children/:childId',
    title: t`A child`,
    points: [
      t`What the child knows, its marks over time, what it misread and whether that has gone.`,
      t`What is made easier is set once under “Name and what is made easier”, and applied
        without a word.`,
    ],
  },
  {
    path: 'classes/:classId/takes/:takeId',
    title: t`A take`,
    points: [
      t`What was clapped stands under what was written. “Correct the claps” strikes out
        what was no clap.`,
      t`Your own mark with a reason takes the place of the computed one, which stays beside it.`,
    ],
  },
  {
    path: 'classes/:classId/elements/:element',
    title: t`An element`,
    points: [t`Who has it and who does not, and which of your patterns practise it.`],
  },
  {
    path: 'classes/:classId/practice',
    title: t`Practice weeks`,
    points: [t`What is clapped at home: rhythms, how often, how fast, on which days. The minutes are added up.`],
  },
  {
    path: 'classes/:classId/practice/:weekId',
    title: t`A practice week`,
    points: [
      t`Print a slip for each child, or save the days for a calendar. Takes of these
        rhythms tick the days off.`,
      t`A picture of dots on the slips opens the week at home, on any telephone. What
        comes from there waits for you.`,
    ],
  },
  {
    path: 'classes/:classId/reports',
    title: t`Reports for parents`,
    points: [
      t`Plain sentences, a page for each child, made from what was heard, and a line of
        your own. Print all, or some.`,
    ],
  },
  {
    path: 'classes/:classId/together',
    title: t`Together`,
    points: [
      t`How wide a clap of the class was, pattern by pattern and week by week; press one
        to see its notes.`,
      t`From single takes: everybody’s best or last take of a pattern laid over each
        other, and as a concert to hear.`,
      t`From a recording: what a phone recorded is listened to in this browser and forgotten.`,
    ],
  },
  {
    path: 'classes/:classId/terms/:termId',
    title: t`A term that is over`,
    points: [t`The marks as they were on the day the term was closed.`],
  },
  {
    path: 'first-day',
    title: t`The first day`,
    points: [
      t`A class, its children, how you count, and rhythms to begin with: from above to
        below, then you hear one.`,
    ],
  },
  {
    path: 'school',
    title: t`Your school`,
    points: [
      t`How long things are kept, and what went at night because it had had its time.`,
      t`Its administrators make accounts, hand out codes and invitations, and set these
        times. What is in accounts they do not see.`,
      t`What you need for longer you hold: a child on its page, a class under More.`,
    ],
  },
  {
    path: 'school/answers',
    title: t`What parents ask`,
    points: [t`What is kept of a child, why, and how long: as it is set at your school, to be printed.`],
  },
  {
    path: 'shelf',
    title: t`The school’s shelf`,
    points: [
      t`Lay out a pattern, a page of lines, a lead plan, a sheet, a lesson or a term plan:
        colleagues look at it, hear it, and take a copy that says where it is from.`,
      t`No class, no mark and no name of a child goes with it. What you take back is gone
        from the shelf; copies stay.`,
      t`What is shown goes into one file, for the shelf of another school.`,
    ],
  },
  {
    path: 'licences',
    title: t`Licences`,
    points: [t`What others have made that is part of this app, and on which terms. Open a line to read them.`],
  },
  {
    path: 'account/voice',
    title: t`Your voice`,
    points: [
      t`Say the words of a class’s counting one after the other: a minute in all, in a quiet
        room. Each is cut, made as loud as the others, and its vowel put on the beat.`,
      t`Hear them over the click; any one is said again. Right and left arrows leave one out
        and go back.`,
      t`Lead, what is counted aloud after an answer, and sound files for practising speak with
        your voice while its switch is on. Nobody else’s do.`,
    ],
  },
  {
    path: 'account',
    title: t`Your account`,
    points: [
      t`Your password, passkeys, and where you are signed in. A device you do not know is
        signed out here.`,
      t`After one visit the app works on this device without a network. Install it from
        the browser’s menu if you like.`,
      t`What you change then waits here. Where a colleague changed the same, both are
        shown and you choose.`,
      t`Signing out takes everything of yours off the device, but what is not stored yet.`,
    ],
  },
]);
