import { formatFraction } from '#core/base';
import type { Fingering } from '#core/fingering';
import { midiOf } from '#core/pitch';
import { type NoteEvent, type Place, PLACES, type Tune, writtenBars } from '#core/tune';
import { maximalRepeats } from './suffixes';
import { areBowedAlike, MIN_FIGURE } from './twins';

/** The same hand in the same rhythm on different strings. */
export interface HandTwin {
  readonly length: number;
  readonly spots: readonly HandSpot[];
  readonly isBowedAlike: boolean;
}

export interface HandSpot {
  readonly notes: readonly NoteEvent[];
  /** The string of its first note. */
  readonly string: Place;
  /** Semitones above the first place, where every note is; null where the strings' intervals make another tune of it. */
  readonly semitones: number | null;
}

/**
 * Hand twins of a tune: maximal stretches of four or more notes that come again with the same semitones above the open
 * strings and the same moves between strings, but begun on another string. Figures do not run over the end of a part or
 * into another ending; double stops are left out.
 *
 * Notes and the moves between them stand in turn in one list, so that a stretch that begins with a note says nothing of
 * the string on which it begins.
 * Time O(n log² n) for n written notes, and the sum of the places found.
 */
export function handTwins(tune: Tune, fingers: ReadonlyMap<string, Fingering>): HandTwin[] {
  const { symbols, notes } = handSymbols(tune, fingers);
  const found: HandTwin[] = [];
  const told = new Set<string>();
  const least = 2 * MIN_FIGURE - 1;
  for (const { length, starts } of maximalRepeats(symbols, least)) {
    // Begin and end with a note.
    const skip = notes[starts[0]!] === null ? 1 : 0;
    const symbolsLong = length - skip - ((length - skip + 1) % 2);
    if (symbolsLong < least) continue;
    const count = (symbolsLong + 1) / 2;
    const all = starts.map((start) => Array.from({ length: count }, (_, k) => notes[start + skip + 2 * k]!));
    const strings = new Map<Place, NoteEvent[]>();
    for (const place of all) {
      const string = fingers.get(place[0]!.id)!.place;
      if (!strings.has(string)) strings.set(string, place);
    }
    if (strings.size < 2) continue;
    const key = [...strings.values()].map(([first]) => first!.id).join(' ');
    if (told.has(key)) continue;
    told.add(key);
    const [[, model]] = [...strings] as [[Place, NoteEvent[]]];
    const spots = [...strings].map(([string, place]): HandSpot => {
      const moves = new Set(place.map((note, i) => midiOf(note.pitch) - midiOf(model[i]!.pitch)));
      return { notes: place, string, semitones: moves.size === 1 ? [...moves][0]! : null };
    });
    found.push({ length: count, spots, isBowedAlike: areBowedAlike(spots.map(({ notes: place }) => place)) });
  }
  return withoutParts(found);
}

/** Twins of which every place lies in the places of a longer one are left out; the longest first. */
function withoutParts(twins: readonly HandTwin[]): HandTwin[] {
  const sorted = [...twins].sort((a, b) => b.length - a.length);
  const kept: HandTwin[] = [];
  for (const twin of sorted) {
    const isPart = kept.some(({ spots }) => {
      const ids = new Set(spots.flatMap(({ notes }) => notes.map(({ id }) => id)));
      return twin.spots.every(({ notes }) => notes.every(({ id }) => ids.has(id)));
    });
    if (!isPart) kept.push(twin);
  }
  return kept;
}

/** Notes as numbers, equal where rhythm and semitones above the open string are, and between them numbers for the moves. */
function handSymbols(
  tune: Tune,
  fingers: ReadonlyMap<string, Fingering>,
): { readonly symbols: number[]; readonly notes: (NoteEvent | null)[] } {
  const numbers = new Map<string, number>();
  const symbols: number[] = [];
  const notes: (NoteEvent | null)[] = [];
  let once = -1;
  for (const { words, note } of handSteps(tune, fingers)) {
    notes.push(note);
    if (words === null) {
      symbols.push(once--);
      continue;
    }
    const number = numbers.get(words) ?? numbers.size + 1;
    numbers.set(words, number);
    symbols.push(number);
  }
  return { symbols, notes };
}

/** A note of the hand, or the move to the next one (`note` null); without words: here nothing runs on. */
export interface HandStep {
  readonly words: string | null;
  readonly note: NoteEvent | null;
}

/**
 * The written notes by their semitones above the open string and their length, and between them the moves from string to
 * string with the rests. Nothing runs over the end of a part, into another ending, or over a double stop.
 */
export function handSteps(tune: Tune, fingers: ReadonlyMap<string, Fingering>): HandStep[] {
  const steps: HandStep[] = [];
  const put = (words: string | null, note: NoteEvent | null) => steps.push({ words, note });
  for (const bars of writtenBars(tune).values()) {
    let ending = '';
    let before: number | null = null;
    let rest = '';
    const cut = () => {
      put(null, null);
      before = null;
    };
    for (const { event, events } of bars) {
      const own = event.ending ? String(event.onPlays) : '';
      if (own !== ending) cut();
      ending = own;
      for (const item of events) {
        if (item.kind === 'rest') {
          rest += `z${formatFraction(item.duration)}`;
          continue;
        }
        const fingering = fingers.get(item.id);
        if (!fingering?.reachable || item.stops) {
          cut();
          rest = '';
          continue;
        }
        const string = PLACES.indexOf(fingering.place);
        if (before !== null) put(`move ${string - before} ${rest}`, null);
        const above = midiOf(item.pitch) - midiOf(tune.tuning[string]!);
        put(`${above} ${formatFraction(item.duration)}${item.tie ? '-' : ''}`, item);
        before = string;
        rest = '';
      }
    }
    cut();
  }
  return steps;
}
