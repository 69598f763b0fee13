import { formatFraction } from '#core/base';
import { ORNAMENTS } from '#core/ornaments';
import { midiOf } from '#core/pitch';
import { handOf, type TuneReport } from '#core/report';
import type { NoteMark, UnrolledNote } from '#core/tune';

/** Ornaments that are asked for by their mark, and notes written small before a note. */
export const DEMANDED_ORNAMENTS = [...ORNAMENTS, 'turn', 'mordent', 'trill'] as const satisfies readonly NoteMark[];
export type DemandedOrnament = (typeof DEMANDED_ORNAMENTS)[number] | 'grace';

/** What a tune, or a stretch of it, asks of its player at a tempo, once through. */
export interface Demands {
  /** In dance beats a minute, and what that beat is. */
  readonly tempo: number;
  readonly beat: string;
  readonly strokesPerSecond: number;
  readonly crossingsPerSecond: number;
  /** Between two planes bowed one after the other, in degrees. */
  readonly widestAngle: number;
  /** Share of the time in which two strings sound. */
  readonly twoStringShare: number;
  readonly shifts: number;
  /** One finger on two strings. */
  readonly barres: number;
  /** A string and the same pitch stopped beside it. */
  readonly doublings: number;
  readonly ornaments: Readonly<Partial<Record<DemandedOrnament, number>>>;
  /** Between two fingers of one hand position, in millimetres. */
  readonly widestSpanMm: number;
}

const DEMANDED: ReadonlySet<NoteMark> = new Set(DEMANDED_ORNAMENTS);

/**
 * What played notes ask for, first to last, at a tempo: counts once through, rates over their whole time. The way to the first
 * note is left out. Rates at another tempo than the report's are in proportion to it, a near guess under a lilt. Time O(n).
 */
export function demandsOf(
  report: TuneReport,
  { first = 0, last = report.unrolled.notes.length - 1 }: { readonly first?: number; readonly last?: number } = {},
  bpm = report.settings.bpm,
): Demands {
  const { unrolled, figures, timing, settings, fingers } = report;
  const { bowed, arm, check } = figures;
  const hand = handOf(report);
  let [strokes, crossings, widestAngle, pairSeconds, seconds] = [0, 0, 0, 0, 0];
  let [shifts, barres, doublings, widestSpanMm] = [0, 0, 0, 0];
  for (let i = first; i <= last; i++) {
    const { note } = unrolled.notes[i]!;
    const own = timing.durations[i]!;
    seconds += own + (i > first ? timing.rests[i]! : 0);
    if (bowed[i]!.inStroke === 1) strokes += 1;
    if (arm.planes[i]?.length === 2) pairSeconds += own;
    if (hand[i]!.isBarre) barres += 1;
    if (note.stops?.some((stop) => midiOf(stop) === midiOf(note.pitch))) doublings += 1;
    // The span within a chord; that from the note before belongs to the way here.
    const isAlone = (fingers.get(note.id)?.stops.length ?? 0) === 0;
    if (i > first || !isAlone) widestSpanMm = Math.max(widestSpanMm, hand[i]!.spanMm ?? 0);
    const crossing = arm.crossings[i];
    if (i === first) continue;
    if (crossing) {
      crossings += 1;
      widestAngle = Math.max(widestAngle, crossing.degrees);
    }
    if (hand[i]!.shift) shifts += 1;
    if (check.events[i]!.some(({ kind }) => kind === 'barre')) barres += 1;
  }
  const each = seconds > 0 ? bpm / settings.bpm / seconds : 0;
  return {
    tempo: bpm,
    beat: formatFraction(settings.beat),
    strokesPerSecond: strokes * each,
    crossingsPerSecond: crossings * each,
    widestAngle,
    twoStringShare: seconds > 0 ? pairSeconds / seconds : 0,
    shifts,
    barres,
    doublings,
    ornaments: ornamentsOf(unrolled.notes.slice(first, last + 1)),
    widestSpanMm,
  };
}

/** How often each ornament comes. */
function ornamentsOf(notes: readonly UnrolledNote[]): Demands['ornaments'] {
  const counts: Partial<Record<DemandedOrnament, number>> = {};
  const count = (name: DemandedOrnament, times = 1) => (counts[name] = (counts[name] ?? 0) + times);
  for (const { note } of notes) {
    for (const mark of note.marks ?? []) if (DEMANDED.has(mark)) count(mark as DemandedOrnament);
    if (note.graceNotes?.length) count('grace', note.graceNotes.length);
  }
  return counts;
}
