import { toNumber } from '#core/base';
import { type DroneScene, isPhraseEnd } from '#core/drones';
import { mapChosen, setDrone, toggleMark } from '#core/editing';
import { isDottedBeat, offbeatShare, withinBeat } from '#core/tempo';
import { PHRASE_BARS, type Tune, type UnrolledNote } from '#core/tune';
import { closingSwell, setClosingSwell, swellLast } from './closingSwell';
import type { Ornament } from './kinds';
import { ornamentFacts, type OrnamentScene } from './ornamentFacts';

/** Notes at which a rule looks. */
export const RULE_SPOTS = ['dotted-quarters', 'on-beat', 'offbeat', 'long-notes', 'phrase-ends'] as const;
export type RuleSpot = (typeof RULE_SPOTS)[number];

/** "Flick each dotted quarter on the beat", and so on. */
export interface OrnamentRule {
  readonly ornament: Ornament;
  readonly spot: RuleSpot;
  /** Most of it in a phrase of four bars. */
  readonly mostInPhrase: number;
}

/**
 * Written notes that a rule decorates: those of its kind where the ornament fits on every pass, spread evenly over each
 * phrase up to its density, a note played on several passes counted once. How long a note is does not choose it. A bowed
 * triplet is on nothing longer than a quarter, and a waltz is pulsed on one. Time O(n).
 */
export function ornamentSpots(scene: OrnamentScene, { ornament, spot, mostInPhrase }: OrnamentRule): string[] {
  const { unrolled } = scene.drones;
  const misfits = new Set<string>();
  const found = new Map<string, { readonly phrase: string; readonly index: number }>();
  for (const played of unrolled.notes) {
    const { note, index, part, bar } = played;
    // A closing swell ends on the place, and is marked on the note before it.
    const at = ornament === 'closing-swell' ? unrolled.notes[index + 1] : played;
    if (!at || !isAt(scene, at, spot) || !suits(scene, played, ornament)) continue;
    if (ornamentFacts(scene, index, ornament).obstacles.length > 0) misfits.add(note.id);
    const phrase = `${part} ${Math.floor(Math.max(0, bar - 1) / PHRASE_BARS)}`;
    if (!found.has(note.id)) found.set(note.id, { phrase, index });
  }
  const ofPhrase = new Map<string, { id: string; index: number }[]>();
  for (const [id, { phrase, index }] of found)
    if (!misfits.has(id)) ofPhrase.set(phrase, [...(ofPhrase.get(phrase) ?? []), { id, index }]);
  return [...ofPhrase.values()]
    .flatMap((list) => spread(list, mostInPhrase))
    .sort((a, b) => a.index - b.index)
    .map(({ id }) => id);
}

/** So many of a list, evenly from its beginning on. */
function spread<T>(list: readonly T[], most: number): T[] {
  if (list.length <= most) return [...list];
  return Array.from({ length: most }, (_, k) => list[Math.floor((k * list.length) / most)]!);
}

/** In whole notes: the longest note that a bowed triplet is put on. */
const LONGEST_TRIPLET = 1 / 4;

function suits({ drones: { tune } }: OrnamentScene, { duration, beat }: UnrolledNote, ornament: Ornament): boolean {
  if (ornament === 'bowed-triplet') return toNumber(duration) <= LONGEST_TRIPLET + 1e-9;
  const isWaltz = tune.danceType === 'waltz' || tune.danceType === 'mazurka';
  return !(ornament === 'pulse' && isWaltz) || beat === 1;
}

/** Halfway through the dance's beat, or on the last third of a dotted one, where the backing strums. */
function isOffbeat({ unrolled, beat }: DroneScene, played: UnrolledNote): boolean {
  const offbeat = offbeatShare(isDottedBeat(beat));
  return played.bar > 0 && Math.abs(withinBeat(unrolled, played, beat) - offbeat) < 1e-6;
}

function isAt(scene: OrnamentScene, played: UnrolledNote, spot: RuleSpot): boolean {
  const { duration, index } = played;
  const { unrolled, isStrong, beat } = scene.drones;
  const length = toNumber(duration);
  switch (spot) {
    case 'dotted-quarters':
      return Math.abs(length - 3 / 8) < 1e-9 && isStrong[index]!;
    case 'on-beat':
      return isStrong[index]!;
    case 'offbeat':
      return isOffbeat(scene.drones, played);
    case 'long-notes':
      return length >= 1 / 4;
    case 'phrase-ends':
      return isPhraseEnd(unrolled, index, beat);
  }
}

/** The tune with an ornament on notes that do not have it yet; a closing swell takes in its last note and the string beside. */
export function ornament(scene: OrnamentScene, ids: readonly string[], kind: Ornament): Tune {
  const { tune, unrolled } = scene.drones;
  const have = new Set(
    tune.parts.flatMap(({ events }) =>
      events.flatMap((e) => (e.kind === 'note' && e.marks?.includes(kind) ? [e.id] : [])),
    ),
  );
  const missing = ids.filter((id) => !have.has(id));
  if (missing.length === 0) return tune;
  if (kind !== 'closing-swell') return toggleMark(tune, new Set(missing), kind);
  return missing.reduce((next, id) => {
    const swell = closingSwell(
      scene.drones,
      unrolled.notes.findIndex(({ note }) => note.id === id),
    );
    return swell ? setClosingSwell(next, swell) : toggleMark(next, new Set([id]), kind);
  }, tune);
}

/** The tune without an ornament on notes; with a closing swell go the strings that it took in. */
export function leaveOff(scene: OrnamentScene, ids: readonly string[], kind: Ornament): Tune {
  const { tune, unrolled } = scene.drones;
  const bare = mapChosen(tune, new Set(ids), ({ marks = [], ...note }) => {
    const kept = marks.filter((mark) => mark !== kind);
    return kept.length > 0 ? { ...note, marks: kept } : note;
  });
  if (kind !== 'closing-swell') return bare;
  const swelled = unrolled.notes.filter(({ note }) => ids.includes(note.id) && note.marks?.includes(kind));
  const droned = swelled.flatMap(({ index, note }) => {
    const last = swellLast(scene.drones, index);
    return last === null ? [note.id] : [note.id, unrolled.notes[last]!.note.id];
  });
  return setDrone(bare, new Set(droned), null);
}
