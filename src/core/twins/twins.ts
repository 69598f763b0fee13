import { formatFraction, toNumber } from '#core/base';
import { linkOnPass, setLinks } from '#core/bowing';
import { pitchName, staffStep } from '#core/pitch';
import { type Link, type NoteEvent, type Tune, type Unrolled, writtenBars, writtenNotes } from '#core/tune';
import { maximalRepeats } from './suffixes';

/** Least notes of an equal figure that is worth naming. */
export const MIN_FIGURE = 4;

/** A figure that stands in several places of a tune: the same pitches in the same rhythm. */
export interface TwinFigure {
  readonly length: number;
  /** The notes of each place, in written order; places do not overlap. */
  readonly spots: readonly (readonly NoteEvent[])[];
  /** Whether all places have the same links within the figure; the link into its first note is left out. */
  readonly isBowedAlike: boolean;
}

/**
 * Equal figures of a tune, those that cover the most notes first: maximal stretches of four or more written notes that
 * come again with the same pitches, lengths, chords and rests between. Figures do not run over the end of a part or into
 * another ending. A figure of which every place lies within places of one named before is left out.
 * Time O(n log² n) for n written notes, and the sum of the places found.
 */
export function twinFigures(tune: Tune): TwinFigure[] {
  const notes = writtenNotes(tune);
  const symbols = symbolsOf(tune);
  const candidates = maximalRepeats(symbols.list, MIN_FIGURE)
    .map(({ length, starts }) => ({ length, starts: apart(starts, length) }))
    .filter(({ starts }) => starts.length > 1)
    .sort(
      (a, b) =>
        b.length * b.starts.length - a.length * a.starts.length || b.length - a.length || a.starts[0]! - b.starts[0]!,
    );
  // For each symbol the spans of figures that stand over it: only those can hold a later figure that begins there.
  const spansOver: Span[][] = symbols.list.map(() => []);
  const figures: TwinFigure[] = [];
  for (const { length, starts } of candidates) {
    if (liesWithin(spansOver, starts, length)) continue;
    for (const from of starts) {
      const span = { figure: figures.length, to: from + length };
      for (let i = from; i < span.to; i++) spansOver[i]!.push(span);
    }
    // A figure does not run over the end of a part, so its notes stand next to each other.
    const spots = starts.map((start) => notes.slice(symbols.noteOf[start]!, symbols.noteOf[start]! + length));
    figures.push({ length, spots, isBowedAlike: areBowedAlike(spots) });
  }
  return figures;
}

/** Whether every place of a figure lies in the places of one named before. */
function liesWithin(spansOver: readonly (readonly Span[])[], starts: readonly number[], length: number): boolean {
  const [first] = starts;
  for (const { figure, to } of spansOver[first!]!) {
    if (first! + length > to) continue;
    let isWithin = true;
    for (let k = 1; isWithin && k < starts.length; k++) {
      const start = starts[k]!;
      isWithin = false;
      for (const span of spansOver[start]!) if (span.figure === figure && start + length <= span.to) isWithin = true;
    }
    if (isWithin) return true;
  }
  return false;
}

interface Span {
  readonly figure: number;
  readonly to: number;
}

/** Share of the playing time that a figure's places take, repeats counted. Time O(n). */
export function playingShare({ spots }: TwinFigure, { notes }: Unrolled): number {
  const ids = new Set(spots.flatMap((place) => place.map(({ id }) => id)));
  let own = 0;
  let all = 0;
  for (const { note, duration } of notes) {
    all += toNumber(duration);
    if (ids.has(note.id)) own += toNumber(duration);
  }
  return all > 0 ? own / all : 0;
}

/** The tune with every place of a figure bowed like one of them. Locks stay; links of single passes there give way. */
export function bowAlike(tune: Tune, { spots }: TwinFigure, model: number): Tune {
  const links = spots.flatMap((place) => [...likeTwin(place, spots[model]!)]);
  return setLinks(tune, new Map(links));
}

/**
 * Places that would turn an odd number of times more or less than now if they were bowed like one of them: what follows
 * such a place flips, which is why a copy may not come round.
 */
export function flippingSpots({ spots }: TwinFigure, model: number): number[] {
  const turns = spots.map((place) => place.slice(1).filter(({ link }) => link === 'change').length);
  return turns.flatMap((count, i) => ((count - turns[model]!) % 2 === 0 ? [] : i));
}

/** The links by which one place is bowed like another: for each note but the first the other's link. */
function likeTwin(place: readonly NoteEvent[], model: readonly NoteEvent[]): Map<string, Link> {
  const links = new Map<string, Link>();
  for (const [i, note] of place.entries()) {
    const { link } = model[i]!;
    if (i > 0 && (note.link !== link || note.linkOnPass)) links.set(note.id, link);
  }
  return links;
}

/** Whether all places have the same links, the one into the first note left out, on all passes. */
export function areBowedAlike([model, ...others]: readonly (readonly NoteEvent[])[]): boolean {
  return others.every((place) =>
    place.every((note, i) => {
      const like = model![i]!;
      return i === 0 || (note.link === like.link && (note.linkOnPass === like.linkOnPass || sameOnPasses(note, like)));
    }),
  );
}

function sameOnPasses(one: NoteEvent, other: NoteEvent): boolean {
  const passes = Object.keys({ ...one.linkOnPass, ...other.linkOnPass }).map(Number);
  return passes.every((pass) => linkOnPass(one, pass) === linkOnPass(other, pass));
}

/** Places that do not overlap, the first ones kept. */
function apart(starts: readonly number[], length: number): number[] {
  const kept: number[] = [];
  for (const start of starts) if (start >= (kept[kept.length - 1] ?? -Infinity) + length) kept.push(start);
  return kept;
}

/** Notes as numbers, equal where the notes are; parts and endings are parted by numbers that come only once. */
function symbolsOf(tune: Tune): { readonly list: number[]; readonly noteOf: number[] } {
  const numbers = new Map<string, number>();
  const plainNumbers = new Map<number, number>();
  const list: number[] = [];
  const noteOf: number[] = [];
  let note = 0;
  let once = -1;
  const part = () => {
    list.push(once);
    noteOf.push(-1);
    once -= 1;
  };
  for (const bars of writtenBars(tune).values()) {
    let ending = '';
    for (const { event, events } of bars) {
      const own = event.ending ? String(event.onPlays) : '';
      if (own !== ending) part();
      ending = own;
      let rest = '';
      for (const item of events) {
        if (item.kind === 'rest') {
          rest += `z${formatFraction(item.duration)}`;
          continue;
        }
        if (!rest && !item.stops && !item.graceNotes && !item.tie) {
          // As a rule a note is a pitch and a length: told by a number, without a word.
          const { n, d } = item.duration;
          const sound = ((staffStep(item.pitch) * 8 + item.pitch.alter) * 2048 + n) * 2048 + d;
          let plain = plainNumbers.get(sound);
          if (plain === undefined) plainNumbers.set(sound, (plain = plainNumbers.size + numbers.size + 1));
          list.push(plain);
          noteOf.push(note);
          note += 1;
          continue;
        }
        const pitches = [item.pitch, ...(item.stops ?? []), ...(item.graceNotes ?? [])].map(pitchName).join('.');
        const words = `${rest}${pitches}/${item.graceNotes?.length ?? 0} ${formatFraction(item.duration)}${item.tie ? '-' : ''}`;
        const number = numbers.get(words) ?? plainNumbers.size + numbers.size + 1;
        numbers.set(words, number);
        list.push(number);
        noteOf.push(note);
        note += 1;
        rest = '';
      }
    }
    part();
  }
  return { list, noteOf };
}
