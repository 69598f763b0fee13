import { add, compare, equals, type Fraction, memoByIdentity, subtract, toNumber, ZERO } from '#core/base';
import { type Key, samePitch } from '#core/pitch';
import { barLength, type Meter } from './meter';
import type { BarEvent, NoteEvent, Part, RestEvent, Tune } from './tune';

/** A note as played: tied notes are one. */
export interface UnrolledNote {
  readonly index: number;
  readonly note: NoteEvent;
  /** Ids of the written notes tied into this one, its own first. */
  readonly ids: readonly string[];
  readonly part: string;
  /** Passes of a part are counted on through the whole form. */
  readonly pass: number;
  readonly passIndex: number;
  /** Counted from 1 within the pass, 0 = pickup. */
  readonly bar: number;
  readonly meter: Meter;
  /** Under which ending bracket it stands; null under none. */
  readonly ending: number | null;
  /** 1 + the onset in the bar in units of the meter's denominator. */
  readonly beat: number;
  /** In whole notes from the start of the tune, pickup included. */
  readonly onset: Fraction;
  readonly duration: Fraction;
  /** Silence between the end of the note before and this onset. */
  readonly restBefore: Fraction;
  /** The last of its written notes is tied to a note that does not follow here. */
  readonly tiesOn: boolean;
}

/** One time through a part. */
export interface Pass {
  readonly part: string;
  readonly pass: number;
  /** Which ending is played, null where the part has none. */
  readonly ending: number | null;
  readonly onset: Fraction;
  /** Where beat 1 of the first full bar lies. */
  readonly firstFullBarOnset: Fraction;
  readonly end: Fraction;
  readonly hasPickup: boolean;
  /** Numbered bars: the pickup is not counted. */
  readonly bars: number;
  /** Notes of the pass are `notes[firstNote]` up to, not including, `notes[endNote]`. */
  readonly firstNote: number;
  readonly endNote: number;
}

/** A bar as played. */
export interface PlayedBar {
  readonly id: string;
  readonly passIndex: number;
  /** Counted from 1 within the pass, 0 = pickup. */
  readonly bar: number;
  readonly isPickup: boolean;
  readonly meter: Meter;
  readonly onset: Fraction;
  readonly duration: Fraction;
}

export interface Unrolled {
  readonly notes: readonly UnrolledNote[];
  readonly passes: readonly Pass[];
  readonly bars: readonly PlayedBar[];
  readonly duration: Fraction;
}

/** A written bar with the meter and key in force. */
export interface Bar {
  readonly event: BarEvent;
  readonly events: readonly (NoteEvent | RestEvent)[];
  readonly meter: Meter;
  readonly key: Key;
  readonly duration: Fraction;
}

/** The bars of each part, with the meter and key that hold in them when the parts are read in written order. */
export const writtenBars: (tune: Tune) => ReadonlyMap<string, readonly Bar[]> = memoByIdentity(countBars);

function countBars(tune: Tune): Map<string, Bar[]> {
  let { meter, key } = tune;
  const bars = new Map<string, Bar[]>();
  for (const part of tune.parts) {
    const list: Bar[] = [];
    for (const { event, events } of splitBars(part)) {
      meter = event.meter ?? meter;
      key = event.key ?? key;
      const duration = events.reduce((sum, { duration }) => add(sum, duration), ZERO);
      list.push({ event, events, meter, key, duration });
    }
    bars.set(part.name, list);
  }
  return bars;
}

function splitBars(part: Part): { event: BarEvent; events: (NoteEvent | RestEvent)[] }[] {
  const bars: { event: BarEvent; events: (NoteEvent | RestEvent)[] }[] = [];
  for (const event of part.events) {
    if (event.kind === 'bar') bars.push({ event, events: [] });
    else bars[bars.length - 1]?.events.push(event);
  }
  return bars;
}

/** The highest play that a part's endings speak of; 1 without endings. Endings repeat in this cycle. */
function endingCycle(bars: readonly Bar[]): number {
  return Math.max(1, ...bars.flatMap(({ event }) => (event.ending ? (event.onPlays ?? []) : [])));
}

/** Bars that sound on one pass of a part, and the ending they take it through (null where it has none). */
export function barsOnPass(bars: readonly Bar[], pass: number): { played: Bar[]; ending: number | null } {
  const cycle = endingCycle(bars);
  const play = ((pass - 1) % cycle) + 1;
  const hasEndings = bars.some(({ event }) => event.ending);
  const played = bars.filter(({ event }) => {
    if (!event.onPlays) return true;
    return event.onPlays.includes(event.ending ? play : pass);
  });
  return { played, ending: hasEndings ? play : null };
}

/**
 * The tune as it is played: every part, pass and ending in the order of the form, ties merged.
 * A bar shorter than its meter that opens a pass of more than one bar is the pickup (bar 0).
 * A tie holds only where the next note played has the same pitch.
 * @throws RangeError if the form names a part that does not exist
 * Time and memory O(n) for n played events.
 */
export function unroll(tune: Tune): Unrolled {
  const bars = writtenBars(tune);
  const timesPlayed = new Map<string, number>();
  const notes: UnrolledNote[] = [];
  const passes: Pass[] = [];
  const playedBars: PlayedBar[] = [];
  let onset = ZERO;
  let soundEnd = ZERO;
  let tied = false;

  for (const [passIndex, name] of tune.form.entries()) {
    const partBars = bars.get(name);
    if (!partBars) throw new RangeError(`form: expected one of ${[...bars.keys()].join(' ')}, got ${name}`);
    const pass = (timesPlayed.get(name) ?? 0) + 1;
    timesPlayed.set(name, pass);
    const { played, ending } = barsOnPass(partBars, pass);
    const passOnset = onset;
    const firstNote = notes.length;
    const opensWithPickup = hasPickup(played);
    let number = opensWithPickup ? 0 : 1;
    let firstFullBarOnset = onset;

    for (const bar of played) {
      const barOnset = onset;
      if (number === 1) firstFullBarOnset = onset;
      playedBars.push({
        id: bar.event.id,
        passIndex,
        bar: number,
        isPickup: number === 0,
        meter: bar.meter,
        onset,
        duration: bar.duration,
      });
      for (const event of bar.events) {
        if (event.kind === 'note') {
          const before = notes[notes.length - 1];
          if (tied && before && samePitch(before.note.pitch, event.pitch)) {
            // The list of a note is its own until the tune is unrolled: a tie of thousands grows it, and copies none.
            (before.ids as string[]).push(event.id);
            notes[notes.length - 1] = {
              ...before,
              duration: add(before.duration, event.duration),
              tiesOn: event.tie === true,
            };
          } else {
            notes.push({
              index: notes.length,
              note: event,
              ids: [event.id],
              part: name,
              pass,
              passIndex,
              bar: number,
              meter: bar.meter,
              ending: bar.event.ending ? ending : null,
              beat: 1 + toNumber(subtract(onset, barOnset)) * bar.meter.den,
              onset,
              duration: event.duration,
              restBefore: equals(onset, soundEnd) ? ZERO : subtract(onset, soundEnd),
              tiesOn: event.tie === true,
            });
          }
          tied = event.tie === true;
          onset = add(onset, event.duration);
          soundEnd = onset;
        } else {
          tied = false;
          onset = add(onset, event.duration);
        }
      }
      number += 1;
    }
    passes.push({
      part: name,
      pass,
      ending,
      onset: passOnset,
      firstFullBarOnset,
      end: onset,
      hasPickup: opensWithPickup,
      bars: number - 1,
      firstNote,
      endNote: notes.length,
    });
  }
  return { notes, passes, bars: playedBars, duration: onset };
}

/** A part on one of its plays, with what sounds on it. */
export interface Play {
  readonly part: string;
  /** Counted from 1 through the whole form. */
  readonly pass: number;
  readonly played: readonly Bar[];
  readonly hasPickup: boolean;
}

/** The plays of the form in their order, bar by bar: what there is to know of them before notes are asked for. */
export function playsOf(tune: Tune): Play[] {
  const bars = writtenBars(tune);
  const times = new Map<string, number>();
  return tune.form.map((part) => {
    const pass = (times.get(part) ?? 0) + 1;
    times.set(part, pass);
    const { played } = barsOnPass(bars.get(part) ?? [], pass);
    return { part, pass, played, hasPickup: hasPickup(played) };
  });
}

/** Where each written note is played: indices of its played notes by id, in playing order. */
export const occurrencesOf: (unrolled: Unrolled) => ReadonlyMap<string, readonly number[]> = memoByIdentity(
  ({ notes }) => {
    const found = new Map<string, number[]>();
    for (const { index, note } of notes) {
      const indices = found.get(note.id);
      if (indices) indices.push(index);
      else found.set(note.id, [index]);
    }
    return found;
  },
);

/**
 * The first time that a stretch is played through, by the written notes it begins and ends with: indices of played notes; null:
 * the tune has no such stretch.
 */
export function playedStretch(
  unrolled: Unrolled,
  { from, to }: { readonly from: string; readonly to: string },
): { readonly first: number; readonly last: number } | null {
  const met = occurrencesOf(unrolled);
  const first = met.get(from)?.[0];
  const last = first === undefined ? undefined : met.get(to)?.find((index) => index >= first);
  return first === undefined || last === undefined ? null : { first, last };
}

/**
 * Numbers of a part's written bars by id, as counted on the first pass that plays each: from 1, 0 for a pickup, the
 * first bars of two endings alike. Bars that no pass plays have none.
 */
export function barNumbers(bars: readonly Bar[], passes: number): Map<string, number> {
  const numbers = new Map<string, number>();
  for (let pass = 1; pass <= Math.max(1, passes) && numbers.size < bars.length; pass++) {
    const { played } = barsOnPass(bars, pass);
    const from = hasPickup(played) ? 0 : 1;
    for (const [i, bar] of played.entries()) if (!numbers.has(bar.event.id)) numbers.set(bar.event.id, i + from);
  }
  return numbers;
}

/** A bar shorter than its meter that opens a pass of more than one bar is a pickup. */
function hasPickup([first, ...others]: readonly Bar[]): boolean {
  return first !== undefined && others.length > 0 && compare(first.duration, barLength(first.meter)) < 0;
}
