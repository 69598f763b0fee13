import { compare, type Fraction, fraction, multiply, subtract } from '#core/base';

/** Lengths that one note can have without a second dot, the longest first, in whole notes. */
const LENGTHS: readonly Fraction[] = [-2, -1, 0, 1, 2, 3, 4, 5, 6, 7, 8].flatMap((halving) => {
  const plain = halving < 0 ? fraction(2 ** -halving) : fraction(1, 2 ** halving);
  return [multiply(plain, fraction(3, 2)), plain];
});

/** A length as lengths that notes have, the longest first; by itself where no sum of them makes it. */
export function splitLength(length: Fraction): Fraction[] {
  const parts: Fraction[] = [];
  let left = length;
  while (left.n > 0) {
    const part = LENGTHS.find((candidate) => compare(candidate, left) <= 0);
    if (!part) return [length];
    parts.push(part);
    left = subtract(left, part);
  }
  return parts;
}
