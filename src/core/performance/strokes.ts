import type { Seconds } from '#core/base';
import { opposite } from '#core/bowing';
import type { BowStroke } from '#core/sound';
import { TRIPLET_TIME, wholeNoteSeconds } from '#core/tempo';
import type { Direction, NoteMark } from '#core/tune';
import { strokeAccents } from './accents';
import { unevenDecibels } from './human';
import type { PlayedPlan } from './soundingTime';
import { noteEnd, soundingSeconds } from './soundingTime';
import type { PerformanceWish } from './wish';

/** A gap of the bow at a hook, the bow in the air before a retake. Guesses. */
const HOOK_SECONDS = 0.03;
const LIFT = { max: 0.07, share: 0.35 } as const;
/** Usual and least or most speeds of the bow that are heard, m/s. */
const SPEED = { default: 0.35, min: 0.18, max: 0.7 } as const;
const FORCE = 0.8;
/** Share of its time that a stroke of a bowed triplet sounds. */
const TRIPLET_SOUNDS = 0.6;
const BITE = { triplet: 2.2, snap: 1.7, seconds: 0.012, snapSeconds: 0.05 } as const;

/** Strokes as planned; bowed triplets are three of their own. */
export function strokesOf(
  report: PlayedPlan,
  { layers, isHuman, liftsAtEnd, isTurned }: Pick<PerformanceWish, 'layers' | 'isHuman' | 'liftsAtEnd' | 'isTurned'>,
  first: number,
  end: number,
  at: (index: number) => Seconds,
): BowStroke[] {
  const { unrolled, figures, settings } = report;
  const strokes: BowStroke[] = [];
  const asPlanned = layers.has('bowing');
  const hasColour = layers.has('colour');
  const tripletSeconds = TRIPLET_TIME * wholeNoteSeconds(settings.bpm, settings.beat);
  const accents = strokeAccents(report);
  const marksAt = (i: number) => (hasColour && unrolled.notes[i]!.note.marks) || [];
  let plain: Direction = 'up';
  for (let i = first, next = i; i < end; i = next) {
    next = i + 1;
    if (asPlanned) while (next < end && figures.bowed[next]!.inStroke > 1) next += 1;
    plain = opposite(plain);
    const sign = ((asPlanned ? figures.bowed[i]!.bow : plain) === 'down') !== (isTurned ?? false) ? 1 : -1;
    const [from, last] = [at(i), next - 1];
    let to = noteEnd(report, last, end, at);
    const marks = marksAt(i);
    to = at(last) + soundingSeconds(to - at(last), marksAt(last));
    const isRetaken = figures.bowed[next]?.link === 'retake' && unrolled.notes[next]!.restBefore.n === 0;
    if (asPlanned && (isRetaken || (next >= end && liftsAtEnd))) to -= Math.min(LIFT.max, LIFT.share * (to - at(last)));
    const speed = speedOf((asPlanned ? (accents.get(i) ?? 0) : 0) + (isHuman ? unevenDecibels(i) : 0));
    const lean = asPlanned ? settings.schools.weightAt : 'even';
    const stroke = { from, to, sign, speed, force: FORCE, bite: 1, biteSeconds: 0, lean, stops: [] } as const;
    if (marks.includes('bowed-triplet') && last === i) {
      strokes.push(...tripletStrokes(stroke, tripletSeconds));
      continue;
    }
    const stops = stopsWithin(report, i, next, at, marksAt);
    const bite = marks.includes('snap') ? { bite: BITE.snap, biteSeconds: BITE.snapSeconds } : {};
    strokes.push({ ...stroke, ...bite, stops });
  }
  return strokes;
}

/** The three strokes of a bowed triplet in the time of one. */
function tripletStrokes(stroke: BowStroke, tripletSeconds: Seconds): BowStroke[] {
  const { from, to, sign } = stroke;
  const third = Math.min(to - from, tripletSeconds) / 3;
  return [0, 1, 2].map((part) => ({
    ...stroke,
    bite: BITE.triplet,
    biteSeconds: BITE.seconds,
    from: from + part * third,
    // Consonant first, then a gap: so the three are told apart.
    to: part === 2 ? to : from + (part + TRIPLET_SOUNDS) * third,
    sign: part === 1 ? (-sign as 1 | -1) : sign,
  }));
}

/** Where the bow stands still within a stroke: at hooks, before rests that it is held over, and after short notes. */
function stopsWithin(
  { unrolled, figures, timing }: PlayedPlan,
  from: number,
  end: number,
  at: (index: number) => Seconds,
  marksAt: (index: number) => readonly NoteMark[],
): BowStroke['stops'] {
  const stops = [];
  for (let j = from + 1; j < end; j++) {
    const sounded = at(j - 1) + soundingSeconds(timing.durations[j - 1]!, marksAt(j - 1));
    const isStopped = figures.bowed[j]!.link === 'hook' || unrolled.notes[j]!.restBefore.n > 0;
    const stopFrom = isStopped ? Math.min(sounded, at(j) - HOOK_SECONDS) : sounded;
    if (at(j) - stopFrom > 0.01) stops.push({ from: stopFrom, to: at(j) });
  }
  return stops;
}

/** Speed of the bow for a stroke so many decibels above a plain one: the string's amplitude goes with it. */
function speedOf(decibels: number): number {
  return Math.min(SPEED.max, Math.max(SPEED.min, SPEED.default * 10 ** (decibels / 20)));
}
