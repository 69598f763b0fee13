import type { Tune } from '#core/tune';

/** Most written events that a document may hold: far beyond any tune, small enough to stay quick. */
export const MAX_EVENTS = 30_000;

/** Most events that a form may play, repeats counted: the tune is judged as it is played. */
export const MAX_PLAYED_EVENTS = 60_000;

/** Numerators and denominators of lengths. */
export const MAX_COUNT = 1_000_000_000;

/** Most letters of the document's words. */
export const MAX_LETTERS = {
  title: 300,
  composer: 300,
  source: 1000,
  note: 4000,
  partName: 24,
  id: 24,
  chord: 40,
} as const;

/** Most items of its lists. */
export const MAX_ITEMS = {
  notes: 200,
  parts: 500,
  form: 1000,
  stops: 5,
  graceNotes: 16,
  onPlays: 64,
  /** Signs that a key has beside its mode's. */
  extra: 7,
} as const;

/** Words that every store and format can hold: no zero characters, no halves of characters. */
export const WORDS = /^[^\0\p{Cs}]*$/u;

/** There are hundreds of ids in a tune: a plain expression tells the same of each in a fraction of the time. */
export const ID_WORDS = /^[^\0\uD800-\uDFFF]*$/;

/** Written events counted once for each time the form plays their part. */
export function playedEvents({ parts, form }: Pick<Tune, 'parts' | 'form'>): number {
  const lengths = new Map(parts.map(({ name, events }) => [name, events.length]));
  return form.reduce((sum, name) => sum + (lengths.get(name) ?? 0), 0);
}
