import { type BeatsPerMinute, type Fraction, fraction, type Seconds, toNumber } from '#core/base';
import { type DanceType, isCompound, type Meter, type Unrolled, type UnrolledNote } from '#core/tune';

/** Dances counted in half bars. */
const HALF_BAR_DANCES: readonly DanceType[] = ['reel', 'hornpipe', 'schottische', 'hoedown', 'breakdown'];
/** Dances counted in three, also where they are written in 3/8. */
const THREE_BEAT_DANCES: readonly DanceType[] = ['waltz', 'mazurka'];

/**
 * The note value that dancers count: dotted quarter in compound meters whatever the type, but for waltz and mazurka in
 * 3/8, which count eighths; half a bar in reels, hornpipes, schottisches, hoedowns and breakdowns (half note in 4/4 and
 * 2/2, quarter in 2/4); half in 3/2; quarter in the other dances in simple meters; unknown types: half in 2/2 and 3/2,
 * else quarter.
 */
export function beatUnit(danceType: DanceType | null, meter: Meter): Fraction {
  if (isCompound(meter))
    return meter.num === 3 && danceType !== null && THREE_BEAT_DANCES.includes(danceType)
      ? fraction(1, 8)
      : fraction(3, 8);
  const isHalfMeter = meter.den === 2;
  if (danceType !== null && HALF_BAR_DANCES.includes(danceType) && meter.num % 2 === 0)
    return fraction(meter.num, 2 * meter.den);
  if (meter.num === 3 && isHalfMeter) return fraction(1, 2);
  if (danceType === null && isHalfMeter) return fraction(1, 2);
  return fraction(1, 4);
}

/** Whether a bar's beats are dotted quarters where the dance counts such a beat: in a 3/8 waltz they are not. */
export function hasDottedBeats(meter: Meter, beat: Fraction): boolean {
  return isCompound(meter) && !(meter.num === 3 && toNumber(beat) < 3 / 8);
}

/** How far within the dance's beat a played note begins, 0 up to 1; beats are counted from its pass's first full bar. */
export function withinBeat(
  { passes }: Unrolled,
  { onset, passIndex }: Pick<UnrolledNote, 'onset' | 'passIndex'>,
  beat: number,
): number {
  const beats = (toNumber(onset) - toNumber(passes[passIndex]!.firstFullBarOnset)) / beat;
  return beats - Math.floor(beats + 1e-9);
}

/** Where within a beat the backing strums, as a share of it: halfway, in a dotted quarter on its last third. */
export function offbeatShare(isDotted: boolean): number {
  return isDotted ? 2 / 3 : 1 / 2;
}

/** Whether a dance's beat is a dotted quarter, in whole notes. */
export const isDottedBeat = (beat: number): boolean => Math.abs(beat - 3 / 8) < 1e-9;

/** Length of a whole note: (60 / bpm) / beat. */
export function wholeNoteSeconds(bpm: BeatsPerMinute, beat: Fraction): Seconds {
  return 60 / bpm / toNumber(beat);
}
