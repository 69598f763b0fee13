import { compare, type Fraction, fraction, subtract, ZERO } from '#core/base';
import type { Key, Pitch } from '#core/pitch';
import { type ReportOptions, reportTune, type TuneReport } from '#core/report';
import {
  barLength,
  type Direction,
  type Meter,
  type NoteEvent,
  type NoteMark,
  type Place,
  type Tune,
  type TuneEvent,
  writtenBars,
} from '#core/tune';
import type { Tuning } from '#core/tuning';

/** A note of a drill, or a rest. */
export interface SmallNote {
  /** null: a rest. */
  readonly pitch: Pitch | null;
  readonly eighths: number;
  readonly link?: NoteEvent['link'];
  readonly place?: Place;
  readonly finger?: number;
  readonly position?: number;
  readonly marks?: readonly NoteMark[];
  readonly drone?: NoteEvent['drone'];
  readonly bowLength?: number;
  /** Advice over the staff. */
  readonly chord?: string;
}

/** What a drill is written in. */
export interface SmallGround {
  readonly title: string;
  readonly key: Key;
  readonly tuning: Tuning;
  /** Beats of the meter a minute: quarters, or dotted quarters. */
  readonly bpm: number;
  readonly meter?: Meter;
  readonly start?: Direction;
}

const COMMON: Meter = { num: 4, den: 4 };
/** The finest length: a 32nd. */
const PER_EIGHTH = 4;

/** Notes as a tune of one part played twice: bars are filled with rests where a note would run over the bar line. */
export function smallTune(notes: readonly SmallNote[], ground: SmallGround): Tune {
  const meter = ground.meter ?? COMMON;
  const full = barLength(meter);
  const events: TuneEvent[] = [{ kind: 'bar', id: 'b1' }];
  let bars = 1;
  let rests = 0;
  let room = full;
  const rest = (duration: Fraction) => events.push({ kind: 'rest', id: `r${++rests}`, duration });
  const open = () => {
    if (compare(room, ZERO) > 0) rest(room);
    events.push({ kind: 'bar', id: `b${++bars}` });
    room = full;
  };
  let count = 0;
  for (const { pitch, eighths, link, marks, ...more } of notes) {
    const duration = fraction(Math.round(eighths * PER_EIGHTH), 8 * PER_EIGHTH);
    if (compare(room, duration) < 0) open();
    room = subtract(room, duration);
    if (pitch === null) {
      rest(duration);
      continue;
    }
    count += 1;
    events.push({
      kind: 'note',
      id: `n${count}`,
      pitch,
      duration,
      link: count === 1 ? 'start' : (link ?? 'change'),
      ...(marks && marks.length > 0 ? { marks } : {}),
      ...more,
    });
  }
  if (compare(room, ZERO) > 0) rest(room);
  return {
    schemaVersion: 1,
    title: ground.title,
    danceType: null,
    meter,
    key: ground.key,
    tuning: ground.tuning,
    tempoBpm: Math.round(10 * ground.bpm) / 10,
    start: ground.start ?? 'down',
    parts: [{ name: 'A', events }],
    form: ['A', 'A'],
  };
}

/** The same so often that the bow comes back: once, or twice where once flips. */
export function wholeCycles(notes: readonly SmallNote[], ground: SmallGround, options: ReportOptions): Tune {
  const once = smallTune(notes, ground);
  if (reportTune(once, options).figures.ledger.comesRoundAgain) return once;
  // The second time the first note is reached by a turn as any other.
  return smallTune([...notes, ...notes], ground);
}

/**
 * A stretch of a tune by itself: the bars in which its notes stand, with rests in place of the others; bowed as the first time
 * it is played.
 * @param first played note, as `last`, of one pass
 */
export function excerpt(report: TuneReport, first: number, last: number, title: string): Tune {
  const { tune, unrolled, figures, settings } = report;
  const played = unrolled.notes.slice(first, last + 1);
  const ids = new Set(played.flatMap((note) => note.ids));
  const { part } = played[0]!;
  const kept = writtenBars(tune)
    .get(part)!
    .filter(({ events }) => events.some(({ id }) => ids.has(id)));
  const linkOf = new Map(played.map(({ note, index }) => [note.id, figures.bowed[index]!.link]));
  const [head] = kept;
  const events = kept.flatMap(({ event, events: own }, i): TuneEvent[] => [
    {
      kind: 'bar',
      id: event.id,
      ...(i > 0 && event.meter ? { meter: event.meter } : {}),
      ...(i > 0 && event.key ? { key: event.key } : {}),
    },
    ...own.map((one): TuneEvent => {
      if (one.kind === 'rest') return one;
      if (!ids.has(one.id))
        return { kind: 'rest', id: one.id, duration: one.duration, ...(one.tuplet ? { tuplet: one.tuplet } : {}) };
      const { linkOnPass: _own, lock: _lock, ...note } = one;
      return { ...note, link: one.id === played[0]!.note.id ? 'start' : (linkOf.get(one.id) ?? one.link) };
    }),
  ]);
  return {
    ...tune,
    title,
    meter: head!.meter,
    key: head!.key,
    tempoBpm: settings.bpm,
    start: figures.bowed[first]!.bow,
    parts: [{ name: part, events: withoutOpenTie(events) }],
    form: [part, part],
  };
}

/** A tie into what is left out ends here. */
function withoutOpenTie(events: readonly TuneEvent[]): TuneEvent[] {
  const last = events.findLastIndex((event) => event.kind === 'note');
  return events.map((event, i) => {
    if (i !== last || event.kind !== 'note' || !event.tie) return event;
    const { tie: _tie, ...rest } = event;
    return rest;
  });
}
