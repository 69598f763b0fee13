import type { NoteEvent, Tune } from '#core/tune';
import { HOLD_RANGE, MAX_BREATH } from './rubato';

/** How long a player's holds and silences come out, played ÷ planned: 1 as planned, below it short. */
export interface OwnFactors {
  readonly hold: number;
  readonly silence: number;
}

export const AS_PLANNED: OwnFactors = { hold: 1, silence: 1 };
/** Beyond these it is no habit. */
export const OWN_FACTOR_RANGE = { min: 0.5, max: 1.5 } as const;

const within = (value: number, { min, max }: { readonly min: number; readonly max: number }) =>
  Math.min(max, Math.max(min, value));

/** The own factors after a take in which holds and silences lasted so much of what was wished; null: there were none. */
export function learntFactors(
  own: OwnFactors,
  played: { readonly [K in keyof OwnFactors]: number | null },
): OwnFactors {
  return {
    hold: within(own.hold * (played.hold ?? 1), OWN_FACTOR_RANGE),
    silence: within(own.silence * (played.silence ?? 1), OWN_FACTOR_RANGE),
  };
}

/** A tune as it must be meant so that it comes out as wished: each hold and breath of the wish ÷ the player's own factor. */
export function meantFor(tune: Tune, own: OwnFactors): Tune {
  if (own.hold === 1 && own.silence === 1) return tune;
  const meant = (note: NoteEvent): NoteEvent => ({
    ...note,
    ...(note.hold !== undefined && { hold: within(note.hold / own.hold, HOLD_RANGE) }),
    ...(note.breath !== undefined && { breath: Math.min(MAX_BREATH, note.breath / own.silence) }),
  });
  return {
    ...tune,
    parts: tune.parts.map((part) => ({
      ...part,
      events: part.events.map((event) => (event.kind === 'note' ? meant(event) : event)),
    })),
  };
}

/** Whether a tune has anything that is played freely for a time. */
export function hasHolds({ parts }: Tune): boolean {
  return parts.some(({ events }) =>
    events.some((event) => event.kind === 'note' && (event.hold !== undefined || event.breath !== undefined)),
  );
}
