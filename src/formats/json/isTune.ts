import { MAX_EVENTS, MAX_PLAYED_EVENTS, playedEvents, TUNE_FIELDS } from '#core/document';
import { lengthFault, type Tune } from '#core/tune';
import { objectCheck } from './checkOf';

const fields = objectCheck(TUNE_FIELDS);

/**
 * Whether a value is a tune document with nothing beside it. Never true where the document's schema would refuse the value or
 * change it; where it is false the schema has the last word, and the words. O(events).
 */
export function isTune(value: unknown): value is Tune {
  return fields(value) && holdsTogether(value as Tune);
}

/** What one field cannot tell: names and ids are different, what is named is there, and all of it is not too much. */
function holdsTogether({ parts, form }: Tune): boolean {
  const names = new Set(parts.map(({ name }) => name));
  if (names.size !== parts.length || !form.every((name) => names.has(name))) return false;
  const ids = new Set<string>();
  const ownBars = new Set<string>();
  const reused = new Set<string>();
  let count = 0;
  for (const { events } of parts) {
    if (events[0]!.kind !== 'bar') return false;
    count += events.length;
    for (const item of events) {
      ids.add(item.id);
      if (item.kind !== 'bar') continue;
      if (item.reuses === undefined) ownBars.add(item.id);
      else reused.add(item.reuses);
    }
  }
  if (ids.size !== count || count > MAX_EVENTS || playedEvents({ parts, form }) > MAX_PLAYED_EVENTS) return false;
  if (lengthFault({ parts, form })) return false;
  return [...reused].every((taken) => ownBars.has(taken));
}
