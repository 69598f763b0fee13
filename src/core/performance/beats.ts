import { type Fraction, toNumber } from '#core/base';
import type { TuneReport } from '#core/report';
import { hasDottedBeats, offbeatShare, secondsAt } from '#core/tempo';
import type { PlayedBar, Unrolled } from '#core/tune';

/** A beat of the dance where it is played, in whole notes. */
export interface Beat {
  readonly at: number;
  readonly length: number;
  /** Begins a bar. */
  readonly isFirst: boolean;
  /** From 0 within its bar. */
  readonly index: number;
  readonly bar: PlayedBar;
  /** A dotted quarter, which falls into three. */
  readonly isThree: boolean;
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
      const isWaltz = !hasDottedBeats(bar.meter, beat) && bar.meter.num % 3 === 0 && size < 0.5;
      return {
        at,
        length: Math.min(size, from + length - at),
        isFirst: !bar.isPickup && index === 0,
        index: bar.isPickup ? index + (isWaltz ? 3 : 2) - count : index,
        bar,
        isThree: hasDottedBeats(bar.meter, beat),
      };
    }).filter(({ at }) => at > from - 1e-9);
  });
}

/** A beat or an offbeat that falls while a note lasts, and how far it is on the way to the next note, 0 to 1. */
export interface NoteBeat {
  readonly isBeat: boolean;
  readonly share: number;
}

/**
 * Beats and offbeats of the dance under each played note, as they fall with lilt or freedom; those in a rest belong to the
 * note before it. Time O(n + beats).
 */
export function beatsUnderNotes({ unrolled, timing, settings }: TuneReport): NoteBeat[][] {
  const { onsets, total } = timing;
  const at = secondsAt(timing.atAnyTempo, unrolled, settings.bpm);
  const under: NoteBeat[][] = onsets.map(() => []);
  let index = -1;
  for (const beat of beatsOf(unrolled, settings.beat))
    for (const [place, isBeat] of [
      [beat.at, true],
      [offbeatOf(beat), false],
    ] as const) {
      const seconds = at(place);
      while (index + 1 < onsets.length && onsets[index + 1]! <= seconds + 1e-9) index += 1;
      if (index < 0) continue;
      const from = onsets[index]!;
      const to = onsets[index + 1] ?? total;
      under[index]!.push({ isBeat, share: to > from ? Math.max(0, (seconds - from) / (to - from)) : 0 });
    }
  return under;
}

/** Where the backing strums within a beat: halfway, in compound beats on their last third, where it falls in these dances. */
export function offbeatOf({ at, length, isThree }: Beat): number {
  return at + length * offbeatShare(isThree);
}
