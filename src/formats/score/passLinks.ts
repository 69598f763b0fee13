import { joiningLink } from '#core/bowing';
import type { BarEvent, Link, NoteEvent, Part } from '#core/tune';

/**
 * A slur into the first note of a part holds where the tune is read on, and not where a repeat leads back to it: those
 * passes get a link of their own. A second ending's first note follows what stands before the first ending, as that one's
 * does: a slur that runs on into one runs on into all.
 */
export function withPassLinks(parts: readonly Part[], form: readonly string[]): Part[] {
  const timesPlayed = new Map<string, number>();
  for (const name of form) timesPlayed.set(name, (timesPlayed.get(name) ?? 0) + 1);
  return parts.map((part) => {
    const plays = timesPlayed.get(part.name) ?? 0;
    let isEntry = true;
    let ending: string | null = null;
    let freshEnding = false;
    let before: NoteEvent | null = null;
    let restBetween = false;
    let stem: Stem | null = null;
    let barBefore: BarEvent | null = null;
    return {
      ...part,
      events: part.events.map((event) => {
        if (event.kind === 'bar') {
          const here = event.ending ? String(event.onPlays) : null;
          freshEnding = here !== null && ending !== null && here !== ending;
          if (here !== null && ending === null) stem = { before, restBetween, joins: null };
          // Past a pickup that is played once, the next bar is where repeats come back to.
          if (!event.onPlays && barBefore?.onPlays && !barBefore.ending) isEntry = true;
          ending = here;
          barBefore = event;
          return event;
        }
        if (event.kind === 'rest') restBetween = true;
        if (event.kind !== 'note') return event;
        const joins = event.link === 'slur' || event.link === 'hook';
        const entry = isEntry;
        isEntry = false;
        const wasRest = restBetween;
        before = event;
        restBetween = false;
        if (freshEnding) {
          freshEnding = false;
          const link = stem ? linkToStem(stem, event, wasRest) : 'change';
          return joins || link !== 'change' ? { ...event, link } : event;
        }
        if (stem) stem.joins ??= joins;
        if (!entry || !joins || plays < 2) return event;
        const later = Array.from({ length: plays - 1 }, (_, i) => [i + 2, 'change' as const]);
        return { ...event, linkOnPass: Object.fromEntries(later) as Record<number, Link> };
      }),
    };
  });
}

/** What the endings of a part follow, and whether their first notes are joined to it. */
interface Stem {
  readonly before: NoteEvent | null;
  readonly restBetween: boolean;
  joins: boolean | null;
}

function linkToStem({ before, restBetween, joins }: Stem, note: NoteEvent, isAfterRest: boolean): Link {
  return joins && before ? joiningLink(before, note, restBetween || isAfterRest) : 'change';
}
