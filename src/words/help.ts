/** What a room is for and how one gets about in it. */
interface RoomHelp {
  readonly title: string;
  readonly about: readonly string[];
  readonly keys: readonly (readonly [keys: string, does: string])[];
}

const UNDO: RoomHelp['keys'] = [
  ['Ctrl Z', 'undo'],
  ['Ctrl Y', 'redo'],
];
const LISTEN: RoomHelp['keys'] = [
  ['Space', 'play, or stop'],
  ['X', 'loop'],
  ['[ ]', 'hear it slower, faster'],
  ['{ }', 'lower, raise the goal'],
];

const BOOK: RoomHelp = {
  title: 'The book',
  about: [
    'All your tunes, each with its verdict: whether it comes round, and up to which tempo it holds.',
    'The ring beside a ceiling is your own: up to where the tune holds for your hands, once enough is logged. “New to you” counts what you have not yet played clean anywhere.',
    'Press a heading to sort. Search takes words, misspelt ones too, or the first notes in any key.',
  ],
  keys: [
    ['↑ ↓', 'from tune to tune'],
    ['Enter', 'open the tune'],
    ['Space', 'select it'],
    ['/', 'search'],
  ],
};
const SETS: RoomHelp = {
  title: 'Sets',
  about: [
    'Tunes you play one after another. Between each two it says whether the bow goes straight on or has to be lifted, and what else changes.',
    'Drag a tune by its handle to move it. Play the whole set, print it, or save it as one file.',
  ],
  keys: UNDO,
};
const PRACTICE: RoomHelp = {
  title: 'Practice',
  about: [
    'A tune comes in bites: what can be learnt at a time. Drag a dashed line to cut it elsewhere, and give a bite a name of your own.',
    'While a bite is running, say after each time whether it was clean: the tempo climbs, falls back, and takes apart what fails by itself. A pedal that sends arrows or pages does it too. With “Listen to me” it hears that by itself, and your hands stay on the fiddle.',
    'Nothing is lost while the server is away: what you play waits in this browser until it is logged.',
  ],
  keys: [
    ['→ or C', 'it was clean'],
    ['← or N', 'not yet'],
    ['1 – 7', 'what went wrong'],
    ['A', 'take it apart'],
    ['H', 'this hurts'],
    ['Backspace', 'take the last one back'],
    ['Space', 'play along, or stop'],
    ...UNDO,
  ],
};
const LOG: RoomHelp = {
  title: 'The log',
  about: [
    'What you played, day by day: open a tune to put right what was logged wrong, to note on it or remove it. Nothing is overwritten, so all of it can be undone.',
    'How a stretch comes on: the quickest clean tempo of each day, the tempo wanted, and up to where your own hands hold. With four clean days or more it says when the tempo will be clean, or that it is not on this path.',
    'What your hands can do is learnt from it and shown in the book, on the bench and in the settings; a limit changes only when you take it.',
  ],
  keys: [['/', 'search'], ...UNDO],
};
const BENCH: RoomHelp = {
  title: 'The bench',
  about: [
    'Plan the tune note by note. The sentence on top says whether the plan works; notes in the margin say where it does not, why, and what would mend it.',
    'Under the staff: the bow from frog to tip, the arm’s angle over the strings, and the time to spare at each note.',
    'Select a note, then press a letter: S slurs it to the note before, D and U lock its bow, Shift C puts a cut on it. Tools open beside the score and show every choice before you take it.',
  ],
  keys: [
    ['← →', 'from note to note; with Shift, select'],
    ['S T H R', 'slur, turn, hook, retake'],
    ['P W', 'bowing patterns, other bowings'],
    ['Shift K', 'take check: play it and hear what went wrong'],
    ['Enter', 'enter notes'],
    ['Ctrl K', 'find a command by name'],
    ['?', 'all keys, while on the bench'],
    ...LISTEN,
    ...UNDO,
  ],
};
const GROUND: RoomHelp = {
  title: 'The ground',
  about: [
    'The key under your hand: where each finger lies in millimetres, what is awkward, and which double stops fit.',
  ],
  keys: UNDO,
};
const DANCE: RoomHelp = {
  title: 'The dance check',
  about: [
    'At which tempo the plan breaks, and where first. Each change that would help is listed with what it buys.',
    '“Make it hold” looks for the fewest changes that get the tune to a tempo.',
  ],
  keys: [...LISTEN, ...UNDO],
};
const PEGS: RoomHelp = {
  title: 'The pegs',
  about: [
    'Your fiddles and how they are tuned: the safest way to another tuning, string by string, and when to check them again.',
    'Strings, hair and rosin go by the hours you log; after how many you are reminded is yours to set, under Fiddle and strings.',
  ],
  keys: UNDO,
};
const SETTINGS: RoomHelp = {
  title: 'Settings',
  about: [
    'How you were taught, your fiddle, and what your hands need. Every change says at once what it does to the tunes in the book.',
    'The pitch that A4 is tuned to holds for all that sounds: what is played to you, takes, the ear test and the pegs.',
  ],
  keys: UNDO,
};

const HANDOUT: RoomHelp = {
  title: 'The hand-out',
  about: [
    'The tune on paper, as it is or in a version of it: choose the paper, the size of the staff and the rows under it, and write a note for the learner.',
    'Print it, or save it as SVG or PDF.',
  ],
  keys: UNDO,
};
const BESIDE: RoomHelp = {
  title: 'Settings side by side',
  about: ['Versions and other settings of the tune, lined up with it bar by bar and compared beat by beat.'],
  keys: [],
};

/** What is told of each room about a tune, by the last part of its address. */
const ABOUT_TUNE: Readonly<Record<string, RoomHelp>> = {
  ground: GROUND,
  dance: DANCE,
  handout: HANDOUT,
  settings: BESIDE,
  practice: PRACTICE,
};

/** Help for the room at an address. */
export function roomHelp(path: string): RoomHelp {
  const [first, , room] = path.split('/').filter(Boolean);
  if (first === 'pegs') return PEGS;
  if (first === 'sets') return SETS;
  if (first === 'log') return LOG;
  if (first === 'practice') return PRACTICE;
  if (first === 'settings') return SETTINGS;
  if (first !== 'tunes') return BOOK;
  return (room === undefined ? undefined : ABOUT_TUNE[room]) ?? BENCH;
}
