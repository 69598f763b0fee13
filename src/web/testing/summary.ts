import type { TuneSummary } from '#contract/tunes';

/** A row of the book as most are: a reel that comes round and stands. */
export function summary(i: number, more: Partial<TuneSummary> = {}): TuneSummary {
  return {
    id: `id-${i}`,
    revision: 1,
    title: `Tune ${i}`,
    danceType: 'reel',
    meter: '4/4',
    key: 'D major',
    tuning: 'G3 D4 A4 E5',
    form: 'AABB',
    bars: 32,
    isCounted: true,
    givenUp: null,
    comesRound: true,
    flippedParts: [],
    ceilingBpm: 124.7,
    own: null,
    missing: null,
    wishBpm: 112,
    bandLow: 104,
    bandHigh: 120,
    beat: '1/2',
    problems: 0,
    cares: 0,
    tags: [],
    practisedAt: null,
    updatedAt: '2026-11-01T10:00:00.000Z',
    usedIn: null,
    ...more,
  };
}
