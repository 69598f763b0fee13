import type { Tune } from '#core/tune';
import { findEvent, withEvents } from './document';

/**
 * Notes and what lies between them moved by one event, over a bar line too; null at the ends of their part, or where
 * they lie in several.
 */
export function moveEvents(tune: Tune, ids: readonly string[], way: 'earlier' | 'later'): Tune | null {
  const first = ids[0] === undefined ? null : findEvent(tune, ids[0]);
  const last = ids.length === 0 ? null : findEvent(tune, ids[ids.length - 1]!);
  if (!first || !last || first.partIndex !== last.partIndex) return null;
  const { events } = first.part;
  const next = [...events];
  if (way === 'earlier') {
    // The bar that opens the part stays in front.
    if (first.index <= 1) return null;
    const [passed] = next.splice(first.index - 1, 1);
    next.splice(last.index, 0, passed!);
  } else {
    if (last.index >= events.length - 1) return null;
    const [passed] = next.splice(last.index + 1, 1);
    next.splice(first.index, 0, passed!);
  }
  return withEvents(tune, first.partIndex, next);
}
