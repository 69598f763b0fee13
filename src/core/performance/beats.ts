import { type Fraction, toNumber } from '#core/base';
import { type PlayedBar, type Unrolled, isCompound } from '#core/tune';

/** A beat of the dance where it is played, in whole notes. */
export interface Beat {
  readonly at: number;
  readonly length: number;
  /** Begins a bar. */
  readonly isFirst: boolean;
  /** From 0 within its bar. */
  readonly index: number;
  readonly bar: PlayedBar;
}

/**
 * The dance's beats through the whole tune: counted from each bar's beginning, in a pickup back from its end, where its
 * first may be only the end of a beat and is left out. A last part of a bar that is no whole beat is one of its own.
 */
export function beatsOf({ bars }: Unrolled, beat: Fraction): Beat[] {
  const size = toNumber(beat);
  return bars.flatMap((bar): Beat[] => {
    const [from, length] = [toNumber(bar.onset), toNumber(bar.duration)];
    const count = Math.ceil(length / size - 1e-9);
    const odd = bar.isPickup ? length - count * size : 0;
    return Array.from({ length: count }, (_, index): Beat => {
      const at = from + odd + index * size;
      const isWaltz = !isCompound(bar.meter) && bar.meter.num % 3 === 0 && size < 0.5;
      return {
        at,
        length: Math.min(size, from + length - at),
        isFirst: !bar.isPickup && index === 0,
        index: bar.isPickup ? index + (isWaltz ? 3 : 2) - count : index,
        bar,
      };
    }).filter(({ at }) => at > from - 1e-9);
  });
}

/** Where the backing strums within a beat: halfway, in compound beats on their last third, where it falls in these dances. */
export function offbeatOf({ at, length, bar }: Beat): number {
  return at + length * (isCompound(bar.meter) ? 2 / 3 : 1 / 2);
}
