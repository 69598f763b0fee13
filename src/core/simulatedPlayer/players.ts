/** How even a simulated player is: standard deviations. Guesses. */
export interface PlayerTraits {
  /** Of each beginning, about the player's own time. */
  readonly unevenMs: number;
  /** Slow wander of the tempo, in per cent. */
  readonly wanderPercent: number;
  /** Where each finger lies on each string, the same all through. */
  readonly fingerCents: number;
  /** From note to note. */
  readonly noteCents: number;
  /** How well the strings are in tune. */
  readonly stringCents: number;
  readonly levelDecibels: number;
}

export const PLAYER_NAMES = ['steady', 'plain', 'shaky'] as const;
export type PlayerName = (typeof PLAYER_NAMES)[number];

export const PLAYERS: Readonly<Record<PlayerName, PlayerTraits>> = {
  steady: { unevenMs: 4, wanderPercent: 0.4, fingerCents: 1.5, noteCents: 1.5, stringCents: 1, levelDecibels: 0.6 },
  plain: { unevenMs: 9, wanderPercent: 0.8, fingerCents: 3, noteCents: 2.5, stringCents: 1.5, levelDecibels: 1.2 },
  shaky: { unevenMs: 16, wanderPercent: 1.5, fingerCents: 6, noteCents: 5, stringCents: 2.5, levelDecibels: 2 },
};
