import { mapNotes, type Tune, unpinned } from '#core/tune';
import type { Fingering } from './firstPosition';
import type { HandStop } from './positions';
import type { FingeringResult } from './searchFingering';

/** Where a note is pinned to. */
export type Pin = Pick<HandStop, 'place' | 'finger' | 'position'>;

/** The tune with notes pinned to strings, fingers and positions; an open string has no position of its own. */
export function pinFingering(tune: Tune, pins: ReadonlyMap<string, Pin>): Tune {
  return mapNotes(tune, (note) => {
    const pin = pins.get(note.id);
    if (!pin) return note;
    const { place, finger, position } = pin;
    const bare = { ...unpinned(note), place, finger };
    return finger === 0 || position === 1 ? bare : { ...bare, position };
  });
}

/** The tune with the pins of some notes let go, or of all. */
export function releaseFingering(tune: Tune, ids: ReadonlySet<string> | null): Tune {
  return mapNotes(tune, (note) =>
    (ids === null || ids.has(note.id)) && (note.place ?? note.finger ?? note.position) !== undefined
      ? unpinned(note)
      : note,
  );
}

/** Pins that bring a tune from the fingering it has to one that was found: only notes that really change. */
export function pinsFor(result: FingeringResult, now: ReadonlyMap<string, Fingering>): Map<string, Pin> {
  const pins = new Map<string, Pin>();
  for (const [id, { chord }] of result.notes) {
    const [top] = chord;
    const before = now.get(id);
    const isSame =
      before?.reachable &&
      before.place === top!.place &&
      before.finger === top!.finger &&
      (top!.finger === 0 || before.position === top!.position);
    if (!isSame) pins.set(id, top!);
  }
  return pins;
}
