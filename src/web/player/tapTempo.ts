/** Taps farther apart than this begin anew. */
const PAUSE_MS = 2500;
const TAPS_KEPT = 6;
const MIN_TAPS = 3;

/**
 * The tempo of taps on the beat: from three on, 60 over the mean of the times between the last ones. Call it with the
 * moment of each tap in milliseconds; null until there are enough.
 */
export function tapTempo(): (now: number) => number | null {
  let taps: number[] = [];
  return (now) => {
    const last = taps[taps.length - 1];
    if (last !== undefined && now - last > PAUSE_MS) taps = [];
    taps = [...taps, now].slice(-TAPS_KEPT);
    if (taps.length < MIN_TAPS) return null;
    return (60_000 * (taps.length - 1)) / (taps[taps.length - 1]! - taps[0]!);
  };
}
