import type { BeatsPerMinute } from '#core/base';
import { DANCE_TYPES, type DanceType } from '#core/tune';

/** A range of dance tempos in the dance's own beat: guesses, editable, never a verdict. */
export interface TempoBand {
  readonly low: BeatsPerMinute;
  readonly high: BeatsPerMinute;
}

type BandTable = Readonly<Record<DanceType, TempoBand>>;

const DEFAULT_BANDS: BandTable = {
  reel: { low: 100, high: 118 },
  hoedown: { low: 108, high: 128 },
  breakdown: { low: 108, high: 128 },
  hornpipe: { low: 72, high: 88 },
  schottische: { low: 66, high: 80 },
  jig: { low: 106, high: 122 },
  'slip jig': { low: 108, high: 124 },
  slide: { low: 124, high: 142 },
  polka: { low: 118, high: 138 },
  march: { low: 84, high: 104 },
  waltz: { low: 92, high: 110 },
  mazurka: { low: 126, high: 144 },
  strathspey: { low: 112, high: 126 },
  air: { low: 50, high: 76 },
};

/** Every band of a table at so many times its tempo, in whole beats. */
function scaled(table: BandTable, factor: number): BandTable {
  return Object.fromEntries(
    DANCE_TYPES.map((type) => [
      type,
      { low: Math.round(factor * table[type].low), high: Math.round(factor * table[type].high) },
    ]),
  ) as unknown as BandTable;
}

/**
 * Bands by where the tunes are danced, guesses all: the usual ones; the quick floor of a step-dancing shore; the broad,
 * slow sets of an island; and a class that learns.
 */
export const BAND_REGIONS = {
  usual: DEFAULT_BANDS,
  'quick shore': {
    ...scaled(DEFAULT_BANDS, 1.08),
    polka: { low: 132, high: 150 },
    slide: { low: 138, high: 156 },
    air: DEFAULT_BANDS.air,
  },
  'broad island': { ...scaled(DEFAULT_BANDS, 0.92), strathspey: { low: 96, high: 112 }, air: DEFAULT_BANDS.air },
  class: { ...scaled(DEFAULT_BANDS, 0.7), air: DEFAULT_BANDS.air },
} as const satisfies Readonly<Record<string, BandTable>>;

export type BandRegion = keyof typeof BAND_REGIONS;
export const REGIONS = Object.keys(BAND_REGIONS) as BandRegion[];

/** The bands that a player goes by: those of a region, and own ones in their place. */
export interface Bands {
  readonly region: BandRegion;
  readonly own: Partial<BandTable>;
}

export const DEFAULT_REGION: Bands = { region: 'usual', own: {} };

/** Tempo for tunes whose dance type is not given: a guess in the middle of the quicker dances. */
export const UNKNOWN_TYPE_BAND: TempoBand = { low: 90, high: 110 };

export function tempoBand(danceType: DanceType | null, { region, own }: Bands = DEFAULT_REGION): TempoBand {
  return danceType === null ? UNKNOWN_TYPE_BAND : (own[danceType] ?? BAND_REGIONS[region][danceType]);
}

/** The middle of the band. */
export function defaultTempo(danceType: DanceType | null, bands: Bands = DEFAULT_REGION): BeatsPerMinute {
  const { low, high } = tempoBand(danceType, bands);
  return (low + high) / 2;
}
