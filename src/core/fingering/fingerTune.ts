import type { Instrument } from '#core/instrument';
import { staffStep } from '#core/pitch';
import { type NoteEvent, type Tune, unpinned, type Unrolled, writtenNotes } from '#core/tune';
import { choicesOf } from './choices';
import type { Fingering, FingerRule, Stop } from './firstPosition';
import { fingerNote } from './firstPosition';
import { FREE_HAND, type Hand, isBanned, isFree } from './hand';
import type { HandChord } from './handCosts';
import { stopsOf } from './handMoves';
import { wholeDistance } from './nut';
import type { Position } from './positions';
import { type FingeredNote, searchFingering } from './searchFingering';

/**
 * String, finger and position of every written note, by id.
 *
 * First position by the rule wherever it has the note. Only where some note lies beyond it, is pinned to another position,
 * or asks for what the player keeps from the hand or for a wider span than it has, are those notes searched for: all others
 * stay as the rule has them. What no position reaches keeps no finger.
 * Time O(n) without such notes, else as for `searchFingering`.
 */
export function fingerTune(
  tune: Tune,
  unrolled: Unrolled,
  rule: FingerRule,
  hand: Hand = FREE_HAND,
  instrument: Pick<Instrument, 'stringLengthMm'> = { stringLengthMm: 328 },
): Map<string, Fingering> {
  const notes = writtenNotes(tune);
  const found = byRule(notes, tune, rule);
  const tooWide = spansTooWide(unrolled, found, hand, instrument.stringLengthMm);
  const open = notes.filter((note) => tooWide.has(note.id) || asksForMore(note, found.get(note.id)!, hand));
  if (open.length === 0) return found;
  const free = new Set(open.map(({ id }) => id));
  const held = new Map<string, HandChord>();
  for (const { id } of notes) if (!free.has(id)) held.set(id, asChord(found.get(id)!));
  const searched = searchFingering(tune, unrolled, hand, instrument, held);
  for (const note of open) {
    const result = searched.notes.get(note.id);
    const ruled = found.get(note.id)!;
    if (result) found.set(note.id, asFingering(note, result));
    else if (ruled.reachable) found.set(note.id, { ...ruled, goesAgainst: true });
  }
  for (const id of searched.forced) {
    const kept = found.get(id);
    if (kept && free.has(id)) found.set(id, { ...kept, goesAgainst: true });
  }
  return found;
}

/** Plain notes of one spelling are fingered alike, so each is asked once. */
function byRule(notes: readonly NoteEvent[], tune: Tune, rule: FingerRule): Map<string, Fingering> {
  const found = new Map<string, Fingering>();
  const ofPitch = new Map<number, Fingering>();
  for (const note of notes) {
    if (note.stops || note.place !== undefined || note.finger !== undefined) {
      found.set(note.id, fingerNote(note, tune.tuning, rule));
      continue;
    }
    const spelling = 5 * staffStep(note.pitch) + note.pitch.alter;
    const known = ofPitch.get(spelling) ?? fingerNote(note, tune.tuning, rule);
    ofPitch.set(spelling, known);
    found.set(note.id, known);
  }
  return found;
}

/** Notes on either side of a span that the player's hand does not reach, and chords that ask for one. */
function spansTooWide(
  { notes }: Unrolled,
  found: ReadonlyMap<string, Fingering>,
  { largestSpanMm }: Hand,
  stringLengthMm: number,
): Set<string> {
  const wide = new Set<string>();
  if (largestSpanMm === null) return wide;
  const isTooWide = (a: Stop, b: Stop) =>
    a.finger > 0 &&
    b.finger > 0 &&
    a.finger !== b.finger &&
    Math.abs(wholeDistance(a.semitones, stringLengthMm) - wholeDistance(b.semitones, stringLengthMm)) > largestSpanMm;
  let before: { readonly id: string; readonly stops: readonly Stop[] } | null = null;
  for (const { note } of notes) {
    const stops = stopsOf(found.get(note.id)!);
    if (stops.some((a) => stops.some((b) => isTooWide(a, b)))) wide.add(note.id);
    if (before?.stops[0] && stops[0] && isTooWide(before.stops[0], stops[0])) wide.add(before.id).add(note.id);
    before = { id: note.id, stops };
  }
  return wide;
}

function asksForMore(note: NoteEvent, ruled: Fingering, hand: Hand): boolean {
  // A string asks the hand to go there; a finger alone that does not give the note is told and not guessed about.
  if (!ruled.reachable || (ruled.pinMisfits && note.place !== undefined)) return true;
  if (note.position !== undefined && note.position !== 1) return true;
  if (ruled.stops.includes(null)) return true;
  return !isFree(hand) && stopsOf(ruled).some((stop) => isBanned(hand, stop));
}

/** The fingering that a tune has, as choices of the search by id: for what it costs as it is. */
export function heldChords(tune: Tune, fingers: ReadonlyMap<string, Fingering>): Map<string, HandChord> {
  const held = new Map<string, HandChord>();
  for (const note of writtenNotes(tune)) {
    const fingering = fingers.get(note.id)!;
    if (!fingering.reachable) continue;
    const chord = asChord(fingering);
    const { chords } = choicesOf(unpinned(note), tune.tuning, FREE_HAND);
    held.set(note.id, chords.find((choice) => sameChord(choice, chord)) ?? chord);
  }
  return held;
}

function sameChord(a: HandChord, b: HandChord): boolean {
  return (
    a.length === b.length &&
    a.every(({ place, finger, position }, i) => {
      const other = b[i]!;
      return place === other.place && finger === other.finger && position === other.position;
    })
  );
}

function asChord(fingering: Fingering): HandChord {
  return stopsOf(fingering).map((stop) => ({
    ...stop,
    position: fingering.position ?? 1,
    extended: fingering.extended,
    substitute: false,
  }));
}

/** A note of the search as the report has it. */
export function asFingering(note: NoteEvent, { chord, pinMisfits, pinBanned }: FingeredNote): Fingering {
  const [top, ...others] = chord;
  return {
    reachable: true,
    place: top!.place,
    finger: top!.finger,
    semitones: top!.semitones,
    position: top!.position satisfies Position,
    extended: chord.some(({ extended }) => extended),
    stops: (note.stops ?? []).map((_, i) => others[i] ?? null),
    pinMisfits,
    ...(pinBanned ? { goesAgainst: true as const } : {}),
  };
}
