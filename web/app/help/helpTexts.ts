/** What a view is for, in a teacher's words, and its keys. */
export interface Help {
  /** Address of the view, as in the list of pages. */
  readonly path: string;
  readonly title: string;
  readonly points: readonly string[];
  readonly keys?: readonly (readonly [key: string, what: string])[];
}

const VALUES: Omit<Help, 'path'> = {
  title: 'Values',
  points: [
    'How long notes and rests are: by folding a sheet, laying strips, adding, and by asking which value gets the beat.',
    'Questions are made of the values you choose below; a wrong answer says what was mistaken.',
    'Everything is called as your class calls it. Change that under Class, Change.',
  ],
  keys: [
    ['space', 'on: fold, hear the strips, show or hide the answer, next question'],
    ['1 to 6', 'an answer; in signs: the sign on the staff'],
    ['Q', 'in sums: a question; Esc: build one'],
    ['← →', 'fewer or more folds; the left or right side of the balance'],
    ['⌫', 'in sums: take the last value away'],
    ['N', 'in strips: as notes'],
    ['A to D, Enter', 'in signs: the name of the sign; done'],
  ],
};

const EAR: Omit<Help, 'path'> = {
  title: 'Ear',
  points: [
    'Echo: hear it, clap it back while the beat goes on, then count it. A step harder each time it goes well.',
    'Choose: which of four is heard? Then the ruler opens beat by beat, and what it rules out steps back.',
    'Write it: lay strips for what you hear. What sounds the same is right, however it is written.',
    'Cards: the measures of a pattern moved about; the new row is led and heard like any pattern.',
    'Signs and Draw it: know the signs on five lines, and draw them stroke by stroke.',
    'Rhythms are made of what the class has met, by its records; “From … elements” changes that.',
  ],
  keys: [
    ['space', 'on: play, open the next beat, the next one'],
    ['A to D', 'an answer'],
    ['H', 'count hands, then type four numbers'],
    ['enter', 'compare, open all, put down the pen'],
    ['N', 'strips or notes'],
  ],
};

const MAKE: Omit<Help, 'path'> = {
  title: 'Make',
  points: [
    'Twelve rhythms at a time, made of what you choose, as hard as each other. Nothing is kept until you say so.',
    'What next: what the class has met, with what it is least sure of or misreads most, by its records.',
    'For a misreading: rhythms in which a child that misreads so is heard to. Each was tried by the judge.',
    'Easier and Harder change one card. Lock measures by their numbers and the others are made anew.',
    'Line-up: as many rhythms as children, as hard as each other, kept in a folder of their own.',
    'All of them: every way to fill a measure from a few cells, as a drill, cards, or a line-up.',
  ],
  keys: [
    ['space', 'make twelve; lead all of them'],
    ['N', 'what next for the class'],
  ],
};

const PLAN: Omit<Help, 'path'> = {
  title: 'Plan',
  points: [
    'Lessons: the next days of the term; Prepare it puts blocks and patterns together, from yours where some fit.',
    'Or begin with one of four kinds of lesson, for any day or none.',
    'Term: when the class has lessons, and what is new, in your order. Each is met, read, written, then heard.',
    'Drag a lesson to another day and the rest follows. What was not done moves on with one press.',
    'What is old comes back before three weeks are over; what does not is said.',
    'The picture: round is planned, square is what was heard; empty is met, half practised, full firm.',
    'Calendar file: all lessons with what is in them, for any calendar.',
    'Booklet of sheets: paper for every lesson of the term in one file, with contents and keys.',
  ],
  keys: [['space', 'prepare or open the next lesson; plan the term']],
};

const SHEETS: Omit<Help, 'path'> = {
  title: 'Sheets',
  points: [
    'Paper for the lesson, with its key: choose what is on it, how many questions, and how hard they are.',
    'Several kinds stand on one sheet: drag them into order, or use their arrows.',
    'At the right are the pages as they are printed: what the children get, what you clap, and the key.',
    'Two versions have different questions that are as hard. With names on it there is a copy for each child.',
    'A sheet that is kept is the same next year: the seed says which questions it has.',
    'Enter the totals: they go into the class as marks from paper, with one key a child.',
    'Strips and cards are true to length when they are printed without fitting to the page (100 %).',
  ],
  keys: [
    ['space', 'open to print'],
    ['N', 'other questions'],
  ],
};

/** The first that fits counts. */
export const HELP: readonly Help[] = [
  { path: 'values', ...VALUES },
  { path: 'values/:part', ...VALUES },
  { path: 'ear', ...EAR },
  { path: 'ear/:part', ...EAR },
  { path: 'make', ...MAKE },
  { path: 'make/:part', ...MAKE },
  { path: 'plan', ...PLAN },
  { path: 'plan/:part', ...PLAN },
  {
    path: 'plan/:classId/:lessonId',
    title: 'A lesson',
    points: [
      'Blocks in the order of the lesson: drag them, or use their arrows. Minutes are computed, or typed.',
      'What the class has not met is said beside its block. “New” says where it meets it.',
      'Start lesson: a bar above every view says where you are, what is next and how the time stands.',
      'What is left out moves on in the term. A copy for another class has what that class has met.',
    ],
    keys: [
      ['space', 'start the lesson'],
      ['>', 'in a lesson, in every view: the next part'],
      ['B', 'in a lesson: a dark screen, and light again (a clicker sends it, with PageDown and PageUp)'],
      ['<', 'the part before'],
    ],
  },
  { path: 'sheets', ...SHEETS },
  {
    path: 'sheets/booklet/:classId',
    title: 'Booklet of the term',
    points: [
      'A sheet a lesson, in the order of the plan, in one file: contents first, lists and keys at the end.',
      'For each lesson: a sheet made of its elements and patterns, one that you have kept, or none.',
      'What stands on the sheets that are made, and how hard it is, is chosen once for all of them.',
      'This device remembers your choice. The same booklet can be printed again; N makes other questions.',
    ],
    keys: [
      ['space', 'open it to print'],
      ['N', 'other questions'],
    ],
  },
  { path: 'sheets/:sheetId', ...SHEETS },
  {
    path: 'today',
    title: 'Today',
    points: [
      'The lesson that is on or comes next, by the terms of all your classes; the space bar starts it.',
      'Every class at one press; what is due in it this week stands below its name.',
      'The half circle above: colours for a dark room, for a bright one, or as usual; this device remembers it.',
      'Left over: line-ups that go on, takes that broke off, what waits to be sent, who was away last time.',
    ],
    keys: [['space', 'start the lesson; prepare it where nothing is prepared']],
  },
  {
    path: 'patterns',
    title: 'Patterns',
    points: [
      'Your rhythms, each in a line of text and as notes. Open one to change it, show it, lead it or hear it.',
      'Bring in: MusicXML, MIDI, ABC, rhythm text or a zip of them, many at once, or dropped on the list.',
      'What comes of them is shown as notes first; nothing is saved until you say so.',
      'Choose the part, the measures, phrases, letter names on the notes. Measures keep the numbers of their piece.',
      'MIDI that was played freely becomes no notes: it can be heard as a child’s take.',
      'Look for them by words, or by meter, element, level, folder, and by what the class has met.',
      'Arrange: drag them into your order or use the arrows, put them into folders, or away; doubles are said.',
      'Page of lines: choose some in order; they are kept as one, and led, practised and heard without stopping.',
      'Take out: some or all as PDF, picture, MusicXML, MIDI, sound, ABC or text, in a zip that comes in again.',
    ],
    keys: [
      ['space', 'a new pattern; save what was brought in'],
      ['B', 'bring in'],
      ['L', 'lead the page of lines'],
      ['F', 'look for some'],
      ['Esc', 'back to the list'],
    ],
  },
  {
    path: 'patterns/:patternId',
    title: 'A pattern',
    points: [
      'The meter, then a letter for each note: w h q e s, a dot to lengthen, parentheses for a rest, | for a bar.',
      'Or write what you say: “ta ti-ti ta ta” becomes notes.',
      'Everything is kept as you type; what is not complete yet stays on this device.',
      'Press a note on the ruler to hear why it is counted so.',
      'Words over a stretch stand over the notes when the pattern is led, and in results.',
      'Parts: two to four lines at once, for groups, hands and feet, or sounds; each button can be taken back.',
      'Typed, a part has its name in brackets: [clap] q q h [stamp] h h; [stamp]* comes again to the end.',
    ],
    keys: [
      ['← →', 'from note to note, when one is open'],
      ['Esc', 'close the note'],
    ],
  },
  {
    path: 'board/:patternId',
    title: 'The board',
    points: ['Only the ruler, for the back row: larger, smaller, lanes on and off.'],
    keys: [
      ['space', 'the next pattern'],
      ['+ −', 'larger, smaller'],
      ['letters', 'what stands on the buttons'],
    ],
  },
  {
    path: 'show',
    title: 'The second window',
    points: [
      'Shows the class what the board or the run in the other window shows, in step, without anything to press.',
    ],
    keys: [['F', 'fill the screen']],
  },
  {
    path: 'lead',
    title: 'Lead',
    points: [
      'Leads the class through a pattern: says, claps, echoes, covers measures, and gets faster by your plan.',
      'The sounds have levels of their own below; start quiet.',
      'A pattern in parts: each part alone, then together; every group looks at its own side.',
      'Heard by the microphone, each pass is said how together it was; widths are kept with the class, no sound.',
      'A small presenter works: its forward key starts and goes on.',
    ],
    keys: [
      ['space', 'start, pause, go on'],
      ['↑ ↓', 'faster, slower'],
      ['→ ←', 'next pass, pass before'],
      ['A', 'this pass again'],
      ['H', 'half speed'],
      ['L', 'this pass again and again'],
      ['E', 'hear the class, or no longer'],
      ['M', 'the measure that was not together, again'],
      ['O', 'a second window, for the projector'],
      ['1 … 9, 0', 'of a page: one line alone, all again'],
      ['C U', 'cover one more measure, uncover all'],
      ['G', 'in parts: the groups change over'],
      ['[ ]', 'a measure back, a measure on'],
      ['F', 'whole screen'],
      ['Esc', 'end'],
    ],
  },
  {
    path: 'room/:classId',
    title: 'Own devices',
    points: [
      'A child opens the address on the board, taps the four pictures in their order, and then its own name.',
      'All clap at once: every device counts in at the same moment. Each child sees its own result, you see the class.',
      'Takes go into the records as always. The note most missed and what was misread most stand on the board.',
      'Questions are answered at A to D and opened when you say so. No names stand on the board unless you like.',
      'A name taken by mistake is freed under “For the teacher”. The room ends after 90 minutes, or when you end it.',
    ],
    keys: [
      ['space', 'on: open, to all devices, start, show the answer, go on'],
      ['A', 'the same again'],
      ['P', 'play what is asked'],
    ],
  },
  {
    path: 'take/line-up',
    title: 'Hear the class',
    points: [
      'One child after another, each with one key. How long it will take is said before it starts.',
      'Several patterns are dealt out so that neighbours have different ones.',
      'Of a pattern in parts two children at a time, one at F and one at J: choose “In pairs”.',
      'It stops at any time, and goes on days later or on another device. Whoever comes late is added at the end.',
    ],
    keys: [['space', 'begin']],
  },
  {
    path: 'take/line-up/:classId/:lineUpId',
    title: 'Hear the class',
    points: [
      'The name on the screen is whose turn it is. What is made easier for a child is applied without a word.',
      'With the microphone it goes on by itself when the room is quiet, if you chose so.',
    ],
    keys: [
      ['space', 'start; after the result: the next child'],
      ['0 to 4', 'a mark by hand; in another scale its figure or first letter, as on the buttons'],
      ['X', 'absent'],
      ['S', 'later'],
      ['L', 'slower for this child'],
      ['A', 'again, after a result; R where A is a mark'],
      ['H', 'hold the result on the screen'],
      ['Esc', 'stop here'],
    ],
  },
  {
    path: 'take',
    title: 'Take',
    points: [
      'Hears one child clap or tap a pattern, and says at once what was right and the one thing to work on.',
      'By taps on the space bar or the screen, by microphone, or from a recording.',
      'Of a pattern in parts one part, the app playing the others; or two at once, at F and J, by one child or two.',
      'Takes are safe on this device until the server has them, also without a network.',
    ],
    keys: [
      ['space', 'start; tap; then the next child'],
      ['F J', 'taps with two fingers'],
      ['↑ ↓', 'faster, slower, before it starts'],
      ['A', 'again'],
      ['Esc', 'break off'],
    ],
  },
  {
    path: 'classes',
    title: 'Classes',
    points: [
      'Your classes, and those a colleague shares with you.',
      'What you or a colleague removed lies in the bin for 30 days. A class that was saved as a file is read in here.',
    ],
  },
  {
    path: 'classes/:classId',
    title: 'A class',
    points: [
      'What the class needs next, then all marks. A filled circle is firm, a triangle shaky, a clock due again.',
      'Press a heading to sort. Enter on a mark opens the take it comes from.',
      'What a mark needs, and how your school writes marks, is set under “Marks”.',
      'More: share it with a colleague, close the term, move children up, save it as a file, reports for parents.',
      'A colleague who may look changes nothing. One who may hear takes, marks and corrects, and plans lessons.',
      'What such a colleague removes lies in your bin. Children, words, terms and sharing stay yours alone.',
      'What somebody else changes on another screen appears here by itself.',
    ],
    keys: [
      ['arrows', 'from mark to mark'],
      ['Enter', 'open the take'],
    ],
  },
  {
    path: 'classes/:classId/children/:childId',
    title: 'A child',
    points: [
      'What the child knows, its marks over time, what it misread and whether that has gone.',
      'What is made easier is set once under “Name and what is made easier”, and applied without a word.',
    ],
  },
  {
    path: 'classes/:classId/takes/:takeId',
    title: 'A take',
    points: [
      'What was clapped stands under what was written. “Correct the claps” strikes out what was no clap.',
      'Your own mark with a reason takes the place of the computed one, which stays beside it.',
    ],
  },
  {
    path: 'classes/:classId/elements/:element',
    title: 'An element',
    points: ['Who has it and who does not, and which of your patterns practise it.'],
  },
  {
    path: 'classes/:classId/practice',
    title: 'Practice weeks',
    points: ['What is clapped at home: rhythms, how often, how fast, on which days. The minutes are added up.'],
  },
  {
    path: 'classes/:classId/practice/:weekId',
    title: 'A practice week',
    points: [
      'Print a slip for each child, or save the days for a calendar. Takes of these rhythms tick the days off.',
      'A picture of dots on the slips opens the week at home, on any telephone. What comes from there waits for you.',
    ],
  },
  {
    path: 'classes/:classId/reports',
    title: 'Reports for parents',
    points: [
      'Plain sentences, a page for each child, made from what was heard, and a line of your own. Print all, or some.',
    ],
  },
  {
    path: 'classes/:classId/together',
    title: 'Together',
    points: [
      'How wide a clap of the class was, pattern by pattern and week by week; press one to see its notes.',
      'From single takes: everybody’s best or last take of a pattern laid over each other, and as a concert to hear.',
      'From a recording: what a phone recorded is listened to in this browser and forgotten.',
    ],
  },
  {
    path: 'classes/:classId/terms/:termId',
    title: 'A term that is over',
    points: ['The marks as they were on the day the term was closed.'],
  },
  {
    path: 'first-day',
    title: 'The first day',
    points: [
      'A class, its children, how you count, and rhythms to begin with: from above to below, then you hear one.',
    ],
  },
  {
    path: 'staff',
    title: 'Accounts',
    points: ['Make accounts for colleagues and hand out codes for new passwords. What is in them you do not see.'],
  },
  {
    path: 'licences',
    title: 'Licences',
    points: ['What others have made that is part of this app, and on which terms. Open a line to read them.'],
  },
  {
    path: 'account',
    title: 'Your account',
    points: [
      'Your password, passkeys, and where you are signed in. A device you do not know is signed out here.',
      'After one visit the app works on this device without a network. Install it from the browser’s menu if you like.',
      'What you change then waits here. Where a colleague changed the same, both are shown and you choose.',
      'Signing out takes everything of yours off the device, but what is not stored yet.',
    ],
  },
];
