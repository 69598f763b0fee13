import type { Stray } from './closer';
import { findingAt, type TakeFinding } from './finding';
import type { HeardNote, Jump } from './heard';
import { decibels, envelope, median } from './measure';
import { UNCLEAR_MS } from './onset';
import type { TakeScene } from './scene';

/** A jump over so many notes or more, or one that lands where a pass begins, is another pass and not an omission. */
const ANOTHER_PASS = 6;
/** Half of an 80 % interval of how long another pitch stood, ms. */
const STRAY_MS = 12;
/** At a note's ends the neighbours are heard for so long without being in it. */
const NEIGHBOUR_SECONDS = 0.05;
/** Marks under which other pitches, or gaps, are meant. */
const BENT = new Set<string>([
  'flick',
  'cut',
  'roll',
  'turn',
  'mordent',
  'trill',
  'slide',
  'bowed-triplet',
  'passing-triplet',
  'brushed-run',
]);
/** A beginning rises by so many dB at least, where a note before rings on at the same pitch. */
const SILENT_BELOW = 15;
const RINGING_BELOW = 8;
const FAINT_BELOW = 17;

/** Notes left out, added and wrong in their order; places begun again, passes passed over. */
export function orderFindings(scene: TakeScene): TakeFinding[] {
  const { heard, thresholds } = scene;
  const { notes } = heard;
  const at = (index: number) => notes[index]!;
  const replaced: { readonly from: number; readonly to: number }[] = [];
  const leftOut = heard.leftOut.flatMap((index) => {
    const instead =
      playedInstead(notes[index - 1], at(index), notes[index + 1]) ??
      playedAgain(scene, scene.pace[index]!, notes[index - 1], at(index));
    if (instead) {
      const { cents, from, to } = instead;
      replaced.push({ from, to });
      const one = { note: at(index).note, onset: from };
      return findingAt('wrong-note', one, { figure: Math.abs(cents), uncertainty: 30 }, thresholds);
    }
    const next = notes.slice(index).find(({ visit }) => visit !== null);
    return findingAt(
      'left-out',
      { note: at(index).note, onset: next?.onset ?? 0 },
      { figure: 1, uncertainty: 0 },
      thresholds,
    );
  });
  const silent = notes.flatMap((one, i) =>
    one.isPassedOver || isSilent(scene, i) ? findingAt('left-out', one, { figure: 1, uncertainty: 0 }, thresholds) : [],
  );
  const added = heard.added.flatMap(({ after, from, to }) =>
    findingAt(
      'added-note',
      at(after),
      { figure: 1000 * (to - from), uncertainty: STRAY_MS, seconds: from },
      thresholds,
    ),
  );
  const strays = notes
    .flatMap((one, i) => addedWithin(scene, one, notes[i + 1], notes[i - 1]?.otherCents ?? null))
    .filter(({ seconds }) => !replaced.some(({ from, to }) => seconds >= from - 0.01 && seconds < to));
  const jumps = heard.jumps.flatMap((jump) => jumpFinding(scene, jump));
  return [...leftOut, ...silent, ...added, ...strays, ...jumps, ...passNotPlayed(scene)];
}

/** A place begun again, or another pass than the plan's: with the notes that were played again or passed over. */
function jumpFinding({ heard: { notes }, thresholds }: TakeScene, { from, to, at: seconds }: Jump): TakeFinding[] {
  if (to === from + 1) return [];
  const isBack = to <= from;
  const over = isBack ? notes.slice(to, from + 1) : notes.slice(from + 1, to);
  const isFar =
    over.length > ANOTHER_PASS && (over.length > 4 * ANOTHER_PASS || notes[to]!.note.isPassStart || !isBack);
  const code = isFar ? 'wrong-pass' : isBack ? 'started-again' : 'left-out';
  // One begins again where it went wrong.
  const [where, all] = code === 'started-again' ? [notes[from]!, over.toReversed()] : [over[0]!, over];
  return findingAt(
    code,
    where,
    { figure: over.length, uncertainty: 0, seconds, notes: all.map(({ note }) => note.index) },
    thresholds,
  );
}

/** The player ended where a pass ends, and the plan goes on: of equal passes one was not played, and which is not told. */
function passNotPlayed({ heard: { notes }, thresholds }: TakeScene): TakeFinding[] {
  const last = notes.findLastIndex(({ visit }) => visit !== null);
  const rest = notes.slice(last + 1);
  if (last < 0 || rest[0]?.note.isPassStart !== true) return [];
  const figure = { figure: rest.length, uncertainty: 0, seconds: notes[last]!.end };
  return findingAt('wrong-pass', rest[0], { ...figure, notes: rest.map(({ note }) => note.index) }, thresholds);
}

/** A note that is not in its place may be one of another pitch, taken for the end of the note before or the beginning of the next: so much of its time. */
const INSTEAD = 0.5;

function playedInstead(before: HeardNote | undefined, { note }: HeardNote, after: HeardNote | undefined) {
  const isLong = ({ from, to }: Stray) => to - from > INSTEAD * note.seconds;
  const stray =
    before?.strays.findLast((one) => isLong(one) && one.to > before.end - 0.06) ??
    after?.strays.find((one) => isLong(one) && one.from < after.onset + 0.03);
  return stray && { ...stray, cents: 100 * (stray.midi - note.midi) };
}

/** The note before begins anew within this share of its length of where the other should have begun, after a dip of so many dB. */
const AGAIN = { within: 0.3, dip: 5, step: 0.004, window: 0.018 } as const;

/** Instead of a note the one before may have been played once more. */
function playedAgain({ samples }: TakeScene, pace: number, before: HeardNote | undefined, { note }: HeardNote) {
  const isPlain = before?.heard === true && before.otherCents === null && before.note.marks.length === 0;
  if (!isPlain || before.note.hasGesture || before.note.midi === note.midi) return undefined;
  const length = Math.min(before.note.seconds, note.seconds) * pace;
  const from = before.onset + before.note.seconds * pace;
  const span = {
    from: from - AGAIN.within * length,
    to: Math.min(before.end - 0.03, from + AGAIN.within * length),
    step: AGAIN.step,
    window: AGAIN.window,
  };
  const level = envelope(samples, before.note.hertz, [], span);
  for (let i = 2; i + 3 < level.length; i++) {
    const [left, right] = [Math.max(...level.subarray(0, i)), Math.max(...level.subarray(i + 1))];
    if (decibels(Math.min(left, right) / level[i]!) > AGAIN.dip)
      return { from, to: before.end, cents: 100 * (before.note.midi - note.midi) };
  }
  return undefined;
}

/** Where the player's time went on and nothing was played. */
function isSilent({ heard: { notes } }: TakeScene, i: number): boolean {
  const one = notes[i]!;
  if (one.visit === null || one.otherCents !== null) return false;
  const around = [notes[i - 2], notes[i - 1], notes[i + 1], notes[i + 2]].flatMap((other) =>
    other?.heard ? [other.level] : [],
  );
  if (around.length < 2) return false;
  const below = median(around) - one.level;
  if (!one.heard) return below > SILENT_BELOW;
  // What is heard without a beginning of its own, or hardly at all, only rings on.
  return (
    below > FAINT_BELOW || (one.note.startsStroke && one.onsetUncertaintyMs >= UNCLEAR_MS && below > RINGING_BELOW)
  );
}

/** Another pitch that stood in a note long enough to be a note of its own. */
function addedWithin(
  { thresholds }: TakeScene,
  one: HeardNote,
  next: HeardNote | undefined,
  beforeCents: number | null,
): TakeFinding[] {
  const { note, before, strays, otherCents } = one;
  // A pitch that shakes beside another string is not told from a third.
  const isBent = note.marks.some((mark) => BENT.has(mark) || (note.secondHertz !== null && mark.startsWith('vibrato')));
  if (!one.heard || otherCents !== null || note.hasGesture || isBent) return [];
  return strays.flatMap(({ midi, from, to }) => {
    const wasPlayed = before && before.midi + Math.round((beforeCents ?? 0) / 100);
    const isBefore = (midi === before?.midi || midi === wasPlayed) && from < one.onset + NEIGHBOUR_SECONDS;
    const isNext = midi === next?.note.midi && to > one.end - NEIGHBOUR_SECONDS;
    const isPassed = midi === note.skippedMidi || midi === next?.note.skippedMidi;
    if (isBefore || isNext || isPassed) return [];
    const isFlick = next?.note.marks.includes('flick') === true && to > one.end - NEIGHBOUR_SECONDS;
    if (isFlick) return [];
    const figure = { figure: 1000 * (to - from), uncertainty: STRAY_MS, seconds: from };
    return findingAt('added-note', one, figure, thresholds);
  });
}
