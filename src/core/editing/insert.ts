import { compare, type Fraction, subtract } from '#core/base';
import { joiningLink } from '#core/bowing';
import type { BarEvent, NoteEvent, RestEvent, Tune, TuneEvent } from '#core/tune';
import { barRoom, findEvent, freshIds, isPositive, type Location, withEvents } from './document';
import { withoutEvents } from './remove';

/** A note or rest to be entered: everything but its id. */
export type NewEvent = Omit<NoteEvent, 'id'> | Omit<RestEvent, 'id'>;

/** An edit at the caret: what was entered, and where the caret stands after it. */
export interface Entered {
  readonly tune: Tune;
  /** Id of the event after which the next one goes. */
  readonly caret: string;
}

/**
 * Enters a note or rest after the caret's event. At the end of a full bar a new bar is opened (or an empty one that
 * follows is used); what does not fit at a bar's end is carried over the bar line, a note with a tie, unless it belongs
 * to a tuplet. In the middle of a bar the bar may become overfull: that is told, not refused.
 * `overwrite` takes away what the new length covers, up to the end of the bar.
 * A `slur` on one pitch or over a rest becomes a hook.
 * @throws RangeError if there is no event with the caret's id
 */
export function enterEvent(
  tune: Tune,
  caret: string,
  event: NewEvent,
  how: 'insert' | 'overwrite' = 'insert',
): Entered {
  const cleared = how === 'overwrite' ? clearFor(tune, caret, event.duration) : tune;
  const { tune: opened, caret: from } = openBarIfFull(cleared, caret);
  const location = locate(opened, from);
  const { left, isLast } = barRoom(opened, location);
  const mustSplit = isLast && !event.tuplet && isPositive(left) && compare(event.duration, left) > 0;
  if (!mustSplit) return insertAfter(opened, location, event);
  const head: NewEvent = event.kind === 'note' ? { ...event, duration: left, tie: true } : { ...event, duration: left };
  const rest: NewEvent = { ...event, duration: subtract(event.duration, left) };
  const first = insertAfter(opened, location, head);
  const tail: NewEvent = rest.kind === 'note' ? { ...rest, link: 'slur', graceNotes: undefined } : rest;
  return enterEvent(first.tune, first.caret, withoutUndefined(tail));
}

/** Begins a new bar after the caret's event, full or not: a pickup is closed this way. */
export function beginBar(tune: Tune, caret: string): Entered {
  const location = locate(tune, caret);
  const { bar, isLast, endIndex } = barRoom(tune, location);
  const after = location.part.events[endIndex];
  if (isLast && after?.kind === 'bar' && isEmptyBar(location, endIndex)) return { tune, caret: after.id };
  const fresh = continuation(bar, freshIds(tune)('bar'));
  const events = [...location.part.events];
  events.splice(location.index + 1, 0, fresh);
  return { tune: withEvents(tune, location.partIndex, events), caret: fresh.id };
}

function locate(tune: Tune, id: string): Location {
  const location = findEvent(tune, id);
  if (!location) throw new RangeError(`caret: expected the id of an event, got ${id}`);
  return location;
}

function openBarIfFull(tune: Tune, caret: string): Entered {
  const location = locate(tune, caret);
  const { left, isLast, used } = barRoom(tune, location);
  return isLast && !isPositive(left) && isPositive(used) ? beginBar(tune, caret) : { tune, caret };
}

function isEmptyBar({ part }: Location, barIndex: number): boolean {
  const next = part.events[barIndex + 1];
  return next === undefined || next.kind === 'bar';
}

/** A bar that goes on under the same ending as the one before; changes of key and meter hold without being repeated. */
function continuation({ onPlays, ending }: BarEvent, id: string): BarEvent {
  return { kind: 'bar', id, ...(ending && onPlays ? { onPlays, ending } : {}) };
}

function insertAfter(tune: Tune, { part, partIndex, index }: Location, event: NewEvent): Entered {
  const id = freshIds(tune)(event.kind);
  const entered = { ...withJoint(part.events, index, event), id } as TuneEvent;
  const events = [...part.events];
  events.splice(index + 1, 0, entered);
  return { tune: withEvents(tune, partIndex, events), caret: id };
}

/** A slur as it can be: a hook on one pitch or over a rest, a turn where no note stands before. */
function withJoint(events: readonly TuneEvent[], index: number, event: NewEvent): NewEvent {
  if (event.kind !== 'note' || event.link !== 'slur') return event;
  let restBetween = false;
  for (let i = index; i >= 0; i--) {
    const before = events[i]!;
    if (before.kind === 'rest') restBetween = true;
    if (before.kind === 'note') return { ...event, link: joiningLink(before, { ...event, id: '' }, restBetween) };
  }
  return { ...event, link: 'change' };
}

/** Takes away what a length covers after the caret, within the bar; what is covered in part is shortened. */
function clearFor(tune: Tune, caret: string, length: Fraction): Tune {
  const location = locate(tune, caret);
  const { endIndex } = barRoom(tune, location);
  const covered = new Set<string>();
  let left = length;
  let shortened: NoteEvent | RestEvent | null = null;
  for (let i = location.index + 1; i < endIndex && isPositive(left); i++) {
    const event = location.part.events[i] as NoteEvent | RestEvent;
    if (compare(event.duration, left) > 0) {
      shortened = { ...event, duration: subtract(event.duration, left) };
      break;
    }
    covered.add(event.id);
    left = subtract(left, event.duration);
  }
  const cleared = withoutEvents(tune, covered);
  if (!shortened) return cleared;
  const { id } = shortened;
  const { part, partIndex } = findEvent(cleared, id)!;
  return withEvents(
    cleared,
    partIndex,
    part.events.map((event) => (event.id === id ? shortened! : event)),
  );
}

function withoutUndefined<T extends object>(value: T): T {
  return Object.fromEntries(Object.entries(value).filter(([, item]) => item !== undefined)) as T;
}
