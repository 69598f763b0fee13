import { type Fraction, fraction } from '#core/base';

/** A note as it was played: quarters from the start. */
export interface MidiNote {
  readonly onset: number;
  readonly end: number;
  readonly midi: number;
}

/** The shortest straight note, and whether triplets are looked for. */
export interface Grid {
  readonly shortest: 8 | 16 | 32;
  readonly triplets: boolean;
}

export const QUARTER = 1;

/** A note on the grid, in whole notes; the other pitches that begin with it, the highest first. */
export interface GridNote {
  readonly onset: Fraction;
  readonly end: Fraction;
  readonly midi: number;
  readonly stops: readonly number[];
  /** It belongs to a beat of triplets. */
  readonly inTriplet: boolean;
}

/** Parts of a quarter in which both grids can be counted. */
const PARTS = 48;
/** Triplets are taken where they fit so much better. */
const CLEARLY_BETTER = 0.6;
/** In quarters: from here a grid is too coarse. */
const GOOD_ENOUGH = 0.03;

/**
 * Onsets and ends moved to the nearest place of the grid: in each beat the straight one or that of triplets, whichever
 * the onsets lie nearer to. A gap of less than one place is closed: notes let go early are not followed by rests. Of
 * notes at one place the highest is the melody. Time O(n log n).
 */
export function quantise(played: readonly MidiNote[], grid: Grid): { notes: GridNote[]; offsets: number[] } {
  const sorted = [...played].sort((a, b) => a.onset - b.onset || b.midi - a.midi);
  const straight = (PARTS * 4) / grid.shortest;
  const triplet = PARTS / 3;
  const tripletBeats = grid.triplets ? beatsOfTriplets(sorted, straight / PARTS) : new Set<number>();
  const stepAt = (quarters: number) => (tripletBeats.has(Math.floor(quarters + 1 / (3 * PARTS))) ? triplet : straight);
  const placeOf = (quarters: number) => {
    const step = stepAt(quarters);
    return Math.round((quarters * PARTS) / step) * step;
  };
  const groups = new Map<number, MidiNote[]>();
  const offsets: number[] = [];
  for (const note of sorted) {
    const place = placeOf(note.onset);
    offsets.push(note.onset - place / PARTS);
    groups.set(place, [...(groups.get(place) ?? []), note]);
  }
  const places = [...groups.keys()].sort((a, b) => a - b);
  const notes = places.map((place, i): GridNote => {
    const group = groups.get(place)!.sort((a, b) => b.midi - a.midi);
    const step = stepAt(place / PARTS);
    const next = places[i + 1] ?? Infinity;
    const let_go = Math.max(place + step, placeOf(Math.max(...group.map(({ end }) => end))));
    const end = let_go > next || next - let_go < step ? next : let_go;
    return {
      onset: fraction(place, 4 * PARTS),
      end: fraction(end, 4 * PARTS),
      midi: group[0]!.midi,
      stops: [...new Set(group.slice(1).map(({ midi }) => midi))].filter((midi) => midi !== group[0]!.midi).slice(0, 5),
      inTriplet: step === triplet && straight !== triplet,
    };
  });
  return { notes, offsets };
}

/** Quarters in which the onsets lie clearly nearer to thirds than to the straight grid. */
function beatsOfTriplets(notes: readonly MidiNote[], straightStep: number): Set<number> {
  const byBeat = new Map<number, number[]>();
  for (const { onset } of notes) {
    const beat = Math.floor(onset + 0.04);
    byBeat.set(beat, [...(byBeat.get(beat) ?? []), onset - beat]);
  }
  const off = (places: readonly number[], step: number) =>
    places.reduce((sum, place) => sum + Math.abs(place - Math.round(place / step) * step), 0);
  const found = new Set<number>();
  for (const [beat, places] of byBeat)
    if (places.length > 1 && off(places, 1 / 3) + 1e-6 < CLEARLY_BETTER * off(places, straightStep)) found.add(beat);
  return found;
}

/** The coarsest grid on which the onsets lie well enough. */
export function defaultGrid(notes: readonly MidiNote[]): Grid {
  for (const shortest of [8, 16, 32] as const) {
    const { offsets } = quantise(notes, { shortest, triplets: true });
    const mean = offsets.reduce((sum, offset) => sum + Math.abs(offset), 0) / Math.max(1, offsets.length);
    if (mean < GOOD_ENOUGH) return { shortest, triplets: true };
  }
  return { shortest: 16, triplets: true };
}
