import { add, compare, type Fraction, subtract, ZERO } from '#core/base';
import {
  type Bar,
  type BarEvent,
  barLength,
  type NoteEvent,
  type RestEvent,
  type Tune,
  type TuneEvent,
  writtenBars,
} from '#core/tune';
import { findEvent, freshIds, isPositive, withEvents } from './document';

/**
 * Draws the bar lines of a part anew from one bar on: what a bar has too much goes over its line, what it lacks comes
 * back from the next. A note that crosses a line is parted by a tie; a tuplet's note goes over whole. It ends where old
 * and new bar lines meet again, at a change of meter, key or ending, or with the part, which may gain or lose bars.
 * @throws RangeError if there is no bar of that id
 * Time O(n) for n events of the part.
 */
export function rebar(tune: Tune, barId: string): Tune {
  const location = findEvent(tune, barId);
  if (location?.part.events[location.index]?.kind !== 'bar')
    throw new RangeError(`bar: expected the id of a bar, got ${barId}`);
  const { part, partIndex } = location;
  const bars = writtenBars(tune).get(part.name)!;
  const from = bars.findIndex(({ event }) => event.id === barId);
  const length = barLength(bars[from]!.meter);
  const until = stretchEnd(bars, from, length);
  const fresh = freshIds(tune);
  const content = bars.slice(from, until).flatMap(({ events }) => events);
  const lines = bars.slice(from, until).map(({ event }) => event);
  const drawn = drawBars(content, lines, length, fresh);
  const events = [...bars.slice(0, from).flatMap(eventsOf), ...drawn, ...bars.slice(until).flatMap(eventsOf)];
  return withEvents(tune, partIndex, events);
}

function eventsOf({ event, events }: Bar): TuneEvent[] {
  return [event, ...events];
}

/** Index past the last bar that is drawn anew. */
function stretchEnd(bars: readonly Bar[], from: number, length: Fraction): number {
  let due = ZERO;
  let held = ZERO;
  for (let i = from; i < bars.length; i++) {
    const { event, duration } = bars[i]!;
    const isBoundary =
      event.meter !== undefined ||
      event.key !== undefined ||
      String(event.onPlays) !== String(bars[from]!.event.onPlays);
    if (i > from && isBoundary) return i;
    due = add(due, length);
    held = add(held, duration);
    if (compare(due, held) === 0) return i + 1;
  }
  return bars.length;
}

function drawBars(
  content: readonly (NoteEvent | RestEvent)[],
  lines: readonly BarEvent[],
  length: Fraction,
  fresh: (kind: TuneEvent['kind']) => string,
): TuneEvent[] {
  const drawn: TuneEvent[] = [];
  let count = 0;
  const line = (): BarEvent => {
    const kept = lines[count];
    count += 1;
    const { onPlays, ending } = lines[0]!;
    return kept ?? { kind: 'bar', id: fresh('bar'), ...(onPlays && ending ? { onPlays, ending } : {}) };
  };
  drawn.push(line());
  let left = length;
  for (const event of content) {
    let rest: NoteEvent | RestEvent = event;
    while (isPositive(rest.duration)) {
      if (!isPositive(left)) {
        drawn.push(line());
        left = length;
      }
      if (compare(rest.duration, left) <= 0 || rest.tuplet) {
        drawn.push(rest);
        left = subtract(left, rest.duration);
        break;
      }
      const head = { ...rest, duration: left };
      drawn.push(head.kind === 'note' ? { ...head, tie: true } : head);
      rest = tailOf(rest, left, fresh);
      left = ZERO;
    }
  }
  return drawn;
}

/** What is left of a note or rest beyond a bar line: tied to it, in the same stroke. */
function tailOf(
  event: NoteEvent | RestEvent,
  taken: Fraction,
  fresh: (kind: TuneEvent['kind']) => string,
): NoteEvent | RestEvent {
  const duration = subtract(event.duration, taken);
  if (event.kind === 'rest') return { kind: 'rest', id: fresh('rest'), duration };
  const {
    graceNotes: _graces,
    chord: _chord,
    marks: _marks,
    linkOnPass: _passes,
    lock: _lock,
    bowLength: _length,
    ...note
  } = event;
  return { ...note, id: fresh('note'), duration, link: 'slur' };
}
