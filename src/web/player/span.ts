/** Played notes from one to, not including, another. */
export interface Span {
  readonly from: number;
  readonly to: number;
}
