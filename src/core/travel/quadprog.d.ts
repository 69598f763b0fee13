declare module 'quadprog' {
  /** Minimises ½xᵀDx - dᵀx subject to Aᵀx ≥ b; all arrays count from 1. */
  export function solveQP(
    D: readonly (readonly number[])[],
    d: readonly number[],
    A: readonly (readonly number[])[],
    b: readonly number[],
  ): { readonly solution: readonly number[]; readonly value: readonly number[]; readonly message: string };
}
