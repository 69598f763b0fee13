export type Matrix = readonly (readonly number[])[];

/** L of A = L·Lᵀ for a positive definite A; null: A is none. */
export function cholesky(matrix: Matrix): number[][] | null {
  const n = matrix.length;
  const factor = matrix.map(() => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i]![j]!;
      for (let k = 0; k < j; k++) sum -= factor[i]![k]! * factor[j]![k]!;
      if (i !== j) factor[i]![j] = sum / factor[j]![j]!;
      else if (!(sum > 0)) return null;
      else factor[i]![i] = Math.sqrt(sum);
    }
  return factor;
}

/** x of A·x = b for a positive definite A, by Cholesky's factors; null: A is none. */
export function solved(matrix: Matrix, b: readonly number[]): number[] | null {
  const factor = cholesky(matrix);
  return factor && solvedBy(factor, b);
}

function solvedBy(factor: Matrix, b: readonly number[]): number[] {
  const n = b.length;
  const y: number[] = [];
  for (let i = 0; i < n; i++) {
    let sum = b[i]!;
    for (let j = 0; j < i; j++) sum -= factor[i]![j]! * y[j]!;
    y.push(sum / factor[i]![i]!);
  }
  const x = y.slice();
  for (let i = n - 1; i >= 0; i--) {
    for (let j = i + 1; j < n; j++) x[i]! -= factor[j]![i]! * x[j]!;
    x[i]! /= factor[i]![i]!;
  }
  return x;
}

/** The inverse of a positive definite matrix, and the logarithm of its determinant; null: it is none. */
export function inverse(matrix: Matrix): { readonly inverse: number[][]; readonly logDet: number } | null {
  const factor = cholesky(matrix);
  if (!factor) return null;
  return {
    // Symmetric: its columns are its rows.
    inverse: matrix.map((_row, i) =>
      solvedBy(
        factor,
        matrix.map((_other, j) => (i === j ? 1 : 0)),
      ),
    ),
    logDet: -2 * factor.reduce((sum, row, i) => sum + Math.log(row[i]!), 0),
  };
}

export const product = (matrix: Matrix, x: readonly number[]): number[] =>
  matrix.map((row) => row.reduce((sum, value, i) => sum + value * x[i]!, 0));
