import { type Key, sameKey } from '#core/pitch';
import { type BarEvent, type Meter, sameMeter, type Tune, type TuneEvent, writtenBars } from '#core/tune';
import { findEvent, withEvents } from './document';

function editBar(tune: Tune, barId: string, edit: (bar: BarEvent) => BarEvent): Tune {
  return {
    ...tune,
    parts: tune.parts.map((part) =>
      part.events.some(({ id }) => id === barId)
        ? {
            ...part,
            events: part.events.map((event) => (event.id === barId && event.kind === 'bar' ? edit(event) : event)),
          }
        : part,
    ),
  };
}

/** The meter from a bar on; the tune's own when it is the very first. A change to what holds anyway is taken away. */
export function setMeterFrom(tune: Tune, barId: string, meter: Meter): Tune {
  if (tune.parts[0]?.events[0]?.id === barId) return { ...tune, meter };
  const before = barBefore(tune, barId)?.meter ?? tune.meter;
  return editBar(tune, barId, ({ meter: _old, ...bar }) => (sameMeter(before, meter) ? bar : { ...bar, meter }));
}

/** The key from a bar on; notes keep their pitches. */
export function setKeyFrom(tune: Tune, barId: string, key: Key): Tune {
  if (tune.parts[0]?.events[0]?.id === barId) return { ...tune, key };
  const before = barBefore(tune, barId)?.key ?? tune.key;
  return editBar(tune, barId, ({ key: _old, ...bar }) => (sameKey(before, key) ? bar : { ...bar, key }));
}

function barBefore(tune: Tune, barId: string) {
  const bars = [...writtenBars(tune).values()].flat();
  const at = bars.findIndex(({ event }) => event.id === barId);
  return at > 0 ? bars[at - 1] : undefined;
}

/** Takes a bar line away: what stood behind it joins the bar before. The first bar of a part has none. */
export function joinBar(tune: Tune, barId: string): Tune {
  const location = findEvent(tune, barId);
  if (!location || location.index === 0) return tune;
  return withEvents(
    tune,
    location.partIndex,
    location.part.events.filter(({ id }) => id !== barId),
  );
}

/**
 * Puts bars under an ending that sounds on some plays of their part, or takes the bracket away with null. Bars after
 * the first ending of a part that have none are left as they are: each ending is marked for itself.
 */
export function setEnding(tune: Tune, barIds: ReadonlySet<string>, plays: readonly number[] | null): Tune {
  return {
    ...tune,
    parts: tune.parts.map((part) =>
      part.events.some(({ id }) => barIds.has(id))
        ? {
            ...part,
            events: part.events.map((event): TuneEvent => {
              if (event.kind !== 'bar' || !barIds.has(event.id)) return event;
              const { onPlays: _plays, ending: _ending, ...bar } = event;
              return plays ? { ...bar, onPlays: plays, ending: true } : bar;
            }),
          }
        : part,
    ),
  };
}

/** Ids of the bars that hold some notes or rests. */
export function barsOf(tune: Tune, ids: ReadonlySet<string>): Set<string> {
  const found = new Set<string>();
  for (const { events } of tune.parts) {
    let bar = '';
    for (const event of events) {
      if (event.kind === 'bar') bar = event.id;
      if (ids.has(event.id)) found.add(bar);
    }
  }
  return found;
}
