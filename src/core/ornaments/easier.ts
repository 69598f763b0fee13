import { add, equals, fraction, toNumber } from '#core/base';
import { bowedTune, setLinks } from '#core/bowing';
import { midiOf } from '#core/pitch';
import {
  type Link,
  mapNotes,
  meterBeat,
  type NoteEvent,
  type Tune,
  type TuneEvent,
  unroll,
  writtenBars,
} from '#core/tune';
import { ORNAMENT_LAYERS } from './kinds';

/** An easier version: layers taken off one after the other. */
export interface EasierStep {
  readonly off: string;
  readonly tune: Tune;
  /** Notes that this layer was on. */
  readonly notes: number;
}

/** What a step does, and on how many notes. */
interface Thinned {
  readonly tune: Tune;
  readonly notes: number;
}

/** Slurs of more notes than this are parted. */
const SLURRED_TOGETHER = 2;
/** Passing notes are no longer than this. */
const PASSING = fraction(1, 8);
/** A step of a scale, in semitones. */
const STEP = 2;

/**
 * Versions with ever fewer layers, the hardest first: ornaments kind by kind, second notes, drones, then long slurs and
 * passing notes. A layer that the tune has not is passed over. Time O(n) a layer.
 */
export function easierVersions(tune: Tune): EasierStep[] {
  const layers: readonly (readonly [string, (tune: Tune) => Thinned])[] = [
    ...ORNAMENT_LAYERS.map(({ name, marks }) => [name, (now: Tune) => without(now, new Set<string>(marks))] as const),
    ['second notes', withoutStops],
    ['drones', withoutDrones],
    ['long slurs', withShortSlurs],
    ['passing notes', withoutPassing],
  ];
  const steps: EasierStep[] = [];
  let current = tune;
  for (const [off, thin] of layers) {
    const { tune: next, notes } = thin(current);
    if (notes > 0) steps.push({ off, tune: next, notes });
    current = next;
  }
  return steps;
}

function without(tune: Tune, marks: ReadonlySet<string>): Thinned {
  return mapCounted(tune, (event) => {
    const left = event.marks?.filter((mark) => !marks.has(mark));
    if (!event.marks || left!.length === event.marks.length) return event;
    const { marks: _marks, ...rest } = event;
    return left!.length > 0 ? { ...rest, marks: left! } : rest;
  });
}

function withoutStops(tune: Tune): Thinned {
  return mapCounted(tune, (event) => {
    if (!event.stops) return event;
    const { stops: _stops, ...rest } = event;
    return rest;
  });
}

function withoutDrones(tune: Tune): Thinned {
  return mapCounted(tune, (event) => {
    if (!event.drone) return event;
    const { drone: _drone, ...rest } = event;
    return rest;
  });
}

/** Slurs of three notes and more become pairs, turned between; a pair is what every hand has. */
function withShortSlurs(tune: Tune): Thinned {
  const { bowed } = bowedTune(tune);
  const links = new Map<string, Link>();
  for (const { index, note } of unroll(tune).notes) {
    const { link, inStroke } = bowed[index]!;
    if (link === 'slur' && inStroke > SLURRED_TOGETHER && inStroke % SLURRED_TOGETHER === 1)
      links.set(note.id, 'change');
  }
  return { tune: links.size === 0 ? tune : setLinks(tune, links), notes: links.size };
}

/**
 * Without notes off the beat that only lead by step from one note to the next in one direction: the note before is held
 * instead. Ties, tuplets, chords and anything written on the passing note keep it.
 */
function withoutPassing(tune: Tune): Thinned {
  let notes = 0;
  const bars = writtenBars(tune);
  const parts = tune.parts.map((part) => {
    const gone = new Set<string>();
    const longer = new Map<string, NoteEvent>();
    for (const { events, meter } of bars.get(part.name)!) {
      const beat = toNumber(meterBeat(meter));
      let onset = 0;
      for (const [i, event] of events.entries()) {
        const [before, after] = [events[i - 1], events[i + 1]];
        const share = (onset / beat) % 1;
        onset += toNumber(event.duration);
        const isOff = share > 1e-9 && share < 1 - 1e-9;
        if (!isOff || !before || !after || gone.has(before.id) || !leads(before, event, after)) continue;
        gone.add(event.id);
        longer.set(before.id, { ...(before as NoteEvent), duration: add(before.duration, event.duration) });
      }
    }
    notes += gone.size;
    if (gone.size === 0) return part;
    const events = part.events.flatMap((event): TuneEvent[] =>
      gone.has(event.id) ? [] : [longer.get(event.id) ?? event],
    );
    return { ...part, events };
  });
  return { tune: notes === 0 ? tune : { ...tune, parts }, notes };
}

/** What keeps a note: whatever is said of it beyond its pitch, length and bowing. */
const WRITTEN = [
  'tie',
  'tuplet',
  'stops',
  'graceNotes',
  'lock',
  'linkOnPass',
  'marks',
  'chord',
  'bowLength',
  'drone',
  'hold',
  'breath',
  'pace',
] as const satisfies readonly (keyof NoteEvent)[];

/** Whether a note only passes from one to the next. */
function leads(before: TuneEvent, event: TuneEvent, after: TuneEvent): boolean {
  if (before.kind !== 'note' || event.kind !== 'note' || after.kind !== 'note') return false;
  if (!equals(before.duration, event.duration) || toNumber(event.duration) > toNumber(PASSING)) return false;
  if (WRITTEN.some((field) => event[field] !== undefined) || before.tie || before.tuplet) return false;
  const [first, second] = [midiOf(event.pitch) - midiOf(before.pitch), midiOf(after.pitch) - midiOf(event.pitch)];
  return first * second > 0 && Math.abs(first) <= STEP && Math.abs(second) <= STEP;
}

function mapCounted(tune: Tune, change: (note: NoteEvent) => NoteEvent): Thinned {
  let notes = 0;
  const changed = mapNotes(tune, (note) => {
    const next = change(note);
    if (next !== note) notes += 1;
    return next;
  });
  return { tune: changed, notes };
}
