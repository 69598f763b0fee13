import { patternLinks, PATTERNS } from '#core/bowing';
import { NOTE_FIELDS, type NoteAspect } from '#core/document';
import { keyName } from '#core/pitch';
import { barNumbers, type Link, meterName, type NoteEvent, type Part, type Tune, writtenBars } from '#core/tune';
import { tuningName } from '#core/tuning';

/** What is different in one bar, counted by kind. */
export type BarChange =
  | 'slur-split'
  | 'slur-joined'
  | 'hook'
  | 'retake'
  | 'turn'
  | 'entered'
  | 'taken-away'
  | Exclude<NoteAspect, 'link'>
  | 'reuse';

/** Something that a later version of a tune has otherwise. */
export type Difference =
  | {
      readonly kind: 'bar';
      readonly part: string;
      readonly bar: number;
      readonly change: BarChange;
      readonly count: number;
    }
  | { readonly kind: 'pattern'; readonly part: string; readonly pattern: string }
  | { readonly kind: 'part-added' | 'part-removed'; readonly part: string }
  | {
      readonly kind: 'title' | 'dance' | 'meter' | 'key' | 'tuning' | 'tempo' | 'lilt' | 'start' | 'form';
      readonly from: string;
      readonly to: string;
    };

/**
 * How a tune differs from an earlier version of it, in the order of the page: the head first, then part by part and bar
 * by bar. Notes are told apart by their ids. A part whose links changed in several bars and now are those of a
 * pattern is told as that pattern, not note by note.
 * Time O(n·p) for n notes and p patterns of the library.
 */
export function tuneDifference(before: Tune, after: Tune): Difference[] {
  const parts = new Map(before.parts.map((part) => [part.name, part]));
  const kept = new Set(after.parts.map(({ name }) => name));
  return [
    ...headDifferences(before, after),
    ...before.parts.flatMap(({ name }): Difference[] => (kept.has(name) ? [] : [{ kind: 'part-removed', part: name }])),
    ...after.parts.flatMap((part): Difference[] => {
      const old = parts.get(part.name);
      return old ? partDifferences(old, part, before, after) : [{ kind: 'part-added', part: part.name }];
    }),
  ];
}

function headDifferences(before: Tune, after: Tune): Difference[] {
  const fields = {
    title: (tune: Tune) => tune.title,
    dance: (tune: Tune) => tune.danceType ?? 'not given',
    meter: (tune: Tune) => meterName(tune.meter),
    key: (tune: Tune) => keyName(tune.key),
    tuning: (tune: Tune) => tuningName(tune.tuning),
    tempo: (tune: Tune) => (tune.tempoBpm === null ? 'the middle of the band' : String(tune.tempoBpm)),
    lilt: (tune: Tune) => tune.lilt ?? 'straight',
    start: (tune: Tune) => tune.start ?? 'by the first bar',
    form: (tune: Tune) => tune.form.join(' '),
  } as const;
  return (Object.keys(fields) as (keyof typeof fields)[]).flatMap((kind): Difference[] => {
    const [from, to] = [fields[kind](before), fields[kind](after)];
    return from === to ? [] : [{ kind, from, to }];
  });
}

interface PlacedNote {
  readonly note: NoteEvent;
  readonly bar: number;
}

function placedNotes(tune: Tune, part: Part): Map<string, PlacedNote> {
  const bars = writtenBars(tune).get(part.name)!;
  const numbers = barNumbers(bars, tune.form.filter((name) => name === part.name).length);
  const found = new Map<string, PlacedNote>();
  for (const [i, { event, events }] of bars.entries())
    for (const note of events)
      if (note.kind === 'note') found.set(note.id, { note, bar: numbers.get(event.id) ?? i + 1 });
  return found;
}

function partDifferences(old: Part, part: Part, before: Tune, after: Tune): Difference[] {
  if (old === part) return [];
  const were = placedNotes(before, old);
  const are = placedNotes(after, part);
  const counts = new Map<string, { bar: number; change: BarChange; count: number }>();
  const add = (bar: number, change: BarChange) => {
    const entry = counts.get(`${bar} ${change}`) ?? { bar, change, count: 0 };
    entry.count += 1;
    counts.set(`${bar} ${change}`, entry);
  };
  const relinked = [...are].filter(([id, { note }]) => were.has(id) && were.get(id)!.note.link !== note.link);
  const isSpread = new Set(relinked.map(([, { bar }]) => bar)).size > 1;
  const pattern = isSpread ? patternOf(after, part) : null;
  for (const [id, { bar }] of were) if (!are.has(id)) add(bar, 'taken-away');
  for (const [id, { note, bar }] of are) {
    const was = were.get(id)?.note;
    if (!was) add(bar, 'entered');
    else for (const change of noteChanges(was, note)) if (!pattern || !LINK_CHANGES.has(change)) add(bar, change);
  }
  const reused = (item: Part) =>
    new Map(item.events.flatMap((event) => (event.kind === 'bar' ? [[event.id, event.reuses] as const] : [])));
  const earlier = reused(old);
  const numbers = barNumbers(
    writtenBars(after).get(part.name)!,
    after.form.filter((name) => name === part.name).length,
  );
  for (const [id, root] of reused(part))
    if (earlier.has(id) && earlier.get(id) !== root) add(numbers.get(id) ?? 0, 'reuse');
  const bars = [...counts.values()]
    .sort((a, b) => a.bar - b.bar)
    .map((entry): Difference => ({ kind: 'bar', part: part.name, ...entry }));
  return [...(pattern ? [{ kind: 'pattern' as const, part: part.name, pattern }] : []), ...bars];
}

const LINK_CHANGES: ReadonlySet<BarChange> = new Set(['slur-split', 'slur-joined', 'hook', 'retake', 'turn']);

/** The pattern of the library that gives all of a part's links, first match first; null where none does. */
function patternOf(tune: Tune, part: Part): string | null {
  const notes = part.events.filter((event) => event.kind === 'note');
  const ids = new Set(notes.map(({ id }) => id));
  const found = PATTERNS.find((pattern) => {
    const links = patternLinks(tune, pattern, { ids });
    return notes.every(({ id, link }) => links.get(id) === link);
  });
  return found?.name ?? null;
}

const FIELDS_OF_NOTES = Object.keys(NOTE_FIELDS) as (keyof typeof NOTE_FIELDS)[];

/** In which aspects a note is another, in the order in which they are told. */
const TOLD: readonly NoteAspect[] = [
  'link',
  'pass-links',
  'lock',
  'pitch',
  'length',
  'string',
  'mark',
  'drone',
  'bow-length',
  'freedom',
];

function noteChanges(was: NoteEvent, is: NoteEvent): BarChange[] {
  const changed = new Set(
    FIELDS_OF_NOTES.filter((name) => !sameValue(was[name], is[name])).map((name) => NOTE_FIELDS[name].aspect),
  );
  return TOLD.flatMap((aspect) => {
    if (!changed.has(aspect)) return [];
    if (aspect !== 'link') return [aspect];
    return linkChange(was.link, is.link) ?? [];
  });
}

/** Whether two values of a field are the same; a list or map with nothing in it is as one that is left out. */
function sameValue(one: unknown, other: unknown): boolean {
  if (one === other) return true;
  const [a, b] = [one ?? {}, other ?? {}];
  if (typeof a !== 'object' || typeof b !== 'object') return false;
  const names = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...names].every((name) => sameValue((a as Named)[name], (b as Named)[name]));
}

type Named = Readonly<Record<string, unknown>>;

function linkChange(was: Link, is: Link): BarChange | null {
  const shared = (link: Link) => link === 'slur' || link === 'hook';
  if (is === 'retake') return 'retake';
  if (is === 'hook') return 'hook';
  if (shared(was) && !shared(is)) return 'slur-split';
  if (!shared(was) && shared(is)) return 'slur-joined';
  if (was === 'hook') return 'slur-joined';
  return is === 'start' || was === 'start' ? null : 'turn';
}
