import type { Millimetres } from '#core/base';
import { type Place, PLACES } from '#core/tune';

/** Why something is kept from the player's hand. */
export const BAN_REASONS = ['banned', 'pain', 'missing', 'short'] as const;
export type BanReason = (typeof BAN_REASONS)[number];

/** A finger, a string or both together that the player does not use. null: any. */
export interface Ban {
  readonly finger: 1 | 2 | 3 | 4 | null;
  readonly place: Place | null;
  readonly reason: BanReason;
  /** ISO date of a reported pain: it holds until the player clears it. */
  readonly date?: string;
}

/** What the player's left hand can and shall do. */
export interface Hand {
  /** Widest span between two stopped notes under one hand; null: no bound. */
  readonly largestSpanMm: Millimetres | null;
  readonly bans: readonly Ban[];
  /** Long notes are wanted stopped, so that they can be given vibrato. */
  readonly vibrato: boolean;
  readonly firstPositionOnly: boolean;
}

export const FREE_HAND: Hand = { largestSpanMm: null, bans: [], vibrato: false, firstPositionOnly: false };

/** Whether the player keeps a finger from a string; an open string only where the whole string is banned. */
export function isBanned({ bans }: Hand, stop: { readonly place: Place; readonly finger: number }): boolean {
  return bans.some(
    ({ finger, place }) =>
      (place === null || place === stop.place) && (finger === null ? place !== null : finger === stop.finger),
  );
}

/** A hand about which nothing is said: the rule of first position stands as it is. */
export function isFree(hand: Hand): boolean {
  return hand.largestSpanMm === null && hand.bans.length === 0;
}

/** Strings from the E place down, by which a span is harder: the arm turns further. 0 on E, 3 on G. */
export function stringsDown(place: Place): number {
  return PLACES.length - 1 - PLACES.indexOf(place);
}
