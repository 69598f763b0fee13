import type { Fingering } from '#core/fingering';
import { PLACES, type Tune, writtenNotes } from '#core/tune';
import type { DroneHeads } from './lines';

/** Pitches of the open strings that sound beside melody notes, as the tune is tuned and fingered. */
export function droneHeads(tune: Tune, fingers: ReadonlyMap<string, Fingering>): DroneHeads {
  return new Map(
    writtenNotes(tune).flatMap(({ id, drone }) => {
      const fingering = drone ? fingers.get(id) : undefined;
      if (!fingering?.reachable) return [];
      const open = tune.tuning[PLACES.indexOf(fingering.place) + (drone === 'upper' ? 1 : -1)];
      return open ? [[id, open] as const] : [];
    }),
  );
}
