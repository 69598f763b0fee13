/** An exact rational in lowest terms; `d` is positive. Lengths of notes are fractions of a whole note. */
export interface Fraction {
  readonly n: number;
  readonly d: number;
}

export const ZERO: Fraction = { n: 0, d: 1 };

function greatestCommonDivisor(a: number, b: number): number {
  while (b !== 0) [a, b] = [b, a % b];
  return a;
}

/**
 * The fraction n/d in lowest terms.
 * @throws RangeError if either is not a safe integer, or d is 0
 */
export function fraction(n: number, d = 1): Fraction {
  if (!Number.isSafeInteger(n) || !Number.isSafeInteger(d) || d === 0)
    throw new RangeError(`fraction: expected safe integers with a denominator other than 0, got ${n}/${d}`);
  const divisor = greatestCommonDivisor(Math.abs(n), Math.abs(d)) || 1;
  const sign = d < 0 ? -1 : 1;
  return { n: (sign * n) / divisor, d: (sign * d) / divisor };
}

export function add(a: Fraction, b: Fraction): Fraction {
  if (a.d === b.d) return fraction(a.n + b.n, a.d);
  // Over their least common denominator: numbers stay as small as the sum itself allows.
  const shared = greatestCommonDivisor(a.d, b.d);
  return fraction(a.n * (b.d / shared) + b.n * (a.d / shared), (a.d / shared) * b.d);
}

export function subtract(a: Fraction, b: Fraction): Fraction {
  return add(a, { n: -b.n, d: b.d });
}

export function multiply(a: Fraction, b: Fraction): Fraction {
  return fraction(a.n * b.n, a.d * b.d);
}

/** @throws RangeError if b is 0 */
export function divide(a: Fraction, b: Fraction): Fraction {
  return fraction(a.n * b.d, a.d * b.n);
}

/** Negative, 0 or positive as a is below, equal to or above b. */
export function compare(a: Fraction, b: Fraction): number {
  return a.n * b.d - b.n * a.d;
}

export function equals(a: Fraction, b: Fraction): boolean {
  return a.n === b.n && a.d === b.d;
}

/** The whole number of times b goes into a, rounded down: `floorQuotient(7/8, 1/4)` is 3. */
export function floorQuotient(a: Fraction, b: Fraction): number {
  return Math.floor((a.n * b.d) / (a.d * b.n));
}

export function toNumber(a: Fraction): number {
  return a.n / a.d;
}

/** `3/8`; whole numbers without a denominator. */
export function formatFraction(a: Fraction): string {
  return a.d === 1 ? String(a.n) : `${a.n}/${a.d}`;
}

/** Reads `3/8` or `2`; null for anything else. The inverse of `formatFraction`. */
export function parseFraction(text: string): Fraction | null {
  const match = /^(-?\d{1,9})(?:\/([1-9]\d{0,8}))?$/.exec(text.trim());
  return match ? fraction(Number(match[1]), Number(match[2] ?? 1)) : null;
}

/**
 * The simplest fraction within `tolerance` of x, by continued fractions.
 * Used where a parser hands out floating point lengths of what was written exactly.
 * @throws RangeError if x is not finite
 */
export function nearestFraction(x: number, tolerance = 1e-7): Fraction {
  if (!Number.isFinite(x)) throw new RangeError(`nearestFraction: expected a finite number, got ${x}`);
  let [h0, h1, k0, k1] = [0, 1, 1, 0];
  let rest = x;
  for (let step = 0; step < 24; step++) {
    const whole = Math.floor(rest + 1e-9);
    [h0, h1] = [h1, whole * h1 + h0];
    [k0, k1] = [k1, whole * k1 + k0];
    if (Math.abs(h1 / k1 - x) <= tolerance) break;
    rest = 1 / (rest - whole);
  }
  return fraction(h1, k1);
}
