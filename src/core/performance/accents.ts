import { toNumber } from '#core/base';
import { isDottedBeat, offbeatShare, withinBeat } from '#core/tempo';
import type { DanceType } from '#core/tune';
import type { PlayedPlan } from './soundingTime';

/** How much a stroke stands out by where it begins, in decibels. */
interface AccentWeights {
  readonly beat: number;
  /** Where the backing strums. */
  readonly backbeat: number;
  readonly down: number;
}

const PLAIN: AccentWeights = { beat: 2.5, backbeat: 1.5, down: 0.7 };
/** By dance, guesses: what drives the dancers is on the beat, in a polka or hoedown as much off it; an air hardly beats. */
const ACCENTS: Partial<Record<DanceType, AccentWeights>> = {
  jig: { beat: 2.5, backbeat: 1, down: 0.7 },
  'slip jig': { beat: 2.2, backbeat: 1, down: 0.7 },
  slide: { beat: 2.5, backbeat: 0.8, down: 0.7 },
  polka: { beat: 2, backbeat: 2, down: 0.7 },
  hoedown: { beat: 2, backbeat: 2.2, down: 0.7 },
  breakdown: { beat: 2, backbeat: 2.2, down: 0.7 },
  hornpipe: { beat: 3, backbeat: 1.5, down: 0.7 },
  strathspey: { beat: 3, backbeat: 1, down: 0.7 },
  waltz: { beat: 2, backbeat: 0.8, down: 0.5 },
  air: { beat: 0.6, backbeat: 0, down: 0.3 },
};

/** Decibels for ten times the speed that a stroke would have by itself. */
const SPEED_DECIBELS = 12;

/**
 * How much louder than a plain stroke each stroke begins, by the index of its first note, in decibels: 12·log10 of its speed
 * with the hair shared out over its speed by itself, and what its place in the bar and its direction add. So the quick
 * single of three-and-one speaks without being told to. Time O(n).
 */
export function strokeAccents(report: PlayedPlan): ReadonlyMap<number, number> {
  const { tune, unrolled, settings } = report;
  const weights = (tune.danceType && ACCENTS[tune.danceType]) ?? PLAIN;
  const beat = toNumber(settings.beat);
  const offbeat = offbeatShare(isDottedBeat(beat));
  const accents = new Map<number, number>();
  for (const { first, fromCm, toCm, nominalCm } of report.sharedStrokes()) {
    const within = withinBeat(unrolled, unrolled.notes[first]!, beat);
    const place = within < 1e-6 ? weights.beat : Math.abs(within - offbeat) < 1e-6 ? weights.backbeat : 0;
    const length = Math.abs(toCm - fromCm);
    const drawn = nominalCm > 0 && length > 0 ? SPEED_DECIBELS * Math.log10(length / nominalCm) : 0;
    accents.set(first, place + (toCm > fromCm ? weights.down : 0) + drawn);
  }
  return accents;
}
