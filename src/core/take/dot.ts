/**
 * Σ weights(j)·values(from + j), four sums at a time, since each waits for itself; a third of the time of one sum. There
 * must be values for all weights. Of one kind of array only, or it is slower.
 */
export function dot(weights: Float64Array, values: Float64Array, from = 0): number {
  const until = weights.length - 3;
  let a = 0;
  let b = 0;
  let c = 0;
  let d = 0;
  let j = 0;
  for (; j < until; j += 4) {
    a += weights[j]! * values[from + j]!;
    b += weights[j + 1]! * values[from + j + 1]!;
    c += weights[j + 2]! * values[from + j + 2]!;
    d += weights[j + 3]! * values[from + j + 3]!;
  }
  for (; j < weights.length; j++) a += weights[j]! * values[from + j]!;
  return a + b + (c + d);
}
