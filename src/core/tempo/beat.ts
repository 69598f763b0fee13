import { type BeatsPerMinute, type Fraction, type Seconds, fraction, toNumber } from '#core/base';
import { type DanceType, type Meter, isCompound } from '#core/tune';

/** A range of dance tempos in the dance's own beat: guesses, editable, never a verdict. */
export interface TempoBand {
  readonly low: BeatsPerMinute;
  readonly high: BeatsPerMinute;
}

export const TEMPO_BANDS: Readonly<Record<DanceType, TempoBand>> = {
  reel: { low: 100, high: 118 },
  hoedown: { low: 108, high: 128 },
  breakdown: { low: 108, high: 128 },
  hornpipe: { low: 72, high: 88 },
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

/** Tempo for tunes whose dance type is not given: a guess in the middle of the quicker dances. */
export const UNKNOWN_TYPE_BAND: TempoBand = { low: 90, high: 110 };

/** Dances counted in half bars. */
const HALF_BAR_DANCES: readonly DanceType[] = ['reel', 'hornpipe', 'hoedown', 'breakdown'];

/**
 * The note value that dancers count: dotted quarter in compound meters whatever the type; half a bar in reels,
 * hornpipes, hoedowns and breakdowns (half note in 4/4 and 2/2, quarter in 2/4); half in 3/2; quarter in the other
 * dances in simple meters; unknown types: half in 2/2 and 3/2, else quarter.
 */
export function beatUnit(danceType: DanceType | null, meter: Meter): Fraction {
  if (isCompound(meter)) return fraction(3, 8);
  const isHalfMeter = meter.den === 2;
  if (danceType !== null && HALF_BAR_DANCES.includes(danceType) && meter.num % 2 === 0)
    return fraction(meter.num, 2 * meter.den);
  if (meter.num === 3 && isHalfMeter) return fraction(1, 2);
  if (danceType === null && isHalfMeter) return fraction(1, 2);
  return fraction(1, 4);
}

export function tempoBand(danceType: DanceType | null): TempoBand {
  return danceType === null ? UNKNOWN_TYPE_BAND : TEMPO_BANDS[danceType];
}

/** The middle of the band. */
export function defaultTempo(danceType: DanceType | null): BeatsPerMinute {
  const { low, high } = tempoBand(danceType);
  return (low + high) / 2;
}

/** Length of a whole note: (60 / bpm) / beat. */
export function wholeNoteSeconds(bpm: BeatsPerMinute, beat: Fraction): Seconds {
  return 60 / bpm / toNumber(beat);
}
