import { compare, divide, type Fraction, fraction, multiply, toNumber } from '#core/base';
import { calledNote, letteredPitch } from '#core/entry';
import { fingerNote } from '#core/fingering';
import { type Key, type Letter, type Pitch, staffStep } from '#core/pitch';
import { type NoteEvent, type Place, type RestEvent, type Tune, writtenBars } from '#core/tune';

/**
 * The keys with which a tune is entered from nothing, as a player would press them: by calls or by letters.
 * Strokes of one to three notes, tuplets of those the strip knows, grace notes and chords; no ties of its own.
 */
export function keysFor(tune: Tune, way: 'calls' | 'letters'): string[] {
  const keys: string[] = way === 'letters' ? ['w'] : [];
  let unit = fraction(1, 8);
  let gesture = 'o';
  let before: Pitch | null = null;
  let beforePlace: Place | null = null;

  const setUnit = (wanted: Fraction) => {
    const doublings = Math.round(Math.log2(toNumber(divide(wanted, unit))));
    for (let k = 0; k < Math.abs(doublings); k++) keys.push(doublings > 0 ? 'l' : 'k');
    unit = wanted;
  };
  const pressPitch = (pitch: Pitch, key: Key, note: NoteEvent | null, isMain = false) => {
    if (way === 'calls') {
      const { place, finger } = fingerNote(note ?? bare(pitch), tune.tuning);
      const plain = calledNote({ place, finger: finger!, shift: 0 }, tune.tuning, key, null).pitch;
      if (place !== beforePlace || note === null) keys.push(place.toLowerCase(), ':');
      keys.push(String(finger));
      return pitch.alter - plain.alter;
    }
    const plain = letteredPitch({ letter: pitch.letter as Letter, alter: null, octaves: 0 }, key, before, tune.tuning);
    const octaves = (staffStep(pitch) - staffStep(plain)) / 7;
    const moves = Array.from({ length: Math.abs(octaves) }, () => (octaves > 0 ? "'" : ','));
    // A note is moved once it stands; grace notes and stops before they do.
    keys.push(...(isMain ? [] : moves), pitch.letter.toLowerCase(), ...(isMain ? moves : []));
    return pitch.alter - plain.alter;
  };
  const lean = (semitones: number) => {
    for (let k = 0; k < Math.abs(semitones); k++) keys.push(semitones > 0 ? '+' : '-');
  };

  const pressEvent = (event: NoteEvent | RestEvent, key: Key, notes: readonly (NoteEvent | RestEvent)[]) => {
    if (event.tuplet?.first)
      keys.push(...Array.from({ length: [3, 2, 4, 5].indexOf(event.tuplet.notes) + 1 }, () => 'u'));
    const { base, dotted } = written(event);
    setUnit(base);
    if (dotted) keys.push('.');
    if (event.kind === 'rest') {
      keys.push('r');
      return;
    }
    if (event.link !== 'slur' && event.link !== 'hook') {
      const wanted = 'opt'[strokeNotes(notes, event) - 1]!;
      if (wanted !== gesture || wanted !== 'o') keys.push(wanted);
      gesture = wanted;
    }
    for (const grace of event.graceNotes ?? []) {
      keys.push('n');
      if (pressPitch(grace, key, null) !== 0) throw new Error('a grace note off the key is not entered by keys');
    }
    lean(pressPitch(event.pitch, key, event, true));
    for (const stop of event.stops ?? []) {
      keys.push('&');
      before = event.pitch;
      if (pressPitch(stop, key, null) !== 0) throw new Error('a stop off the key is not entered by keys');
    }
    before = event.pitch;
    // The string must be said again each time: what a hand would infer is left to other tests.
    beforePlace = null;
  };
  const playsOf = (bar: WrittenBar | undefined) => (bar?.event.ending ? bar.event.onPlays!.at(-1)! : 0);
  const pressBarLine = (bar: WrittenBar, previous: WrittenBar | undefined) => {
    const isCut =
      previous &&
      compare(previous.duration, multiply(fraction(previous.meter.num), fraction(1, previous.meter.den))) < 0;
    const [plays, inherited] = [playsOf(bar), playsOf(previous)];
    if (isCut || plays !== inherited) keys.push('|');
    for (let k = inherited; k < plays; k++) keys.push('[');
  };

  for (const [p, [, bars]] of [...writtenBars(tune)].entries()) {
    if (p > 0) keys.push('x');
    const notes = bars.flatMap(({ events }) => events);
    for (const [b, bar] of bars.entries()) {
      pressBarLine(bar, bars[b - 1]);
      for (const event of bar.events) pressEvent(event, bar.key, notes);
    }
  }
  return keys;
}

type WrittenBar = NonNullable<ReturnType<ReturnType<typeof writtenBars>['get']>>[number];

function bare(pitch: Pitch): NoteEvent {
  return { kind: 'note', id: '', pitch, duration: fraction(1, 8), link: 'change' };
}

/** The plain value of an event, its dot and tuplet aside. */
function written(event: NoteEvent | RestEvent): { base: Fraction; dotted: boolean } {
  const { tuplet, duration } = event;
  const full = tuplet ? multiply(duration, fraction(tuplet.notes, tuplet.inTimeOf)) : duration;
  const dotted = full.n % 3 === 0;
  return { base: dotted ? multiply(full, fraction(2, 3)) : full, dotted };
}

function strokeNotes(events: readonly (NoteEvent | RestEvent)[], first: NoteEvent): number {
  const notes = events.filter((event) => event.kind === 'note');
  const from = notes.findIndex((note) => note.id === first.id);
  let to = from + 1;
  while (notes[to] && (notes[to]!.link === 'slur' || notes[to]!.link === 'hook')) to += 1;
  return to - from;
}

/** Where a note of a tune could be told apart: for comparing two tunes entered in different ways. */
export function soundOf(tune: Tune) {
  return [...writtenBars(tune)].map(([name, bars]) => [
    name,
    bars.map(({ event, events }) => ({
      plays: event.onPlays ?? null,
      events: events.map((note) =>
        note.kind === 'rest'
          ? `rest ${note.duration.n}/${note.duration.d}`
          : [note.duration, note.pitch, note.stops ?? [], note.graceNotes ?? [], note.link, note.tuplet ?? null],
      ),
    })),
  ]);
}
