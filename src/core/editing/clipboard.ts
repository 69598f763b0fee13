import { fingerNote } from '#core/fingering';
import { intervalName, midiOf, type Pitch, pitchSpelled, staffStep } from '#core/pitch';
import { type NoteEvent, PLACES, type Tune, type TuneEvent } from '#core/tune';
import type { Tuning } from '#core/tuning';
import { findEvent, freshIds, withEvents } from './document';

/** Notes, rests and the bar lines among them, as they were copied. */
export type Fragment = readonly TuneEvent[];

/** What lies from the first to the last of some notes, rests and bar lines included; a new part is a new bar. */
export function copyEvents(tune: Tune, ids: ReadonlySet<string>): Fragment {
  const all = tune.parts.flatMap(({ events }) => events);
  const first = all.findIndex(({ id }) => ids.has(id));
  const last = all.findLastIndex(({ id }) => ids.has(id));
  if (first < 0) return [];
  return all.slice(first, last + 1).map(copyOf);
}

/** A note without links of single passes; a bar line without the passes it belonged to or the bar it took up, with its key and meter. */
function copyOf(event: TuneEvent): TuneEvent {
  if (event.kind === 'rest') return event;
  if (event.kind === 'note') {
    const { linkOnPass: _passes, ...note } = event;
    return note;
  }
  const { onPlays: _plays, ending: _ending, reuses: _reuses, ...bar } = event;
  return bar;
}

export interface Pasted {
  readonly tune: Tune;
  /** Ids of the pasted notes. */
  readonly ids: readonly string[];
  /** The last event pasted. */
  readonly caret: string;
}

/**
 * Puts a fragment after an event, with ids of its own. Its first note begins a stroke.
 * @throws RangeError if there is no event with the caret's id
 */
export function pasteEvents(tune: Tune, caret: string, fragment: Fragment): Pasted {
  const location = findEvent(tune, caret);
  if (!location) throw new RangeError(`caret: expected the id of an event, got ${caret}`);
  const fresh = freshIds(tune);
  let isFirst = true;
  const pasted = fragment.map((event): TuneEvent => {
    const copy = { ...event, id: fresh(event.kind) };
    if (copy.kind !== 'note') return copy;
    const begins = isFirst && copy.link !== 'retake';
    isFirst = false;
    return begins ? { ...copy, link: 'change' } : copy;
  });
  const events = [...location.part.events];
  events.splice(location.index + 1, 0, ...pasted);
  return {
    tune: withEvents(tune, location.partIndex, events),
    ids: pasted.flatMap(({ kind, id }) => (kind === 'note' ? [id] : [])),
    caret: pasted[pasted.length - 1]?.id ?? caret,
  };
}

/** The bars that some notes touch, once more right behind them. */
export function repeatBars(tune: Tune, ids: ReadonlySet<string>): Pasted | null {
  for (const part of tune.parts) {
    const bars = part.events.flatMap(({ kind }, i) => (kind === 'bar' ? [i] : []));
    const ends = bars.map((_, k) => bars[k + 1] ?? part.events.length);
    const touched = bars.flatMap((from, k) =>
      part.events.slice(from, ends[k]).some(({ id }) => ids.has(id)) ? [k] : [],
    );
    const first = touched[0];
    const last = touched[touched.length - 1];
    if (first === undefined || last === undefined) continue;
    const fragment = part.events.slice(bars[first], ends[last]).map(copyOf);
    return pasteEvents(tune, part.events[ends[last]! - 1]!.id, fragment);
  }
  return null;
}

export interface MovedFragment {
  readonly fragment: Fragment;
  /** Intervals by which notes moved, the commonest first. */
  readonly intervals: readonly string[];
  /** Notes with no string on that side: they stay as they are. */
  readonly unmoved: number;
}

/**
 * A fragment as the same fingers play it on the strings next door: each note moves by what lies between the two open
 * strings as they are tuned, in letter names and semitones.
 */
export function onNeighbourStrings(fragment: Fragment, tuning: Tuning, way: 1 | -1): MovedFragment {
  const counts = new Map<string, number>();
  let unmoved = 0;
  const moved = fragment.map((event): TuneEvent => {
    if (event.kind !== 'note') return event;
    const from = PLACES.indexOf(fingerNote(event, tuning).place);
    const open = tuning[from]!;
    const target = tuning[from + way];
    if (!target) {
      unmoved += 1;
      return event;
    }
    const [steps, semitones] = [staffStep(target) - staffStep(open), midiOf(target) - midiOf(open)];
    const move = (pitch: Pitch) => pitchSpelled(staffStep(pitch) + steps, midiOf(pitch) + semitones);
    const name = intervalName(open, target);
    counts.set(name, (counts.get(name) ?? 0) + 1);
    const { finger: _finger, ...note } = event;
    return {
      ...note,
      pitch: move(event.pitch),
      place: PLACES[from + way]!,
      ...(event.stops ? { stops: event.stops.map(move) } : {}),
      ...(event.graceNotes ? { graceNotes: event.graceNotes.map(move) } : {}),
    } satisfies NoteEvent;
  });
  const intervals = [...counts].sort((a, b) => b[1] - a[1]).map(([name]) => name);
  return { fragment: moved, intervals, unmoved };
}
