import {
  type BarEvent,
  barNumbers,
  type NoteEvent,
  type RestEvent,
  type Tune,
  type TuneEvent,
  writtenBars,
} from '#core/tune';
import { freshIds, withOneStart } from './document';

type Sounding = NoteEvent | RestEvent;

/**
 * Lets bars stand once more in a part, in place of those from `at` on (at the part's end with null). From then on an
 * edit of the notes of either place is made in both; links, locks and stroke lengths are each place's own, for the same figure may come
 * round on the other bow. Bars that take up others stand for the ones those take up.
 * null where a part or bar is missing, or where bars would be taken up in their own place.
 */
export function reuseBars(tune: Tune, barIds: readonly string[], into: string, at: string | null): Tune | null {
  const content = barContents(tune);
  const partIndex = tune.parts.findIndex(({ name }) => name === into);
  const part = tune.parts[partIndex];
  if (!part || barIds.length === 0 || barIds.some((id) => !content.has(id))) return null;
  const bars = part.events.filter((event) => event.kind === 'bar');
  const from = at === null ? endOf(bars, content) : bars.findIndex(({ id }) => id === at);
  if (from < 0) return null;
  const replaced = bars.slice(from, from + barIds.length);
  const roots = barIds.map((id) => content.get(id)!.bar.reuses ?? id);
  const targets = new Set(replaced.map(({ id }) => id));
  if ([...barIds, ...roots].some((id) => targets.has(id))) return null;
  const fresh = freshIds(tune);
  const taken = roots.flatMap((root, i): TuneEvent[] => {
    const bar: BarEvent = replaced[i] ?? { kind: 'bar', id: fresh('bar') };
    const notes = content.get(barIds[i]!)!.events.map((event): TuneEvent => {
      if (event.kind === 'rest') return { ...event, id: fresh('rest') };
      const { linkOnPass: _passes, lock: _lock, bowLength: _length, ...note } = event;
      return { ...note, id: fresh('note'), link: note.link === 'start' ? 'change' : note.link };
    });
    return [{ ...bar, reuses: root }, ...notes];
  });
  const events = bars.flatMap((bar, i): TuneEvent[] => {
    if (i < from || i >= from + replaced.length) return [bar, ...content.get(bar.id)!.events];
    return i === from ? taken : [];
  });
  if (replaced.length === 0) events.push(...taken);
  return withOneStart(
    withoutDangling({ ...tune, parts: tune.parts.map((item, i) => (i === partIndex ? { ...item, events } : item)) }),
  );
}

/** Behind the last bar; an empty last bar is filled. */
function endOf(bars: readonly BarEvent[], content: ReadonlyMap<string, BarContent>): number {
  const last = bars[bars.length - 1];
  return last && content.get(last.id)!.events.length === 0 ? bars.length - 1 : bars.length;
}

/** Lets bars go their own way: they keep their notes and follow no others. */
export function releaseBars(tune: Tune, barIds: ReadonlySet<string>): Tune {
  return {
    ...tune,
    parts: tune.parts.map((part) =>
      part.events.some((event) => isFollower(event) && barIds.has(event.id))
        ? { ...part, events: part.events.map((event) => (barIds.has(event.id) ? ownWay(event) : event)) }
        : part,
    ),
  };
}

export interface Followed {
  readonly tune: Tune;
  /** Bars that were not edited themselves but took over what was done elsewhere. */
  readonly bars: readonly string[];
}

/**
 * Carries an edit on to the bars that take up the edited ones, or are taken up by them. Notes that were there before
 * keep their ids, links and locks in each place. An edit that moves notes over a bar line or takes a bar away cannot be
 * carried on without losing notes elsewhere: there the bars part and each keeps what it has.
 * Time O(n) for n events; nothing where no bar takes up another.
 */
export function followReuse(before: Tune, after: Tune): Followed {
  if (before.parts === after.parts || !after.parts.some(({ events }) => events.some(isFollower)))
    return { tune: after, bars: [] };
  const was = barContents(before);
  const is = barContents(after);
  const moved = barsWithMovedNotes(was, is);
  const released = new Set<string>();
  const replaced = new Map<string, readonly Sounding[]>();
  const fresh = freshIds(after);
  for (const [root, followers] of groupsOf(is)) {
    const members = [root, ...followers];
    const music = members.map((id) => musicOf(is.get(id)?.events));
    if (!is.has(root)) followers.forEach((id) => released.add(id));
    else if (music.every((text) => text === music[0])) continue;
    else if (members.some((id) => moved.has(id))) {
      followers.filter((_, i) => music[i + 1] !== music[0]).forEach((id) => released.add(id));
    } else {
      const edited = members.find((id) => musicOf(is.get(id)!.events) !== musicOf(was.get(id)?.events)) ?? root;
      for (const [i, id] of members.entries())
        if (music[i] !== music[members.indexOf(edited)]) replaced.set(id, takeOver(edited, id, was, is, fresh));
    }
  }
  if (released.size === 0 && replaced.size === 0) return { tune: after, bars: [] };
  const parts = after.parts.map((part) => {
    const bars = part.events.filter((event) => event.kind === 'bar');
    if (!bars.some(({ id }) => released.has(id) || replaced.has(id))) return part;
    const events = bars.flatMap((bar): TuneEvent[] => [
      released.has(bar.id) ? ownWay(bar) : bar,
      ...(replaced.get(bar.id) ?? is.get(bar.id)!.events),
    ]);
    return { ...part, events };
  });
  return { tune: withOneStart({ ...after, parts }), bars: [...replaced.keys()] };
}

interface BarContent {
  readonly bar: BarEvent;
  readonly events: readonly Sounding[];
}

function barContents(tune: Tune): Map<string, BarContent> {
  const found = new Map<string, { bar: BarEvent; events: Sounding[] }>();
  for (const { events } of tune.parts) {
    let current: Sounding[] = [];
    for (const event of events)
      if (event.kind === 'bar') found.set(event.id, { bar: event, events: (current = []) });
      else current.push(event);
  }
  return found;
}

function isFollower(event: TuneEvent): event is BarEvent {
  return event.kind === 'bar' && event.reuses !== undefined;
}

function ownWay<T extends TuneEvent>(event: T): T {
  if (event.kind !== 'bar') return event;
  const { reuses: _reuses, ...bar } = event;
  return bar as T;
}

function withoutDangling(tune: Tune): Tune {
  const content = barContents(tune);
  const dangling = [...content].flatMap(([id, { bar }]) => {
    const root = bar.reuses === undefined ? null : content.get(bar.reuses);
    return root === null || (root && root.bar.reuses === undefined) ? [] : [id];
  });
  return dangling.length > 0 ? releaseBars(tune, new Set(dangling)) : tune;
}

/** Bars by the one that they take up. */
function groupsOf(content: ReadonlyMap<string, BarContent>): Map<string, string[]> {
  const groups = new Map<string, string[]>();
  for (const [id, { bar }] of content)
    if (bar.reuses !== undefined) groups.set(bar.reuses, [...(groups.get(bar.reuses) ?? []), id]);
  return groups;
}

function barsWithMovedNotes(was: ReadonlyMap<string, BarContent>, is: ReadonlyMap<string, BarContent>): Set<string> {
  const homes = new Map([...was].flatMap(([bar, { events }]) => events.map(({ id }) => [id, bar] as const)));
  const moved = new Set<string>();
  for (const [bar, { events }] of is)
    for (const { id } of events) {
      const home = homes.get(id);
      if (home !== undefined && home !== bar) moved.add(home).add(bar);
    }
  return moved;
}

/** What of a bar goes along: all but ids and bowing. */
function musicOf(events: readonly Sounding[] | undefined): string {
  return JSON.stringify(
    events?.map((event) => {
      if (event.kind === 'rest') return { ...event, id: '' };
      const { link: _link, linkOnPass: _passes, lock: _lock, bowLength: _length, ...music } = event;
      return { ...music, id: '' };
    }),
    // Keys in one order, however an edit left them.
    (_, value: unknown) =>
      value && typeof value === 'object' && !Array.isArray(value)
        ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
        : value,
  );
}

/** Neighbour bars of a part that take up neighbour bars of one part. Numbers are those of the page; 0 is a pickup. */
export interface ReusedRun {
  readonly part: string;
  readonly barIds: readonly string[];
  readonly from: number;
  readonly to: number;
  readonly ofPart: string;
  readonly ofFrom: number;
  readonly ofTo: number;
}

/** The bars of a tune that take up others, in written order. */
export function reusedRuns(tune: Tune): ReusedRun[] {
  if (!tune.parts.some(({ events }) => events.some(isFollower))) return [];
  const places = new Map<string, { part: string; index: number; number: number }>();
  const written = writtenBars(tune);
  for (const [part, bars] of written) {
    const numbers = barNumbers(bars, tune.form.filter((name) => name === part).length);
    for (const [index, { event }] of bars.entries())
      places.set(event.id, { part, index, number: numbers.get(event.id) ?? index + 1 });
  }
  const runs: { part: string; bars: { id: string; root: string }[] }[] = [];
  for (const [part, bars] of written)
    for (const [i, { event }] of bars.entries()) {
      const root = event.reuses === undefined ? undefined : places.get(event.reuses);
      if (!root) continue;
      const open = runs[runs.length - 1];
      const last = open?.part === part ? open.bars[open.bars.length - 1]! : null;
      const lastRoot = last && places.get(last.root)!;
      const goesOn =
        bars[i - 1]?.event.id === last?.id && lastRoot?.part === root.part && lastRoot.index + 1 === root.index;
      if (goesOn) open!.bars.push({ id: event.id, root: event.reuses! });
      else runs.push({ part, bars: [{ id: event.id, root: event.reuses! }] });
    }
  return runs.map(({ part, bars }) => {
    const [first, last] = [bars[0]!, bars[bars.length - 1]!];
    return {
      part,
      barIds: bars.map(({ id }) => id),
      from: places.get(first.id)!.number,
      to: places.get(last.id)!.number,
      ofPart: places.get(first.root)!.part,
      ofFrom: places.get(first.root)!.number,
      ofTo: places.get(last.root)!.number,
    };
  });
}

/** Whether two bars have the same notes, whatever their bowing. */
export function sameMusic(tune: Tune, bar: string, other: string): boolean {
  const content = barContents(tune);
  return musicOf(content.get(bar)?.events) === musicOf(content.get(other)?.events);
}

/** The edited bar's notes with the ids and the bowing that the other bar has where it had the same notes. */
function takeOver(
  edited: string,
  id: string,
  was: ReadonlyMap<string, BarContent>,
  is: ReadonlyMap<string, BarContent>,
  fresh: (kind: TuneEvent['kind']) => string,
): Sounding[] {
  const old = was.get(edited)?.events ?? [];
  const places = new Map(old.map((event, i) => [event.id, i]));
  const own = is.get(id)!.events;
  return is.get(edited)!.events.map((event): Sounding => {
    const place = places.get(event.id);
    const counterpart = place === undefined ? undefined : own[place];
    if (!counterpart || counterpart.kind !== event.kind) {
      if (event.kind === 'rest') return { ...event, id: fresh('rest') };
      const { linkOnPass: _passes, lock: _lock, bowLength: _length, ...note } = event;
      return { ...note, id: fresh('note') };
    }
    if (event.kind === 'rest') return { ...event, id: counterpart.id };
    const { link, linkOnPass, lock, bowLength } = counterpart as NoteEvent;
    const { linkOnPass: _passes, lock: _lock, bowLength: _length, ...note } = event;
    return {
      ...note,
      id: counterpart.id,
      link,
      ...(linkOnPass ? { linkOnPass } : {}),
      ...(lock ? { lock } : {}),
      ...(bowLength === undefined ? {} : { bowLength }),
    };
  });
}
