import type { Tune } from '#core/tune';

/** Most written events that a document may hold: far beyond any tune, small enough to stay quick. */
export const MOST_EVENTS = 100_000;

/** Most events that a form may play, repeats counted: the tune is judged as it is played. */
export const MOST_PLAYED_EVENTS = 200_000;

/** Written events counted once for each time the form plays their part. */
export function playedEvents({ parts, form }: Pick<Tune, 'parts' | 'form'>): number {
  const lengths = new Map(parts.map(({ name, events }) => [name, events.length]));
  return form.reduce((sum, name) => sum + (lengths.get(name) ?? 0), 0);
}
