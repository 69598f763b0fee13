import { scaleBowLengths, setBowLengths, strokeHeads } from '#core/bowing';
import {
  alterNotes,
  barsOf,
  changeLengths,
  copyEvents,
  type Fragment,
  joinBar,
  type LengthChange,
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
import { MAX_WISH, MIN_WISH } from '#core/travel';
import { type NoteMark, PLACES, type Tune, writtenNotes } from '#core/tune';
import { counted } from '#words/plural';
import { stringName } from '#words/strings';
import type { Bench, Command, CommandGroup } from './command';

/** What an edit is made on: the selected notes, and what was copied last. */
type EditContext = Pick<Bench, 'tune' | 'ids' | 'clipboard'>;

/** What an edit did. */
interface EditResult {
  readonly tune?: Tune;
  /** What it did, for undo. */
  readonly label: string;
  readonly clipboard?: Fragment;
  /** Notes to be selected afterwards; left out where the selection stays. */
  readonly select?: readonly string[];
}

/** What it would do; null where it does not apply. */
type EditRun = (context: EditContext) => EditResult | null;

/** An edit of the selected notes; null where it changes nothing. */
const onNotes =
  (label: string, edit: (tune: Tune, ids: ReadonlySet<string>) => Tune | null): EditRun =>
  ({ tune, ids }) => {
    if (ids.length === 0) return null;
    const next = edit(tune, new Set(ids));
    return next?.parts.some((part, i) => part !== tune.parts[i]) ? { tune: next, label } : null;
  };

const length = (change: LengthChange, label: string) => onNotes(label, (tune, ids) => changeLengths(tune, ids, change));
const bowLength = (factor: number, label: string) =>
  onNotes(label, (tune, ids) => scaleBowLengths(tune, ids, factor, MIN_WISH, MAX_WISH));
const drone = (side: 'upper' | 'lower' | null, label: string) =>
  onNotes(label, (tune, ids) => setDrone(tune, ids, side));
const mark = (name: NoteMark) => onNotes(name, (tune, ids) => toggleMark(tune, ids, name));

const copy: EditRun = ({ tune, ids }) =>
  ids.length === 0 ? null : { label: `copy ${count(ids.length)}`, clipboard: copyEvents(tune, new Set(ids)) };

const cut: EditRun = ({ tune, ids }) =>
  ids.length === 0
    ? null
    : {
        tune: removeEvents(tune, new Set(ids)),
        label: `cut ${count(ids.length)}`,
        clipboard: copyEvents(tune, new Set(ids)),
        select: neighbourOf(tune, ids),
      };

const paste =
  (way: 1 | -1 | null): EditRun =>
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

const repeat: EditRun = ({ tune, ids }) => {
  const repeated = repeatBars(tune, new Set(ids));
  return repeated && { tune: repeated.tune, label: 'repeat the bars', select: repeated.ids };
};

const takeAway: EditRun = ({ tune, ids }) =>
  ids.length === 0
    ? null
    : {
        tune: removeEvents(tune, new Set(ids)),
        label: `delete ${count(ids.length)}`,
        select: neighbourOf(tune, ids),
      };

const rests: EditRun = ({ tune, ids }) =>
  ids.length === 0 ? null : { tune: silence(tune, new Set(ids)), label: 'make rests', select: neighbourOf(tune, ids) };

const move =
  (way: 'earlier' | 'later'): EditRun =>
  ({ tune, ids }) => {
    const moved = moveEvents(tune, ids, way);
    return moved && { tune: moved, label: `move ${way}` };
  };

const ending =
  (plays: readonly number[] | null, label: string): EditRun =>
  ({ tune, ids }) => {
    const bars = barsOf(tune, new Set(ids));
    return bars.size === 0 ? null : { tune: setEnding(tune, bars, plays), label };
  };

const redraw: EditRun = ({ tune, ids }) => {
  const [bar] = barsOf(tune, new Set(ids));
  if (bar === undefined) return null;
  return { tune: rebar(tune, bar), label: 'redraw the bar lines' };
};

const join: EditRun = ({ tune, ids }) => {
  const [bar] = barsOf(tune, new Set(ids));
  const joined = bar === undefined ? tune : joinBar(tune, bar);
  return joined === tune ? null : { tune: joined, label: 'join to the bar before' };
};

const cutPart: EditRun = ({ tune, ids }) => {
  const [bar] = barsOf(tune, new Set(ids));
  const split = bar === undefined ? null : splitPart(tune, bar);
  return split && { tune: split.tune, label: `begin part ${split.name} here` };
};

/** An edit as a command: it applies where it would do something. */
const edit = (group: CommandGroup, id: string, label: string, key: string | null, run: EditRun): Command => ({
  id,
  label,
  group,
  keys: key === null ? [] : [key],
  repeats: group === 'marks' || group === 'stroke',
  applies: (bench) => run(bench) !== null,
  run: (bench) => {
    const result = run(bench);
    if (!result) return;
    if (result.clipboard) bench.copy(result.clipboard);
    if (result.tune) bench.edit(result.tune, `${result.label} in ${bench.where}`);
    const [first, last] = [result.select?.[0], result.select?.at(-1)];
    if (first !== undefined && last !== undefined) bench.select({ anchor: first, focus: last });
  },
});

/** Group, name, label, key, and what it does. */
type Edit = readonly [CommandGroup, string, string, string | null, EditRun];

export const EDITS: readonly Edit[] = [
  ['copies', 'copy', 'Copy', 'ctrl+c', copy],
  ['copies', 'cut', 'Cut', 'ctrl+x', cut],
  ['copies', 'paste', 'Paste after', 'ctrl+v', paste(null)],
  ['copies', 'paste-up', 'Paste on the higher strings', 'ctrl+shift+v', paste(1)],
  ['copies', 'paste-down', 'Paste on the lower strings', 'ctrl+alt+v', paste(-1)],
  ['copies', 'repeat', 'Repeat the bars', 'ctrl+d', repeat],
  ['copies', 'take-away', 'Delete', 'delete', takeAway],
  ['copies', 'rests', 'Make rests', 'shift+delete', rests],
  ['copies', 'earlier', 'Move earlier', 'alt+arrowleft', move('earlier')],
  ['copies', 'later', 'Move later', 'alt+arrowright', move('later')],
  ['pitch', 'step-up', 'A step up', 'alt+arrowup', onNotes('a step up', (t, ids) => transposeBySteps(t, ids, 1))],
  [
    'pitch',
    'step-down',
    'A step down',

    'alt+arrowdown',
    onNotes('a step down', (t, ids) => transposeBySteps(t, ids, -1)),
  ],
  [
    'pitch',
    'octave-up',
    'An octave up',

    'alt+shift+arrowup',
    onNotes('an octave up', (t, ids) => transposeByOctaves(t, ids, 1)),
  ],
  [
    'pitch',
    'octave-down',
    'An octave down',

    'alt+shift+arrowdown',
    onNotes('an octave down', (t, ids) => transposeByOctaves(t, ids, -1)),
  ],
  ['pitch', 'raise', 'Raise a semitone', '+', onNotes('raise a semitone', (t, ids) => alterNotes(t, ids, 1))],
  ['pitch', 'lower', 'Lower a semitone', '-', onNotes('lower a semitone', (t, ids) => alterNotes(t, ids, -1))],
  ['length', 'longer', 'Twice as long', 'l', length('longer', 'twice as long')],
  ['length', 'shorter', 'Half as long', 'k', length('shorter', 'half as long')],
  ['length', 'dotted', 'Dotted, or plain again', '.', length('dotted', 'dotted')],
  ['length', 'tie', 'Tie to the next', 'j', onNotes('tie', toggleTies)],
  ['marks', 'staccato', 'Staccato', null, mark('staccato')],
  ['marks', 'accent', 'Accent', null, mark('accent')],
  ['marks', 'tenuto', 'Tenuto', null, mark('tenuto')],
  ['marks', 'fermata', 'Fermata', null, mark('fermata')],
  ['marks', 'pulse', 'Pulse', 'v', mark('pulse')],
  ['stroke', 'bow-longer', 'Longer stroke', 'e', bowLength(1.1, 'longer stroke')],
  ['stroke', 'bow-shorter', 'Shorter stroke', 'q', bowLength(1 / 1.1, 'shorter stroke')],
  [
    'stroke',
    'bow-own',
    'Its natural length',

    null,
    onNotes('natural length', (t, ids) => setBowLengths(t, new Map(strokeHeads(t, ids).map(({ id }) => [id, null])))),
  ],
  ['stroke', 'drone-upper', 'Add the open string above', null, drone('upper', 'with the string above')],
  ['stroke', 'drone-lower', 'Add the open string below', null, drone('lower', 'with the string below')],
  ['stroke', 'no-drone', 'Remove the drone', null, drone(null, 'on one string')],
  ...PLACES.map((place): Edit => [
    'string',
    `on-${place}`,
    `On the ${place} string`,

    null,
    onNotes(`on the ${place} string`, (t, ids) => pinPlace(t, ids, place)),
  ]),
  ['string', 'unpinned', 'Free the string', null, onNotes('string freed', (t, ids) => pinPlace(t, ids, null))],
  ['bars', 'rebar', 'Redraw the bar lines from here', null, redraw],
  ['bars', 'join-bar', 'Join to the bar before', null, join],
  ['bars', 'begin-part', 'Begin a part with this bar', null, cutPart],
  ['bars', 'ending-1', 'First ending', null, ending([1], 'first ending')],
  ['bars', 'ending-2', 'Second ending', null, ending([2], 'second ending')],
  ['bars', 'no-ending', 'No ending', null, ending(null, 'no ending')],
];

/** All edits of notes and bars, in the order of the menu. */
export const EDIT_COMMANDS: readonly Command[] = EDITS.map((one) => {
  const command = edit(...one);
  const place = PLACES.find((each) => command.id === `on-${each}`);
  return place ? { ...command, labelIn: ({ tuning }) => `On the ${stringName(place, tuning)} string` } : command;
});

/** The note before what goes, or the first after it. */
function neighbourOf(tune: Tune, ids: readonly string[]): string[] {
  const notes = writtenNotes(tune);
  const gone = new Set(ids);
  const first = notes.findIndex(({ id }) => gone.has(id));
  const stays = notes.slice(0, first).at(-1) ?? notes.slice(first).find(({ id }) => !gone.has(id));
  return stays ? [stays.id] : [];
}

function count(notes: number): string {
  return counted(notes, 'note');
}
