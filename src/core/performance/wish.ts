import type { Layer } from './layers';

/** What of a tune is played, and how. */
export interface PerformanceWish {
  readonly layers: ReadonlySet<Layer>;
  /** Notes by index from the first to, not including, the last; null: the whole tune. */
  readonly span: { readonly from: number; readonly to: number } | null;
  /** Bars counted in before it. */
  readonly countIn: number;
  /** A gap as long as the span after it, in which it is answered. */
  readonly answer: boolean;
  /** Played by a hand, which is never quite even: a little early or late, louder or softer, the same each time. */
  readonly isHuman: boolean;
  /** The bow is lifted at the end, to be set again where a loop begins: it would flip else. */
  readonly liftsAtEnd?: boolean;
  /** Pitch of A4 to which the fiddle is tuned, Hz; the usual one where it is left out. */
  readonly a4?: number;
  /** Every stroke goes the other way than planned. */
  readonly isTurned?: boolean;
}

export const PLAIN_WISH: PerformanceWish = {
  layers: new Set(['melody', 'drones', 'bowing', 'colour']),
  span: null,
  countIn: 0,
  answer: false,
  isHuman: false,
};
