import { joiningLink, setLinks } from '#core/bowing';
import { choicesFor, type HandChord } from '#core/fingering';
import { type LinkEdit, type NoteEdit, reportTune, type TuneReport, withNoteEdits } from '#core/report';
import type { EventKind, PlacedEvent } from '#core/tempo';
import { type NoteMark, occurrencesOf, type Tune, type UnrolledNote } from '#core/tune';

/** One thing that can be changed about a note to give an event more time, or let it need less. */
export interface Change {
  /** Different from that of any other change of the tune. */
  readonly key: string;
  readonly deed: 'split' | 'join' | 'turn' | 'barre' | 'refinger' | 'leave-off' | 'no-drone';
  /** The written note that it is done to. */
  readonly id: string;
  readonly link: LinkEdit | null;
  readonly note: NoteEdit | null;
  /** How much it takes from the tune; among equally few changes those that take least are chosen. */
  readonly cost: number;
}

/** What a change takes from the tune, guesses: an ornament or a drone is missed least, another fingering learned soonest. */
const COSTS: Readonly<Record<Change['deed'], number>> = {
  'leave-off': 1,
  'no-drone': 1,
  barre: 1,
  refinger: 2,
  split: 2,
  join: 2,
  turn: 2,
};
/** Other fingers, strings and positions that are tried for a note. */
const WAYS_TRIED = 3;

/** Ornaments that need time, by the event they make. */
const MARK_OF: Partial<Record<EventKind, NoteMark>> = {
  'bowed-triplet': 'bowed-triplet',
  cut: 'cut',
  flick: 'flick',
  'short-roll': 'roll',
  'long-roll': 'roll',
  pulse: 'pulse',
  slide: 'slide',
  turn: 'turn',
};

/** A written place with an event that needs its time: the least ceiling of all times it is played. */
export interface TightSpot extends PlacedEvent {
  readonly id: string;
}

/** The places of a tune by their ceilings, lowest first; each kind of event at a written note once. */
export function tightSpots({ unrolled, figures }: TuneReport, below = Infinity): TightSpot[] {
  const places = new Map<string, TightSpot>();
  for (const [index, events] of figures.check.events.entries())
    for (const event of events) {
      if (event.ceilingBpm >= below) continue;
      const { id } = unrolled.notes[index]!.note;
      const key = `${id} ${event.kind}`;
      const known = places.get(key);
      if (!known || event.ceilingBpm < known.ceilingBpm - 1e-9) places.set(key, { ...event, index, id });
    }
  return [...places.values()].sort((a, b) => a.ceilingBpm - b.ceilingBpm || a.index - b.index);
}

/**
 * Whatever may help a place: at the note, the one before and the one after it. Links that the player set for single passes
 * stay. What helps is found by trying.
 */
export function changesAt(report: TuneReport, { index, kind }: Pick<PlacedEvent, 'index' | 'kind'>): Change[] {
  const { notes } = report.unrolled;
  const [before, here, after] = [notes[index - 1], notes[index]!, notes[index + 1]];
  const mark = MARK_OF[kind];
  if (mark) {
    return [
      {
        key: `${here.note.id} leave-off ${mark}`,
        deed: 'leave-off',
        id: here.note.id,
        link: null,
        note: { id: here.note.id, unmark: mark },
        cost: COSTS['leave-off'],
      },
      ...(kind === 'bowed-triplet' || kind === 'pulse' ? [] : fingerChanges(report, here)),
    ];
  }
  const links = [here, after].flatMap((note) => (note ? linkChanges(report, note) : []));
  if (kind === 'stroke' || kind === 'retake') return links;
  const hands = [before, here].flatMap((note) => (note ? fingerChanges(report, note) : []));
  const drones = [before, here].flatMap((note): Change[] =>
    note?.note.drone
      ? [
          {
            key: `${note.note.id} no-drone`,
            deed: 'no-drone',
            id: note.note.id,
            link: null,
            note: { id: note.note.id, drone: null },
            cost: COSTS['no-drone'],
          },
        ]
      : [],
  );
  const barres: Change[] =
    kind === 'barre'
      ? [
          {
            key: `${here.note.id} barre`,
            deed: 'barre',
            id: here.note.id,
            link: null,
            note: { id: here.note.id, mark: 'barre' },
            cost: COSTS.barre,
          },
        ]
      : [];
  return [...drones, ...barres, ...hands, ...links];
}

/** A slur split, a turn slurred, a retake made a plain turn. */
function linkChanges({ unrolled, figures }: TuneReport, { note, index, restBefore }: UnrolledNote): Change[] {
  if (index === 0 || note.linkOnPass) return [];
  const { link } = figures.bowed[index]!;
  const to = link === 'change' ? joiningLink(unrolled.notes[index - 1]!.note, note, restBefore.n > 0) : 'change';
  const deed = link === 'change' ? 'join' : link === 'retake' ? 'turn' : 'split';
  return [
    {
      key: `${note.id} ${deed}`,
      deed,
      id: note.id,
      link: { id: note.id, link: to, pass: null },
      note: null,
      cost: COSTS[deed],
    },
  ];
}

function fingerChanges({ tune, fingers, settings }: TuneReport, { note }: UnrolledNote): Change[] {
  const now = fingers.get(note.id)!;
  return choicesFor(note, tune, settings.hand, settings.instrument)
    .filter(([top]) => top!.place !== now.place || top!.finger !== now.finger || top!.position !== now.position)
    .slice(0, WAYS_TRIED)
    .map((chord: HandChord): Change => {
      const { place, finger, position } = chord[0]!;
      return {
        key: `${note.id} refinger ${place}${finger} ${position}`,
        deed: 'refinger',
        id: note.id,
        link: null,
        note: { id: note.id, refinger: { place, finger, position } },
        cost: COSTS.refinger,
      };
    });
}

/** Whether two changes can be made together: not the same thing of one note in two ways. */
export function goTogether(a: Change, b: Change): boolean {
  return a.id !== b.id || (a.deed !== b.deed && (a.link === null || b.link === null));
}

/** The tune with changes made. */
export function applyChanges(tune: Tune, changes: readonly Change[]): Tune {
  const links = changes.flatMap(({ link }) => (link ? [[link.id, link.link] as const] : []));
  const notes = changes.flatMap(({ note }) => (note ? [note] : []));
  const linked = links.length > 0 ? setLinks(tune, new Map(links)) : tune;
  return notes.length > 0 ? withNoteEdits(linked, notes) : linked;
}

/** What a change, made by itself, buys. */
export interface Gain {
  readonly place: TightSpot;
  readonly change: Change;
  /** Ceilings of the place and of the whole tune afterwards; null above all tempos. */
  readonly hereBpm: number | null;
  readonly ceilingBpm: number | null;
  readonly comesRound: boolean;
}

/** The report of a tune with changes made, counted anew with everything else as it was. */
export function reportWith(report: TuneReport, changes: readonly Change[]): TuneReport {
  return reportTune(applyChanges(report.tune, changes), { ...report.settings });
}

/** The least ceiling of the events at a written note and at those that follow it, wherever it is played. */
export function ceilingAbout({ unrolled, figures }: TuneReport, id: string): number {
  let least = Infinity;
  for (const index of occurrencesOf(unrolled).get(id) ?? [])
    for (const at of [index, index + 1])
      for (const { ceilingBpm } of figures.check.events[at] ?? []) least = Math.min(least, ceilingBpm);
  return least;
}

/**
 * What each change at the tightest places would buy, by really making it: those that lift their place, the most helpful
 * first. Time O(places · changes · n).
 */
export function gainsAt(report: TuneReport, places: readonly TightSpot[]): Gain[] {
  const gains = new Map<string, Gain>();
  for (const place of places)
    for (const change of changesAt(report, place)) {
      if (gains.has(change.key)) continue;
      const after = reportWith(report, [change]);
      const here = spotCeiling(after, place);
      if (here <= place.ceilingBpm + 1e-6 || !helps(report, after, change)) continue;
      gains.set(change.key, {
        place,
        change,
        hereBpm: Number.isFinite(here) ? here : null,
        ceilingBpm: after.figures.check.ceiling?.ceilingBpm ?? null,
        comesRound: after.figures.ledger.comesRound,
      });
    }
  const worth = ({ ceilingBpm }: Gain) => ceilingBpm ?? Infinity;
  return [...gains.values()].sort(
    (a, b) =>
      worth(b) - worth(a) ||
      Number(b.comesRound) - Number(a.comesRound) ||
      a.change.cost - b.change.cost ||
      (b.hereBpm ?? Infinity) - (a.hereBpm ?? Infinity),
  );
}

/** Nothing about the changed note is worse than the place that it helps was. */
function helps(before: TuneReport, after: TuneReport, { id }: Change): boolean {
  return ceilingAbout(after, id) >= ceilingAbout(before, id) - 1e-6;
}

/** Ceiling of one kind of event at a written note afterwards; infinite where it is gone. */
export function spotCeiling({ unrolled, figures }: TuneReport, { id, kind }: TightSpot): number {
  let least = Infinity;
  for (const index of occurrencesOf(unrolled).get(id) ?? [])
    for (const event of figures.check.events[index]!)
      if (event.kind === kind) least = Math.min(least, event.ceilingBpm);
  return least;
}
