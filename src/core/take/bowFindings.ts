import type { Seconds } from '#core/base';
import { PULSE_DECIBELS } from '#core/performance';
import type { Stray } from './closer';
import type { ExpectedNote } from './expected';
import { findingAt, type TakeFinding } from './finding';
import type { HeardNote } from './heard';
import { decibels, envelope, median, quantile } from './measure';
import { distinctPartials, envelopeOf, tracksOf } from './partials';
import type { TakeScene } from './scene';

const STEP = 0.004;
const WINDOW = 0.018;
/** A turn of the bow is heard as a dip of so many dB. */
const TURN_DIP = 4;
/** How long before a pitch the bow may have turned, and how far into the note before it surely had not. */
const TURN_BEFORE = 0.17;
const NOT_WITHIN = 0.05;
/** The same where it is read from one string alone, which is less even. */
const BESIDE_DIP = 7;
/** A beginning is seen so many steps early. */
const WINDOW_STEPS = 2;
/** What is there so soon after a beginning was there from the beginning. */
const AT_ONCE = 0.03;
/** Of its level before the turn. */
const GOES_ON = 0.5;
/** A skipped string sounds when it is within so many dB of the note, and so much louder than before. */
const SKIPPED = { below: 12, above: 9, from: -0.02, to: 0.16 } as const;
/** Halves of 80 % intervals. */
const UNSURE = {
  lateMs: 12,
  heldMs: 24,
  skippedMs: 10,
  tripletPercent: 10,
  pulseDecibels: 0.7,
  gapPercent: 12,
  scratchMs: 16,
  flickMs: 12,
} as const;
/** A pulse is looked at in these shares of the note, which see so much of it: sin² rises from 0.35 to 1. What ends so much louder has risen. */
const PULSE = { before: [0.14, 0.26], middle: [0.44, 0.56], after: [0.74, 0.86], seen: 0.64, risen: 1 } as const;
/** Where the two turns of a bowed triplet are looked for, in thirds of it. */
const TRIPLET_DIPS = [
  [0.4, 1.35],
  [1.4, 2.3],
] as const;
/** A gap begins where the note has fallen by half. */
const GAP_BELOW = 6;

/** What is heard of how the bow, and the fingers under it, did their work. */
export function bowFindings(scene: TakeScene): TakeFinding[] {
  const scratches = scratchFindings(scene);
  return scene.heard.notes
    .flatMap((one, i) => {
      if (!one.heard || one.otherCents !== null) return [];
      const has = (mark: string) => one.note.marks.some((own) => own === mark);
      return [
        ...lateFinger(scene, one, scene.heard.notes[i - 1]),
        ...skippedString(scene, one),
        ...(has('bowed-triplet') ? unevenTriplet(scene, one, i) : []),
        ...(has('pulse') ? pulseStayed(scene, one) : []),
        ...(has('staccato') ? runsTogether(scene, one, scene.heard.notes[i + 1]) : []),
        ...(has('flick') ? flickBecameNote(scene, one) : []),
      ];
    })
    .concat(scratches);
}

/** The bow has turned, and the pitch of the note before still sounds: the time between. */
function lateFinger(
  { samples, expected, thresholds }: TakeScene,
  one: HeardNote,
  previous: HeardNote | undefined,
): TakeFinding[] {
  const { note, before } = one;
  const isAsked =
    note.startsStroke &&
    before?.place === note.place &&
    note.semitones > 0 &&
    note.restBefore === 0 &&
    !note.hasGesture;
  if (!isAsked || before.hasGesture || before.marks.length > 0 || note.marks.length > 0 || before.midi === note.midi)
    return [];
  if (one.visit?.isJump) return [];
  // The stroke may have been heard to begin with the pitch of the note before.
  const held = one.strays.find(({ midi, from: since }) => midi === before.midi && since < one.onset + AT_ONCE);
  const isHeld = held !== undefined && held.to > one.onset + AT_ONCE && held.to < one.soundsUntil - AT_ONCE;
  const isFinger = !isAdded(expected.a4, one, previous, before, isHeld ? held.to : one.onset);
  if (!isFinger || (isHeld && !soundsOn(samples, one, before, held))) return [];
  const turned = turnBefore(samples, one, before) ?? (isHeld ? one.onset : null);
  if (turned === null) return [];
  const figure = 1000 * ((isHeld ? held.to : one.onset) - turned);
  const uncertainty = isHeld ? UNSURE.heldMs : UNSURE.lateMs;
  return findingAt('late-finger', one, { figure, uncertainty, seconds: turned }, thresholds);
}

/** Whether another pitch stands between the note before and this one: a note too many, and no finger. */
function isAdded(
  a4: number,
  one: HeardNote,
  previous: HeardNote | undefined,
  before: ExpectedNote,
  until: Seconds,
): boolean {
  const second = one.note.secondHertz === null ? null : 69 + 12 * Math.log2(one.note.secondHertz / a4);
  // The string that sounds along from the turn on is no note of its own.
  const isSecond = (midi: number) => second !== null && Math.abs(((midi - second + 606) % 12) - 6) < 0.5;
  const isBetween = ({ midi, from, to }: Stray) =>
    midi !== before.midi &&
    !isSecond(midi) &&
    to - from > AT_ONCE &&
    from < until + AT_ONCE &&
    to > until - 2 * AT_ONCE;
  return one.strays.some(isBetween) || previous?.strays.some(isBetween) === true;
}

/** Whether the note before is bowed until the finger comes, and does not only ring. */
function soundsOn(samples: Float32Array, one: HeardNote, { hertz }: ExpectedNote, held: Stray): boolean {
  const others = one.note.secondHertz === null ? [one.note.hertz] : [one.note.hertz, one.note.secondHertz];
  const level = (from: Seconds, to: Seconds) =>
    quantile(envelope(samples, hertz, others, { from, to, step: STEP, window: WINDOW }), 0.7);
  const was = level(Math.max(one.beforeOnset + NOT_WITHIN, one.onset - TURN_BEFORE), one.onset - AT_ONCE);
  return !(level(one.onset, held.to) < GOES_ON * was);
}

/** When the bow turned while the note before still sounded, and went on sounding; null: with the note itself. */
function turnBefore(samples: Float32Array, one: HeardNote, before: ExpectedNote): Seconds | null {
  const { note } = one;
  const from = Math.max(one.onset - TURN_BEFORE, one.beforeOnset + NOT_WITHIN);
  const span = { from, to: one.onset + 0.06, step: STEP, window: WINDOW };
  if (span.to - from < 0.06) return null;
  const second = note.secondHertz === null ? [] : [note.secondHertz];
  const old = envelope(samples, before.hertz, [note.hertz, ...second], span);
  const own = envelope(samples, note.hertz, [before.hertz, ...second], span);
  // Where all of its partials are another string's too, that one sounds through the turn.
  const isApart = distinctPartials(note.hertz, second).length > 0;
  const all = isApart ? old.map((value, i) => Math.hypot(value, own[i]!)) : old;
  const until = Math.floor((one.onset - from) / STEP) - (isApart ? 0 : WINDOW_STEPS);
  const beyond = isApart ? 8 : 0;
  // The deepest dip, with more of the note before after it than of this one.
  let [dip, depth] = [-1, isApart ? TURN_DIP : BESIDE_DIP];
  for (let i = 3; i < until; i++) {
    const left = quantile(all.subarray(0, i), 0.9);
    const right = quantile(all.subarray(i + 1, until + beyond), 0.8);
    const here = decibels(Math.min(left, right) / all[i]!);
    if (here > depth) [dip, depth] = [i, here];
  }
  if (dip < 0) return null;
  const after = quantile(all.subarray(dip, until + beyond), 0.8);
  let risen = dip;
  while (risen < until && all[risen]! < (all[dip]! + after) / 2) risen += 1;
  // The note before must go on after the turn: what only rings on is no late finger.
  const goesOn = risen < until - 4 ? median(old.subarray(risen, until - 3)) : 0;
  if (goesOn < GOES_ON * quantile(old.subarray(0, dip), 0.9)) return null;
  return from + risen * STEP;
}

/** An open string that the bow should pass over without touching it. */
function skippedString({ samples, thresholds }: TakeScene, one: HeardNote): TakeFinding[] {
  const { note, before } = one;
  if (note.skippedHertz === null || before === null) return [];
  const others = [note.hertz, before.hertz, ...(note.secondHertz === null ? [] : [note.secondHertz])];
  const span = {
    from: one.onset + SKIPPED.from - 0.08,
    to: Math.min(one.end - 0.02, one.onset + SKIPPED.to),
    step: STEP,
    window: WINDOW,
  };
  const partials = distinctPartials(note.skippedHertz, others);
  if (partials.length === 0) return [];
  const between = envelopeOf(tracksOf(samples, note.skippedHertz, partials, span));
  const own = quantile(envelope(samples, note.hertz, [note.skippedHertz], span), 0.9);
  const start = Math.round(0.08 / STEP);
  const was = median(between.subarray(0, start - 4));
  const line = Math.max(own * 10 ** (-SKIPPED.below / 20), was * 10 ** (SKIPPED.above / 20));
  const figure = 1000 * STEP * between.subarray(start).filter((value) => value > line).length;
  return findingAt('skipped-string-sounds', one, { figure, uncertainty: UNSURE.skippedMs }, thresholds);
}

/**
 * Three strokes on one pitch: how unlike the first two are in length. The bow turns where the note is softest, once
 * about the end of the first third and once about that of the second; a stroke begins halfway up again.
 */
function unevenTriplet({ samples, pace, thresholds }: TakeScene, one: HeardNote, i: number): TakeFinding[] {
  const third = (one.note.tripletSeconds * pace[i]!) / 3;
  const span = { from: one.onset, to: Math.min(one.end, one.onset + 3.4 * third), step: 0.002, window: 0.012 };
  const level = envelope(samples, one.note.hertz, [], span);
  const at = (share: number) => Math.min(level.length - 1, Math.round((share * third) / span.step));
  const begins = TRIPLET_DIPS.map(([from, to]) => {
    let dip = at(from);
    for (let k = dip; k <= at(to); k++) if (level[k]! < level[dip]!) dip = k;
    const high = Math.max(...level.subarray(dip, at(to + 0.7) + 1));
    if (decibels(high / level[dip]!) < TURN_DIP) return NaN;
    let k = dip;
    while (k < level.length - 1 && level[k]! < (level[dip]! + high) / 2) k += 1;
    return k * span.step;
  });
  const [first, second] = [begins[0]!, begins[1]! - begins[0]!];
  // What is no triplet at all is not judged as one.
  if (![first, second].every((length) => length > 0.35 * third && length < 1.8 * third)) return [];
  const figure = (200 * Math.abs(first - second)) / (first + second);
  return findingAt('uneven-triplet', one, { figure, uncertainty: UNSURE.tripletPercent }, thresholds);
}

/**
 * A pulse comes back: its middle lies over the line between what is before and after it, by all of its size. What is
 * missing of that has stayed, if the note ends louder than it begins; that a stroke grows or fades evenly does not matter.
 */
function pulseStayed({ samples, thresholds }: TakeScene, one: HeardNote): TakeFinding[] {
  const length = one.soundsUntil - one.onset;
  const second = one.note.secondHertz === null ? [] : [one.note.secondHertz];
  const level = ([from, to]: readonly [number, number]) => {
    const span = { from: one.onset + from * length, to: one.onset + to * length, step: STEP, window: WINDOW };
    return decibels(median(envelope(samples, one.note.hertz, second, span)));
  };
  const [before, middle, after] = [level(PULSE.before), level(PULSE.middle), level(PULSE.after)];
  const hump = (middle - (before + after) / 2) / PULSE.seen;
  const risen = after - before;
  // What comes back by more than what is left of it has come back.
  const isBack = risen < Math.max(PULSE.risen, hump);
  const figure = isBack ? 0 : PULSE_DECIBELS - Math.max(0, hump);
  return findingAt('pulse-stayed', one, { figure, uncertainty: UNSURE.pulseDecibels }, thresholds);
}

/** The gap after a staccato note, of its time, against what is planned. */
function runsTogether({ samples, thresholds }: TakeScene, one: HeardNote, next: HeardNote | undefined): TakeFinding[] {
  if (!next?.heard || !one.isFollowed || next.note.restBefore > 0) return [];
  const span = { from: one.onset, to: next.onset, step: STEP, window: WINDOW };
  const level = envelope(samples, one.note.hertz, [next.note.hertz], span);
  const high = quantile(level.subarray(0, Math.ceil(0.6 * level.length)), 0.8);
  const line = high * 10 ** (-GAP_BELOW / 20);
  const gap = level.subarray(Math.ceil(0.3 * level.length)).filter((value) => value < line).length / level.length;
  const figure = 100 * (1 - gap / STACCATO_GAP);
  return findingAt('staccato-runs-together', one, { figure, uncertainty: UNSURE.gapPercent }, thresholds);
}

/** Share of a staccato note's time that is silent. A guess, as it is played. */
const STACCATO_GAP = 0.45;

/** A finger that flicks stands at most so many semitones above the note. */
const FINGER_ABOVE = 5;

/** After a flick the finger should leave no pitch of its own. */
function flickBecameNote({ thresholds }: TakeScene, one: HeardNote): TakeFinding[] {
  const own = one.note.midi;
  const isFinger = (midi: number) => midi > own && midi <= own + FINGER_ABOVE && midi !== one.before?.midi;
  const stray = one.strays.find(({ from, midi }) => from < one.onset + 0.1 && isFinger(midi));
  if (!stray) return [];
  return findingAt(
    'flick-became-note',
    one,
    { figure: 1000 * (stray.to - stray.from), uncertainty: UNSURE.flickMs },
    thresholds,
  );
}

/** How long each stroke is noise before its pitch stands, beyond what is usual with this player. */
function scratchFindings(scene: TakeScene): TakeFinding[] {
  const { strokes, times } = scene.bites;
  const own = median(times);
  const { biteMs } = scene.reference ?? { biteMs: null };
  const usual = (biteMs === null ? own : biteMs / 1000) + 1.5 * median(times.map((time) => Math.abs(time - own)));
  return strokes.flatMap((one, i) =>
    findingAt('scratch', one, { figure: 1000 * (times[i]! - usual), uncertainty: UNSURE.scratchMs }, scene.thresholds),
  );
}
