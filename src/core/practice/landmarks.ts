import { formatFraction } from '#core/base';
import { midiOf } from '#core/pitch';
import type { TuneReport } from '#core/report';
import { mapNotes, type NoteEvent, occurrencesOf, type Tune, writtenBars } from '#core/tune';
import type { Stretch } from './cell';
import { type Bite, tightestIn } from './practicePlan';

/** A stretch with a name of the player's own, by its written notes. */
export interface Landmark {
  readonly id: string;
  readonly name: string;
  readonly part: string;
  readonly from: string;
  readonly to: string;
}

/** Where a name belongs: the landmark itself, or the same notes in the same rhythm elsewhere. */
export interface NamedPlace {
  readonly landmark: Landmark;
  readonly part: string;
  readonly notes: readonly NoteEvent[];
  readonly isItself: boolean;
}

/** A single note is met everywhere: its name stays where it was given. */
const MIN_MET_AGAIN = 2;

/**
 * The places of landmarks, in their own order: each itself, then wherever its notes come again with the
 * same pitches and lengths within a part, not from one ending into another. Places of one landmark do not overlap; a landmark whose notes are gone
 * has none.
 * Time O(n · m) for n written notes and m notes of all landmarks.
 */
export function namedPlaces(tune: Tune, landmarks: readonly Landmark[]): NamedPlace[] {
  const lines = linesOf(tune);
  return landmarks.flatMap((landmark): NamedPlace[] => {
    const own = lines.find(({ part, notes }) => part === landmark.part && notes.some(({ id }) => id === landmark.from));
    const from = own?.notes.findIndex(({ id }) => id === landmark.from) ?? -1;
    const to = own?.notes.findIndex(({ id }) => id === landmark.to) ?? -1;
    if (!own || from < 0 || to < from) return [];
    const notes = own.notes.slice(from, to + 1);
    const asked = notes.map(soundOf);
    const taken = new Set(notes.map(({ id }) => id));
    const again: NamedPlace[] = [];
    for (const { part, notes: line, sounds, endings } of lines)
      for (let at = 0; asked.length >= MIN_MET_AGAIN && at + asked.length <= line.length; at++) {
        if (!asked.every((sound, i) => sounds[at + i] === sound)) continue;
        const place = line.slice(at, at + asked.length);
        // From one ending into the next nobody plays.
        const under = new Set(endings.slice(at, at + asked.length).filter((ending) => ending !== ''));
        if (under.size > 1 || place.some(({ id }) => taken.has(id))) continue;
        for (const { id } of place) taken.add(id);
        again.push({ landmark, part, notes: place, isItself: false });
      }
    return [{ landmark, part: own.part, notes, isItself: true }, ...again];
  });
}

const soundOf = ({ pitch, duration, tie }: NoteEvent): string =>
  `${midiOf(pitch)} ${formatFraction(duration)}${tie ? '-' : ''}`;

/** The notes of each part as they are written, what each sounds like, and the ending that it stands under. */
function linesOf(tune: Tune) {
  return [...writtenBars(tune)].map(([part, bars]) => {
    const noted = bars.flatMap(({ event, events }) =>
      events.flatMap((one) =>
        one.kind === 'note' ? [{ note: one, ending: event.ending ? String(event.onPlays) : '' }] : [],
      ),
    );
    const notes = noted.map(({ note }) => note);
    return { part, notes, sounds: notes.map(soundOf), endings: noted.map(({ ending }) => ending) };
  });
}

/** The tune with each landmark's name over its first note, beside the chord's where one stands there: to be read, not to be kept. */
export function withLandmarkNames(tune: Tune, landmarks: readonly Landmark[]): Tune {
  const names = new Map(namedPlaces(tune, landmarks).map(({ notes, landmark }) => [notes[0]!.id, landmark.name]));
  if (names.size === 0) return tune;
  return mapNotes(tune, (note) => {
    const name = names.get(note.id);
    return name === undefined ? note : { ...note, chord: note.chord ? `${note.chord} · ${name}` : name };
  });
}

/** A landmark as it is played the first time, and what is tightest within it; null: it is not played. */
export function landmarkStretch(
  report: TuneReport,
  { from, to }: Pick<Landmark, 'from' | 'to'>,
): (Stretch & Pick<Bite, 'ceilingBpm' | 'tightest'>) | null {
  const met = occurrencesOf(report.unrolled);
  const first = met.get(from)?.[0];
  const last = first === undefined ? undefined : met.get(to)?.find((index) => index >= first);
  if (first === undefined || last === undefined) return null;
  const starts = met.get(from)!;
  const stretches = starts.map((start) => [start, start + last - first] as const);
  return { first, last, ...tightestIn(report, stretches) };
}
