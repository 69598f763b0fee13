import { type Fraction, toNumber } from '#core/base';
import { isCompound, type PlayedBar, type Unrolled } from '#core/tune';

/** In whole notes: a beat shorter than this in a bar of three is one of three quarters or eighths. */
const HALF = 1 / 2;

/** A bar in three, whose chord stays: a waltz. */
const isInThree = ({ meter }: PlayedBar, beat: number) =>
  meter.num % 3 === 0 && beat < HALF && !(isCompound(meter) && beat > 1 / 4);

/**
 * Where a chord may change, in whole notes: on each beat of the dance, in three-time once a bar. Beats are counted from the
 * bar's beginning, in a pickup back from its end; none lies before the tune.
 */
export function chordPlaces({ bars }: Unrolled, beat: Fraction): number[] {
  const size = toNumber(beat);
  return bars.flatMap((bar) => {
    const [from, length] = [toNumber(bar.onset), toNumber(bar.duration)];
    const count = isInThree(bar, size) ? 1 : Math.ceil(length / size - 1e-9);
    const odd = bar.isPickup && count > 1 ? length - count * size : 0;
    return Array.from({ length: count }, (_, k) => from + odd + k * size).filter((at) => at > -1e-9);
  });
}
