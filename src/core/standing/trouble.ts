import type { BeatsPerMinute } from '#core/base';
import type { TuneReport } from '#core/report';
import type { EventKind } from '#core/tempo';
import { tightSpots } from './changes';

/** What takes time, in four groups as a player tells them apart. */
export const TROUBLES = ['bow', 'crossings', 'hand', 'ornaments'] as const;
export type Trouble = (typeof TROUBLES)[number];

const TROUBLE_OF: Readonly<Record<EventKind, Trouble>> = {
  stroke: 'bow',
  retake: 'bow',
  crossing: 'crossings',
  hop: 'hand',
  barre: 'hand',
  shift: 'hand',
  'bowed-triplet': 'ornaments',
  cut: 'ornaments',
  flick: 'ornaments',
  'short-roll': 'ornaments',
  'long-roll': 'ornaments',
  pulse: 'ornaments',
  grace: 'ornaments',
  slide: 'ornaments',
  turn: 'ornaments',
};

/** Places without their time at a tempo. */
export interface TroubleAt extends Readonly<Record<Trouble, number>> {
  readonly bpm: BeatsPerMinute;
  readonly all: number;
}

/**
 * How many written places lack their time at each tempo. Headroom falls strictly with tempo, so a place fails from its
 * ceiling on: one report tells it for all tempos. Time O(places + tempos).
 * @param bpms rising
 */
export function troubleCurve(report: TuneReport, bpms: readonly BeatsPerMinute[]): TroubleAt[] {
  const places = tightSpots(report);
  const counts = { bow: 0, crossings: 0, hand: 0, ornaments: 0 };
  let next = 0;
  return bpms.map((bpm) => {
    while (next < places.length && places[next]!.ceilingBpm < bpm) counts[TROUBLE_OF[places[next++]!.kind]] += 1;
    return { bpm, all: next, ...counts };
  });
}
