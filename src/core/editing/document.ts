import { add, compare, type Fraction, subtract, ZERO } from '#core/base';
import type { Key } from '#core/pitch';
import {
  type BarEvent,
  barLength,
  mapNotes,
  type Meter,
  type NoteEvent,
  type Part,
  type Tune,
  type TuneEvent,
} from '#core/tune';

/** Gives ids that no event of a tune has yet: `n` for notes, `r` for rests, `b` for bars. */
export function freshIds(tune: Tune): (kind: TuneEvent['kind']) => string {
  const letters = { note: 'n', rest: 'r', bar: 'b' } as const;
  const highest = { n: 0, r: 0, b: 0 };
  for (const { events } of tune.parts)
    for (const { id } of events) {
      const letter = id[0] as keyof typeof highest;
      const number = Number(id.slice(1));
      if (letter in highest && number > highest[letter] && Number.isInteger(number)) highest[letter] = number;
    }
  return (kind) => {
    const letter = letters[kind];
    highest[letter] += 1;
    return `${letter}${highest[letter]}`;
  };
}

export interface Location {
  readonly part: Part;
  readonly partIndex: number;
  readonly index: number;
}

/** Where an event stands; null where the tune has none of that id. */
export function findEvent(tune: Tune, id: string): Location | null {
  for (const [partIndex, part] of tune.parts.entries()) {
    const index = part.events.findIndex((event) => event.id === id);
    if (index >= 0) return { part, partIndex, index };
  }
  return null;
}

/** A part's events replaced, with the tune's first note as the one that starts. */
export function withEvents(tune: Tune, partIndex: number, events: readonly TuneEvent[]): Tune {
  const parts = tune.parts.map((part, i) => (i === partIndex ? { ...part, events } : part));
  return withOneStart({ ...tune, parts });
}

/** Gives the first note of the tune the link `start`, and a turn of the bow to any other that has it. */
export function withOneStart(tune: Tune): Tune {
  let isFirst = true;
  return mapNotes(tune, (note) => {
    const link = isFirst ? 'start' : note.link === 'start' ? 'change' : note.link;
    isFirst = false;
    return link === note.link ? note : { ...note, link };
  });
}

/** Changes the notes of a set of ids. */
export function mapChosen(tune: Tune, ids: ReadonlySet<string>, change: (note: NoteEvent) => NoteEvent): Tune {
  return mapNotes(tune, (note) => (ids.has(note.id) ? change(note) : note));
}

/** The bar that holds an event, how full it is, and whether the event is the last in it. */
export interface BarRoom {
  readonly bar: BarEvent;
  readonly barIndex: number;
  /** Index just past the bar's last event. */
  readonly endIndex: number;
  readonly length: Fraction;
  readonly used: Fraction;
  /** Length less what is used; negative where the bar is overfull. */
  readonly left: Fraction;
  readonly isLast: boolean;
}

export function barRoom(tune: Tune, { part, partIndex, index }: Location): BarRoom {
  let barIndex = index;
  while (part.events[barIndex]!.kind !== 'bar') barIndex -= 1;
  let endIndex = barIndex + 1;
  let used = ZERO;
  for (; endIndex < part.events.length; endIndex++) {
    const event = part.events[endIndex]!;
    if (event.kind === 'bar') break;
    used = add(used, event.duration);
  }
  const bar = part.events[barIndex] as BarEvent;
  const length = barLength(inForce(tune, partIndex, barIndex).meter);
  return { bar, barIndex, endIndex, length, used, left: subtract(length, used), isLast: index === endIndex - 1 };
}

/** Meter and key that hold at an event, the parts read in written order. */
export function inForce(tune: Tune, partIndex: number, index: number): { readonly meter: Meter; readonly key: Key } {
  let { meter, key } = tune;
  for (let p = 0; p <= partIndex; p++) {
    const { events } = tune.parts[p]!;
    const end = p === partIndex ? index + 1 : events.length;
    for (let i = 0; i < end; i++) {
      const event = events[i]!;
      if (event.kind !== 'bar') continue;
      meter = event.meter ?? meter;
      key = event.key ?? key;
    }
  }
  return { meter, key };
}

export const isPositive = (length: Fraction) => compare(length, ZERO) > 0;
