import { DRILL_KINDS, type DrillKind } from '#core/drills';

/** What is learnt before what, where a tune asks for both. */
export const PREREQUISITES: Readonly<Partial<Record<DrillKind, readonly DrillKind[]>>> = {
  'early-arm': ['turn-in-silence'],
  'skipped-string': ['turn-in-silence', 'early-arm'],
  elbow: ['turn-in-silence'],
  'pair-plane': ['turn-in-silence'],
  'no-bump': ['pair-plane'],
  'doubling-approach': ['pair-plane'],
  'one-finger-across': ['tone-match'],
  'stretch-pair': ['tone-match'],
  shift: ['finger-before-bow'],
  hop: ['finger-before-bow'],
  'falling-run': ['finger-before-bow'],
  'bowed-triplet': ['pattern'],
  'closing-swell': ['pulse', 'pair-plane'],
  flick: ['falling-run'],
  staccato: ['bow-amount'],
  fade: ['bow-amount'],
  'start-place': ['bow-amount'],
  vibrato: ['tone-match'],
};

export interface CourseWish {
  /** Drills that the tune asks for, with the minutes that they take. */
  readonly drills: readonly { readonly kind: DrillKind; readonly minutes: number }[];
  /** Bites in the order in which they are learnt. */
  readonly bites: readonly string[];
  readonly days: number;
  readonly minutesADay: number;
}

export interface CourseDay {
  /** At most two, with their minutes. */
  readonly aspects: readonly { readonly kind: DrillKind; readonly minutes: number; readonly goesOn: boolean }[];
  /** Bites that are new that day, at most two. */
  readonly fresh: readonly string[];
  /** Bites of the days before, the last ones first. */
  readonly again: readonly string[];
  readonly minutes: number;
}

export interface Course {
  readonly days: readonly CourseDay[];
  /** What did not fit any more. */
  readonly leftDrills: readonly DrillKind[];
  readonly leftBites: readonly string[];
}

export const MAX_ASPECTS = 2;
const MAX_FRESH = 2;
/** The most of a day that is drill. A guess. */
const DRILL_SHARE = 0.4;
const FRESH_MINUTES = 5;
const AGAIN_MINUTES = 3;

/** Drills with what is learnt before them first, else as they are given. */
export function inOrder(kinds: readonly DrillKind[]): DrillKind[] {
  const wanted = new Set(kinds);
  const done = new Set<DrillKind>();
  const order: DrillKind[] = [];
  const visit = (kind: DrillKind) => {
    if (done.has(kind)) return;
    done.add(kind);
    for (const before of PREREQUISITES[kind] ?? []) if (wanted.has(before)) visit(before);
    order.push(kind);
  };
  for (const kind of DRILL_KINDS) if (wanted.has(kind)) visit(kind);
  return order;
}

/**
 * A tune over some days: each day at most two aspects of technique, what is not through goes on the next day; at most two new
 * bites, and those of the days before once more, as far as the minutes go. Time O(d·(k + b)).
 */
export function courseOf({ drills, bites, days, minutesADay }: CourseWish): Course {
  const minutesOf = new Map(drills.map(({ kind, minutes }) => [kind, minutes]));
  const queue = inOrder(drills.map(({ kind }) => kind)).map((kind) => ({ kind, left: minutesOf.get(kind)! }));
  const waiting = [...bites];
  const met: string[] = [];
  const course: CourseDay[] = [];
  for (let day = 0; day < days && (queue.length > 0 || waiting.length > 0); day++) {
    let left = Math.floor(minutesADay);
    let forDrills = Math.floor(minutesADay * (waiting.length > 0 ? DRILL_SHARE : 1));
    const aspects: CourseDay['aspects'][number][] = [];
    for (const drill of queue.slice(0, MAX_ASPECTS)) {
      const minutes = Math.min(drill.left, forDrills);
      if (minutes <= 0) break;
      drill.left -= minutes;
      forDrills -= minutes;
      left -= minutes;
      aspects.push({ kind: drill.kind, minutes, goesOn: drill.left > 0 });
    }
    while (queue[0]?.left === 0) queue.shift();
    const again = [...met].reverse();
    const fresh: string[] = [];
    while (fresh.length < MAX_FRESH && waiting.length > 0 && left >= FRESH_MINUTES) {
      fresh.push(waiting.shift()!);
      left -= FRESH_MINUTES;
    }
    const fits = again.slice(0, Math.floor(left / AGAIN_MINUTES));
    left -= AGAIN_MINUTES * fits.length;
    met.push(...fresh);
    if (aspects.length === 0 && fresh.length === 0) break;
    course.push({ aspects, fresh, again: fits, minutes: Math.floor(minutesADay) - left });
  }
  return { days: course, leftDrills: queue.map(({ kind }) => kind), leftBites: waiting };
}
