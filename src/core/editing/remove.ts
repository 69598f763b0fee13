import type { NoteEvent, RestEvent, Tune, TuneEvent } from '#core/tune';
import { freshIds, withOneStart } from './document';

/**
 * The tune without some notes and rests; what follows closes up. A bar that loses all it holds goes too, unless it
 * opens its part or brings a change of meter or key. A note left inside a stroke whose beginning is gone begins the stroke itself.
 */
export function removeEvents(tune: Tune, ids: ReadonlySet<string>): Tune {
  return withoutEvents(tune, new Set([...ids, ...tune.parts.flatMap(({ events }) => emptiedBars(events, ids))]));
}

/** Takes events away, bars only where they are named. */
export function withoutEvents(tune: Tune, ids: ReadonlySet<string>): Tune {
  return replaceEvents(tune, ids, () => null);
}

/** Notes turned into rests of their length, so that the bars stay as full as they were. */
export function silence(tune: Tune, ids: ReadonlySet<string>): Tune {
  const fresh = freshIds(tune);
  return replaceEvents(tune, ids, (event): RestEvent | null => {
    if (event.kind !== 'note') return event.kind === 'rest' ? event : null;
    const { duration, tuplet, chord } = event;
    return { kind: 'rest', id: fresh('rest'), duration, ...(tuplet ? { tuplet } : {}), ...(chord ? { chord } : {}) };
  });
}

function replaceEvents(tune: Tune, ids: ReadonlySet<string>, replace: (event: TuneEvent) => TuneEvent | null): Tune {
  const parts = tune.parts.map((part) => {
    if (!part.events.some(({ id }) => ids.has(id))) return part;
    const events: TuneEvent[] = [];
    let lostStart: NoteEvent | null = null;
    for (const event of part.events) {
      const staysInStroke = event.kind === 'note' && (event.link === 'slur' || event.link === 'hook');
      if (ids.has(event.id)) {
        if (event.kind === 'note' && !staysInStroke) lostStart = event;
        const replaced = replace(event);
        if (replaced) events.push(replaced);
        continue;
      }
      events.push(staysInStroke && lostStart ? { ...event, link: lostStart.link } : event);
      if (event.kind === 'note') lostStart = null;
    }
    return { ...part, events };
  });
  return withOneStart({ ...tune, parts });
}

/** Bars that may go, their every note and rest being among `ids`. */
function emptiedBars(events: readonly TuneEvent[], ids: ReadonlySet<string>): string[] {
  const bars: { id: string; changes: boolean; held: number; lost: number }[] = [];
  for (const event of events) {
    if (event.kind === 'bar') bars.push({ id: event.id, changes: Boolean(event.meter ?? event.key), held: 0, lost: 0 });
    else {
      const bar = bars[bars.length - 1]!;
      bar.held += 1;
      if (ids.has(event.id)) bar.lost += 1;
    }
  }
  return bars.slice(1).flatMap(({ id, changes, held, lost }) => (!changes && held > 0 && held === lost ? [id] : []));
}
