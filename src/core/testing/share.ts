/** Share of the cases that this run of the tests tries, set by the test runner: 1 is all of them. */
declare const TEST_SHARE: number;

/** How many random cases to try of a number that is the full size: at least one. */
export const cases = (full: number): number => Math.max(1, Math.round(full * TEST_SHARE));

/** Every so many of a list, as large a share, from a place of it on: with rising places all have their turn. */
export function some<T>(items: readonly T[], from = 0): T[] {
  const step = Math.min(items.length, Math.round(1 / TEST_SHARE));
  return items.filter((_, i) => (i + from) % step === 0);
}
