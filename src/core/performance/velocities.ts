import type { TuneReport } from '#core/report';

/** How hard each played note is struck, as instruments without a bow say it: 1 to 127. Guesses. */
const VELOCITY = {
  stroke: 84,
  down: 8,
  slurred: -12,
  hooked: -4,
  long: 4,
  accent: 16,
  snap: 14,
  pulse: 12,
  beat: 5,
} as const;

/**
 * Loudness that follows the bow: the first note of a stroke before those slurred to it, down-bows and beats a little before
 * the others, accents, snaps and pulses before all.
 */
export function bowVelocities({ unrolled, figures }: TuneReport): number[] {
  return unrolled.notes.map(({ note, beat }, i) => {
    const { inStroke, link, bow } = figures.bowed[i]!;
    const leads = inStroke === 1 && (figures.bowed[i + 1]?.inStroke ?? 1) > 1;
    const has = (mark: 'accent' | 'snap' | 'pulse') => note.marks?.includes(mark) ?? false;
    const velocity =
      VELOCITY.stroke +
      (inStroke > 1 ? (link === 'hook' ? VELOCITY.hooked : VELOCITY.slurred) : bow === 'down' ? VELOCITY.down : 0) +
      (leads ? VELOCITY.long : 0) +
      (has('accent') ? VELOCITY.accent : 0) +
      (has('snap') ? VELOCITY.snap : 0) +
      (has('pulse') ? VELOCITY.pulse : 0) +
      (Number.isInteger(beat) ? VELOCITY.beat : 0);
    return Math.max(1, Math.min(127, velocity));
  });
}
