import {
  type Fragment,
  type LengthChange,
  alterNotes,
  barsOf,
  changeLengths,
  copyEvents,
  joinBar,
  moveEvents,
  onNeighbourStrings,
  pasteEvents,
  pinPlace,
  rebar,
  removeEvents,
  repeatBars,
  setDrone,
  setEnding,
  silence,
  splitPart,
  toggleMark,
  toggleTies,
  transposeByOctaves,
  transposeBySteps,
} from '#core/editing';
import { scaleBowLengths, setBowLengths, strokeHeads } from '#core/bowing';
import { LEAST_WISH, MOST_WISH } from '#core/travel';
import { type NoteMark, PLACES, type Tune, writtenNotes } from '#core/tune';

/** What an edit is made on: the selected notes, and what was copied last. */
export interface EditContext {
  readonly tune: Tune;
  readonly ids: readonly string[];
  readonly clipboard: Fragment;
}

/** What an edit did. */
export interface EditResult {
  readonly tune?: Tune;
  /** What it did, for undo. */
  readonly label: string;
  readonly clipboard?: Fragment;
  /** Notes to be selected afterwards; left out where the selection stays. */
  readonly select?: readonly string[];
}

export interface EditAction {
  readonly name: string;
  readonly words: string;
  readonly group: 'copies' | 'pitch' | 'length' | 'marks' | 'bow' | 'string' | 'bars';
  /** Keys as a player reads them, and as an event is matched: `alt+arrowup`. */
  readonly keys: string;
  readonly combo: string | null;
  /** What it would do; null where it does not apply, so that menu and key can never disagree. */
  readonly run: (context: EditContext) => EditResult | null;
}

type Run = EditAction['run'];

/** An edit of the selected notes; null where it changes nothing. */
const onNotes =
  (label: string, edit: (tune: Tune, ids: ReadonlySet<string>) => Tune | null): Run =>
  ({ tune, ids }) => {
    if (ids.length === 0) return null;
    const next = edit(tune, new Set(ids));
    return next?.parts.some((part, i) => part !== tune.parts[i]) ? { tune: next, label } : null;
  };

const length = (change: LengthChange, label: string) => onNotes(label, (tune, ids) => changeLengths(tune, ids, change));
const bowLength = (factor: number, label: string) =>
  onNotes(label, (tune, ids) => scaleBowLengths(tune, ids, factor, LEAST_WISH, MOST_WISH));
const drone = (side: 'upper' | 'lower' | null, label: string) =>
  onNotes(label, (tune, ids) => setDrone(tune, ids, side));
const mark = (name: NoteMark) => onNotes(name, (tune, ids) => toggleMark(tune, ids, name));

const copy: Run = ({ tune, ids }) =>
  ids.length === 0 ? null : { label: `copy ${count(ids.length)}`, clipboard: copyEvents(tune, new Set(ids)) };

const cut: Run = ({ tune, ids }) =>
  ids.length === 0
    ? null
    : {
        tune: removeEvents(tune, new Set(ids)),
        label: `cut ${count(ids.length)}`,
        clipboard: copyEvents(tune, new Set(ids)),
        select: neighbourOf(tune, ids),
      };

const paste =
  (way: 1 | -1 | null): Run =>
  ({ tune, ids, clipboard }) => {
    const at = ids[ids.length - 1];
    if (clipboard.length === 0 || at === undefined) return null;
    if (way === null) {
      const pasted = pasteEvents(tune, at, clipboard);
      return { tune: pasted.tune, label: `paste ${count(pasted.ids.length)}`, select: pasted.ids };
    }
    const { fragment, intervals, unmoved } = onNeighbourStrings(clipboard, tune.tuning, way);
    if (intervals.length === 0) return null;
    const pasted = pasteEvents(tune, at, fragment);
    const left = unmoved > 0 ? `; ${count(unmoved)} had no string there and stayed` : '';
    const label = `paste on the ${way > 0 ? 'higher' : 'lower'} strings: ${intervals.join(', ')}${left}`;
    return { tune: pasted.tune, label, select: pasted.ids };
  };

const repeat: Run = ({ tune, ids }) => {
  const repeated = repeatBars(tune, new Set(ids));
  return repeated && { tune: repeated.tune, label: 'repeat the bars', select: repeated.ids };
};

const takeAway: Run = ({ tune, ids }) =>
  ids.length === 0
    ? null
    : {
        tune: removeEvents(tune, new Set(ids)),
        label: `take away ${count(ids.length)}`,
        select: neighbourOf(tune, ids),
      };

const rests: Run = ({ tune, ids }) =>
  ids.length === 0 ? null : { tune: silence(tune, new Set(ids)), label: 'make rests', select: neighbourOf(tune, ids) };

const move =
  (way: 'earlier' | 'later'): Run =>
  ({ tune, ids }) => {
    const moved = moveEvents(tune, ids, way);
    return moved && { tune: moved, label: `move ${way}` };
  };

const ending =
  (plays: readonly number[] | null, label: string): Run =>
  ({ tune, ids }) => {
    const bars = barsOf(tune, new Set(ids));
    return bars.size === 0 ? null : { tune: setEnding(tune, bars, plays), label };
  };

const redraw: Run = ({ tune, ids }) => {
  const [bar] = barsOf(tune, new Set(ids));
  if (bar === undefined) return null;
  return { tune: rebar(tune, bar), label: 'draw the bar lines anew' };
};

const join: Run = ({ tune, ids }) => {
  const [bar] = barsOf(tune, new Set(ids));
  const joined = bar === undefined ? tune : joinBar(tune, bar);
  return joined === tune ? null : { tune: joined, label: 'join to the bar before' };
};

const cutPart: Run = ({ tune, ids }) => {
  const [bar] = barsOf(tune, new Set(ids));
  const split = bar === undefined ? null : splitPart(tune, bar);
  return split && { tune: split.tune, label: `begin part ${split.name} here` };
};

const action = (
  group: EditAction['group'],
  name: string,
  words: string,
  keys: string,
  combo: string | null,
  run: Run,
): EditAction => ({ name, words, group, keys, combo, run });

/** All edits of notes and bars, in the order of the menu. */
export const EDIT_ACTIONS: readonly EditAction[] = [
  action('copies', 'copy', 'Copy', 'Ctrl C', 'ctrl+c', copy),
  action('copies', 'cut', 'Cut', 'Ctrl X', 'ctrl+x', cut),
  action('copies', 'paste', 'Paste behind', 'Ctrl V', 'ctrl+v', paste(null)),
  action('copies', 'paste-up', 'Paste on the higher strings', 'Ctrl Shift V', 'ctrl+shift+v', paste(1)),
  action('copies', 'paste-down', 'Paste on the lower strings', 'Ctrl Alt V', 'ctrl+alt+v', paste(-1)),
  action('copies', 'repeat', 'Repeat the bars', 'Ctrl D', 'ctrl+d', repeat),
  action('copies', 'take-away', 'Take away', 'Delete', 'delete', takeAway),
  action('copies', 'rests', 'Make rests', 'Shift Delete', 'shift+delete', rests),
  action('copies', 'earlier', 'Move earlier', 'Alt ←', 'alt+arrowleft', move('earlier')),
  action('copies', 'later', 'Move later', 'Alt →', 'alt+arrowright', move('later')),
  action(
    'pitch',
    'step-up',
    'A step up',
    'Alt ↑',
    'alt+arrowup',
    onNotes('a step up', (t, ids) => transposeBySteps(t, ids, 1)),
  ),
  action(
    'pitch',
    'step-down',
    'A step down',
    'Alt ↓',
    'alt+arrowdown',
    onNotes('a step down', (t, ids) => transposeBySteps(t, ids, -1)),
  ),
  action(
    'pitch',
    'octave-up',
    'An octave up',
    'Alt Shift ↑',
    'alt+shift+arrowup',
    onNotes('an octave up', (t, ids) => transposeByOctaves(t, ids, 1)),
  ),
  action(
    'pitch',
    'octave-down',
    'An octave down',
    'Alt Shift ↓',
    'alt+shift+arrowdown',
    onNotes('an octave down', (t, ids) => transposeByOctaves(t, ids, -1)),
  ),
  action(
    'pitch',
    'raise',
    'Raise a semitone',
    '+',
    '+',
    onNotes('raise a semitone', (t, ids) => alterNotes(t, ids, 1)),
  ),
  action(
    'pitch',
    'lower',
    'Lower a semitone',
    '−',
    '-',
    onNotes('lower a semitone', (t, ids) => alterNotes(t, ids, -1)),
  ),
  action('length', 'longer', 'Twice as long', 'L', 'l', length('longer', 'twice as long')),
  action('length', 'shorter', 'Half as long', 'K', 'k', length('shorter', 'half as long')),
  action('length', 'dotted', 'Dotted, or plain again', '.', '.', length('dotted', 'dotted')),
  action('length', 'tie', 'Tie to the next', 'J', 'j', onNotes('tie', toggleTies)),
  action('marks', 'staccato', 'Staccato', '', null, mark('staccato')),
  action('marks', 'accent', 'Accent', '', null, mark('accent')),
  action('marks', 'tenuto', 'Tenuto', '', null, mark('tenuto')),
  action('marks', 'fermata', 'Fermata', '', null, mark('fermata')),
  action('marks', 'pulse', 'Pulse', 'V', 'v', mark('pulse')),
  action('bow', 'bow-longer', 'Longer stroke', 'E', 'e', bowLength(1.1, 'longer stroke')),
  action('bow', 'bow-shorter', 'Shorter stroke', 'Q', 'q', bowLength(1 / 1.1, 'shorter stroke')),
  action(
    'bow',
    'bow-own',
    'Length of its own',
    '',
    null,
    onNotes('length of its own', (t, ids) =>
      setBowLengths(t, new Map(strokeHeads(t, ids).map(({ id }) => [id, null]))),
    ),
  ),
  action('bow', 'drone-upper', 'With the open string above', '', null, drone('upper', 'with the string above')),
  action('bow', 'drone-lower', 'With the open string below', '', null, drone('lower', 'with the string below')),
  action('bow', 'no-drone', 'On one string', '', null, drone(null, 'on one string')),
  ...PLACES.map((place) =>
    action(
      'string',
      `on-${place}`,
      `On the ${place} string`,
      '',
      null,
      onNotes(`on the ${place} string`, (t, ids) => pinPlace(t, ids, place)),
    ),
  ),
  action(
    'string',
    'unpinned',
    'String by the hand',
    '',
    null,
    onNotes('string by the hand', (t, ids) => pinPlace(t, ids, null)),
  ),
  action('bars', 'rebar', 'Draw the bar lines anew from here', '', null, redraw),
  action('bars', 'join-bar', 'Join to the bar before', '', null, join),
  action('bars', 'begin-part', 'Begin a part with this bar', '', null, cutPart),
  action('bars', 'ending-1', 'First ending', '', null, ending([1], 'first ending')),
  action('bars', 'ending-2', 'Second ending', '', null, ending([2], 'second ending')),
  action('bars', 'no-ending', 'No ending', '', null, ending(null, 'no ending')),
];

/** The combination of a key event, as actions name theirs. */
export function comboOf(event: {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly altKey: boolean;
  readonly shiftKey: boolean;
}): string {
  const key = event.key === '=' ? '+' : event.key === 'Backspace' ? 'delete' : event.key.toLowerCase();
  const isSign = key.length === 1 && !/[a-z]/.test(key);
  return [
    ...(event.ctrlKey || event.metaKey ? ['ctrl'] : []),
    ...(event.altKey ? ['alt'] : []),
    ...(event.shiftKey && !isSign ? ['shift'] : []),
    key,
  ].join('+');
}

/** The note before what goes, or the first after it. */
function neighbourOf(tune: Tune, ids: readonly string[]): string[] {
  const notes = writtenNotes(tune);
  const gone = new Set(ids);
  const first = notes.findIndex(({ id }) => gone.has(id));
  const stays = notes.slice(0, first).at(-1) ?? notes.slice(first).find(({ id }) => !gone.has(id));
  return stays ? [stays.id] : [];
}

function count(notes: number): string {
  return `${notes} note${notes === 1 ? '' : 's'}`;
}
