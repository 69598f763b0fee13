import type { BeatsPerMinute, Seconds } from '#core/base';
import type { Heard, HeardNote } from './heard';
import { median } from './measure';
import { lineThrough, slopeUncertainty } from './tempoCurve';
import type { LowTone } from './tones';

/** Positions within a beat closer than this are one, and a position is told when it was heard so often. */
const SAME_POSITION = 0.02;
const LEAST_HEARD = 4;
/** Tempos about notes hang together, since each is of its neighbours: so many tell what one does. By simulation, at most. */
const TOGETHER = 10;
/** Where the plan names no holds, notes that last so long are some. */
const HOLD: Seconds = 0.4;

/** Where in the beat notes come, against the plan. */
export interface LiltFigure {
  /** Share of the beat before it, 0 is the beat. */
  readonly position: number;
  /** Later (or earlier) than planned, against the player's own beat. */
  readonly offMs: number;
  readonly uncertaintyMs: number;
  readonly count: number;
}

/** How a finger's place changes through a take. */
export interface FingerDrift {
  /** String by place, and semitones above it. */
  readonly place: number;
  readonly semitones: number;
  readonly centsPerMinute: number;
  /** Half of an 80 % interval about it. */
  readonly uncertainty: number;
  readonly cents: number;
  readonly count: number;
}

export interface TakeFigures {
  readonly tempo: {
    /** In the plan's own beat. */
    readonly bpm: BeatsPerMinute | null;
    readonly driftPercentPerMinute: number | null;
    /** Half of an 80 % interval about it. */
    readonly driftUncertainty: number | null;
    /** How far from the player's own time beginnings lie, as a standard deviation. */
    readonly steadinessMs: number | null;
  };
  readonly lilt: readonly LiltFigure[];
  /** Level of notes off the beat against those on it, dB. */
  readonly offbeatDecibels: number | null;
  /** Holds and silences played ÷ planned, at the take’s tempo: the player's own factor. */
  readonly holdFactor: number | null;
  readonly silenceFactor: number | null;
  readonly fingers: readonly FingerDrift[];
  /** How long strokes are noise before their pitch stands. */
  readonly biteMs: number | null;
  /** How full each place of the lowest string is, against the other strings. */
  readonly lowTones: readonly LowTone[];
  /** Notes of the plan, and how many of them were heard. */
  readonly notes: number;
  readonly heardNotes: number;
}

/** The figures of a whole take at the plan's tempo. Time O(n). */
export function takeFigures(
  heard: Heard,
  bpm: BeatsPerMinute,
  pace: readonly number[],
  measured: Pick<TakeFigures, 'biteMs' | 'lowTones'>,
): TakeFigures {
  const notes = heard.notes.filter((one) => one.heard);
  const offs = notes.filter(({ offMs }) => Number.isFinite(offMs));
  const slower = offs
    .map((one) => ({ x: one.onset / 60, y: Math.log(one.slower) }))
    .filter(({ y }) => Number.isFinite(y));
  const hasDrift = slower.length >= 8;
  const spread = offs.map(({ offMs }) => offMs);
  const hasHolds = heard.notes.some(({ note }) => note.isHeld);
  const levels = (isOn: boolean) =>
    notes.filter(({ note }) => isOn === note.beatShare < SAME_POSITION).map(({ level }) => level);
  const [on, off] = [levels(true), levels(false)];
  return {
    tempo: {
      bpm: slower.length > 0 ? bpm / Math.exp(median(slower.map(({ y }) => y))) : null,
      driftPercentPerMinute: hasDrift ? -100 * lineThrough(slower).slope : null,
      driftUncertainty: hasDrift ? 100 * Math.sqrt(TOGETHER) * slopeUncertainty(slower) : null,
      steadinessMs:
        spread.length >= 8 ? 1.4826 * median(spread.map((value) => Math.abs(value - median(spread)))) : null,
    },
    lilt: liltOf(offs),
    offbeatDecibels: on.length >= LEAST_HEARD && off.length >= LEAST_HEARD ? median(off) - median(on) : null,
    holdFactor: factorOf(
      heard.notes.flatMap((one, i) =>
        one.heard && one.isFollowed && (hasHolds ? one.note.isHeld : one.note.seconds >= HOLD)
          ? [(one.end - one.onset) / (one.note.seconds * pace[i]!)]
          : [],
      ),
    ),
    silenceFactor: factorOf(
      heard.notes.flatMap((one, i) => {
        const before = heard.notes[i - 1];
        if (!one.heard || !before?.heard || !before.isFollowed || one.note.restBefore <= 0) return [];
        const gap = one.onset - before.onset - before.note.sounding * pace[i]!;
        return [gap / (one.note.restBefore * pace[i]!)];
      }),
    ),
    fingers: fingersOf(notes),
    ...measured,
    notes: heard.notes.length,
    heardNotes: notes.length,
  };
}

function factorOf(ratios: readonly number[]): number | null {
  return ratios.length > 0 ? median(ratios) : null;
}

function liltOf(notes: readonly HeardNote[]): LiltFigure[] {
  const byPosition = new Map<number, HeardNote[]>();
  for (const one of notes) {
    const share = Math.round(one.note.beatShare / SAME_POSITION);
    byPosition.set(share, [...(byPosition.get(share) ?? []), one]);
  }
  const onBeat = median((byPosition.get(0) ?? []).map(({ offMs }) => offMs)) || 0;
  return [...byPosition]
    .filter(([, list]) => list.length >= LEAST_HEARD)
    .sort(([a], [b]) => a - b)
    .map(([, list]) => {
      const offs = list.map(({ offMs }) => offMs);
      const middle = median(offs);
      const usual = 1.4826 * median(offs.map((value) => Math.abs(value - middle)));
      const uncertaintyMs = (1.28 * 1.25 * usual) / Math.sqrt(offs.length);
      const position = median(list.map(({ note }) => note.beatShare));
      return { position, offMs: middle - onBeat, uncertaintyMs, count: offs.length };
    });
}

/** Each finger on each string: where it lies, and whether it creeps. */
function fingersOf(notes: readonly HeardNote[]): FingerDrift[] {
  const byFinger = new Map<string, HeardNote[]>();
  for (const one of notes) {
    const { place, semitones, hasGesture, marks } = one.note;
    if (semitones === 0 || one.otherCents !== null || hasGesture || marks.length > 0 || one.pitch?.isShared !== false)
      continue;
    const key = `${place} ${semitones}`;
    byFinger.set(key, [...(byFinger.get(key) ?? []), one]);
  }
  return [...byFinger.values()]
    .filter((list) => list.length >= LEAST_HEARD)
    .map((list) => {
      const points = list.map(({ onset, cents }) => ({ x: onset / 60, y: cents }));
      return {
        place: list[0]!.note.place,
        semitones: list[0]!.note.semitones,
        centsPerMinute: lineThrough(points).slope,
        uncertainty: slopeUncertainty(points),
        cents: median(list.map(({ cents }) => cents)),
        count: list.length,
      };
    });
}
