import type { Link, Part } from '#core/tune';

/**
 * A slur into the first note of a part holds where the tune is read on, and not where a repeat leads back to it: those
 * passes get a link of their own. A second ending's first note never follows what is written before it.
 */
export function withPassLinks(parts: readonly Part[], form: readonly string[]): Part[] {
  return parts.map((part) => {
    const plays = form.filter((name) => name === part.name).length;
    let isEntry = true;
    let ending: string | null = null;
    let freshEnding = false;
    return {
      ...part,
      events: part.events.map((event) => {
        if (event.kind === 'bar') {
          const here = event.ending ? String(event.onPlays) : null;
          freshEnding = here !== null && ending !== null && here !== ending;
          // Past a pickup that is played once, the next bar is where repeats come back to.
          if (!event.onPlays && !event.ending && pickupBefore(part, event.id)) isEntry = true;
          ending = here;
          return event;
        }
        if (event.kind !== 'note') return event;
        const joins = event.link === 'slur' || event.link === 'hook';
        const entry = isEntry;
        isEntry = false;
        if (freshEnding) {
          freshEnding = false;
          return joins ? { ...event, link: 'change' as const } : event;
        }
        if (!entry || !joins || plays < 2) return event;
        const later = Array.from({ length: plays - 1 }, (_, i) => [i + 2, 'change' as const]);
        return { ...event, linkOnPass: Object.fromEntries(later) as Record<number, Link> };
      }),
    };
  });
}

function pickupBefore(part: Part, barId: string): boolean {
  const bars = part.events.filter((event) => event.kind === 'bar');
  const at = bars.findIndex(({ id }) => id === barId);
  const before = bars[at - 1];
  return before?.onPlays !== undefined && !before.ending;
}
