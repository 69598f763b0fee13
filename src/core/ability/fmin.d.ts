declare module 'fmin' {
  /** Minimises by the simplex of Nelder and Mead. */
  export function nelderMead(
    f: (x: readonly number[]) => number,
    start: readonly number[],
    options?: { readonly minErrorDelta?: number; readonly maxIterations?: number },
  ): { readonly x: readonly number[]; readonly fx: number };
}
