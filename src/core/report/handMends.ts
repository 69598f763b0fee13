import { choicesFor, type HandChord } from '#core/fingering';
import type { TimedEvent } from '#core/tempo';
import type { NoteMark } from '#core/tune';
import { type NoteEdit, withNoteEdits } from './edits';
import type { FindingInput } from './findingInput';
import { type Mend, mendBy, outcomeOf } from './mend';

/** Other ways for the hand tried at a place: the cheapest of them. */
const WAYS_TRIED = 3;

/** Marks that a timed ornament stands for. */
const ORNAMENT_MARKS: Partial<Record<TimedEvent['kind'], NoteMark>> = {
  'bowed-triplet': 'bowed-triplet',
  cut: 'cut',
  flick: 'flick',
  'short-roll': 'roll',
  'long-roll': 'roll',
  pulse: 'pulse',
  slide: 'slide',
  turn: 'turn',
};

/**
 * What the hand can do about an event without its time: a barre instead of a hop, another finger, string or position
 * for the note, an ornament left off. Each is tried in full and kept where it lifts the place itself.
 */
export function handMends(
  input: FindingInput,
  event: TimedEvent & { readonly index: number; readonly standsTo: number },
): Mend[] {
  const { unrolled, tune, fingers, settings } = input;
  const { kind, index } = event;
  const { note } = unrolled.notes[index]!;
  const ornament = ORNAMENT_MARKS[kind];
  if (ornament) return triedMend(input, event, 'leave-off', [{ id: note.id, unmark: ornament }]);
  if (kind !== 'hop' && kind !== 'barre' && kind !== 'shift') return [];
  const barre = kind === 'barre' ? triedMend(input, event, 'barre', [{ id: note.id, mark: 'barre' }]) : [];
  const now = fingers.get(note.id)!;
  const ways = choicesFor(note, tune, settings.hand, settings.instrument)
    .filter(([top]) => top!.place !== now.place || top!.finger !== now.finger || top!.position !== now.position)
    .slice(0, WAYS_TRIED);
  const refingered = ways.flatMap((chord: HandChord) => {
    const { place, finger, position } = chord[0]!;
    return triedMend(input, event, 'refinger', [{ id: note.id, refinger: { place, finger, position } }]);
  });
  return [...barre, ...refingered.slice(0, 1)];
}

function triedMend(
  input: FindingInput,
  { index, standsTo }: { readonly index: number; readonly standsTo: number },
  deed: 'barre' | 'refinger' | 'leave-off',
  notes: readonly NoteEdit[],
): Mend[] {
  const after = input.recompute(withNoteEdits(input.tune, notes)).figures;
  // Another finger may make the way to the next note harder; a barre or an ornament left off does not.
  const own = after.check.events[index]!;
  const events = deed === 'refinger' ? [...own, ...(after.check.events[index + 1] ?? [])] : own;
  const hereBpm = Math.min(Infinity, ...events.map(({ ceilingBpm }) => ceilingBpm));
  if (hereBpm <= standsTo + 1e-9) return [];
  const gain = { of: 'spot' as const, bpm: Number.isFinite(hereBpm) ? hereBpm : null };
  return [mendBy(input, { deed, notes }, { outcome: outcomeOf(after), gain })];
}
