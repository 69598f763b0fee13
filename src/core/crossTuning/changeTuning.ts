import { type Fingering, fingerTune, type Hand } from '#core/fingering';
import type { Instrument } from '#core/instrument';
import { midiOf } from '#core/pitch';
import { mapNotes, PLACES, type Tune, unpinned, unroll, writtenNotes } from '#core/tune';
import type { Tuning } from '#core/tuning';

/** What another tuning does to the written notes. */
export interface TuningChange {
  readonly tune: Tune;
  /** Notes that lie elsewhere for the hand. */
  readonly refingered: readonly { readonly id: string; readonly before: Fingering; readonly after: Fingering }[];
  /** Notes that the hand has now and would not have, and the other way round. */
  readonly lost: readonly string[];
  readonly gained: readonly string[];
  /** Notes whose open drone sounds another pitch. */
  readonly droneChanges: readonly string[];
}

/**
 * A tune in another tuning. Written pitch is sounding pitch: every melody note sounds as before, refingered; pins of
 * string, finger and position are let go, since they spoke of the tuning before. Open drones keep their side and may
 * sound another pitch, which is told.
 */
export function changeTuning(tune: Tune, tuning: Tuning, hand: Hand, instrument: Instrument): TuningChange {
  const loose: Tune = { ...mapNotes(tune, unpinned), tuning };
  const before = fingerTune(tune, unroll(tune), 'open', hand, instrument);
  const after = fingerTune(loose, unroll(loose), 'open', hand, instrument);
  const refingered: TuningChange['refingered'][number][] = [];
  const lost: string[] = [];
  const gained: string[] = [];
  const droneChanges: string[] = [];
  for (const { id, drone } of writtenNotes(tune)) {
    const [was, is] = [before.get(id)!, after.get(id)!];
    if (was.reachable && !is.reachable) lost.push(id);
    if (!was.reachable && is.reachable) gained.push(id);
    if (!sameStop(was, is)) refingered.push({ id, before: was, after: is });
    if (drone && droneMidi(tune.tuning, was, drone) !== droneMidi(tuning, is, drone)) droneChanges.push(id);
  }
  return { tune: loose, refingered, lost, gained, droneChanges };
}

function sameStop(a: Fingering, b: Fingering): boolean {
  return a.place === b.place && a.finger === b.finger && a.position === b.position && a.semitones === b.semitones;
}

function droneMidi(tuning: Tuning, { reachable, place }: Fingering, side: 'lower' | 'upper'): number | null {
  const open = reachable ? tuning[PLACES.indexOf(place) + (side === 'upper' ? 1 : -1)] : undefined;
  return open ? midiOf(open) : null;
}
