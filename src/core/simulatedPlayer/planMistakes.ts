import type { Seconds } from '#core/base';
import { hertzOf, midiOf } from '#core/pitch';
import type { TuneReport } from '#core/report';
import type { BowStroke, Contact, PitchMove } from '#core/sound';
import type { MistakeKind } from '#core/take';
import { PLACES } from '#core/tune';
import type { Lists, StepTime } from './lists';

/** A pressed stroke: so many times its weight. */
const SCRATCH_BITE = 6;
const BUMP: Seconds = 0.09;
const FINGER: Seconds = 0.003;
/** A vibrato that is narrow is quick as well. */
const NARROW_HERTZ = 8.5;
/** A wrong note, or one too many, is a tone or so away, and none of its neighbours. */
const OTHER_CENTS = [200, -200, 300, -300, 400] as const;
/** A finger that flicks comes down above the note. */
const ABOVE_CENTS = [200, 300, 400, 100] as const;
const NEAR = 1e-6;
/** Ends that were planned together. */
const SAME_END: Seconds = 0.02;

/** A note whose sound is changed: where it lies in the take, and all that is played there. */
interface Spot {
  readonly report: TuneReport;
  readonly all: Lists;
  readonly time: StepTime;
  /** Its string. */
  readonly place: number;
}

type Make = (spot: Spot, size: number) => void;

/** Mistakes that change how a note sounds; sizes in the unit of their thresholds. Those of order and time are made before. */
const MAKE: Partial<Record<MistakeKind, Make>> = {
  sharp: (spot, size) => retune(spot, size),
  flat: (spot, size) => retune(spot, -size),
  'wrong-note': (spot) => retune(spot, otherCents(spot)),
  'added-note': (spot, size) => {
    const hertz = hertzIn(spot) * 2 ** (otherCents(spot) / 1200);
    addMoves(spot, { at: spot.time.to - size / 1000, hertz, glide: FINGER });
  },
  'late-finger': ({ all, time, place }, size) => {
    all.pitches[place] = all.pitches[place]!.map((one) =>
      isIn(time, one.at) ? { ...one, at: one.at + size / 1000 } : one,
    );
  },
  'bumped-drone': (spot) => {
    const list = spot.all.touches[secondPlace(spot)];
    const middle = (spot.time.from + spot.time.to) / 2;
    list?.push({ kind: 'flick', from: middle, to: middle + BUMP });
    list?.sort((a, b) => a.from - b.from);
  },
  'dropped-second': (spot, size) => dropSecond(spot, size),
  'skipped-string-sounds': (spot, size) => touchSkipped(spot, size),
  scratch: ({ all, time }, size) =>
    restroke(all, (stroke) =>
      Math.abs(stroke.from - time.from) < NEAR ? { ...stroke, bite: SCRATCH_BITE, biteSeconds: size / 1000 } : stroke,
    ),
  'flick-became-note': (spot, size) => {
    const { all, time, place } = spot;
    const hertz = hertzIn(spot);
    all.touches[place] = all.touches[place]!.filter(({ kind, from }) => kind !== 'flick' || !isIn(time, from));
    all.pitches[place] = all.pitches[place]!.filter(({ at }) => !isIn(time, at));
    const finger = hertz * 2 ** (otherCents(spot, ABOVE_CENTS) / 1200);
    addMoves(
      spot,
      { at: time.from, hertz: finger, glide: FINGER },
      { at: time.from + size / 1000, hertz, glide: FINGER },
    );
  },
  'uneven-triplet': ({ all, time }, size) => {
    const [first, second, third] = all.strokes.filter(({ from }) => isIn(time, from));
    if (!first || !second || !third) return;
    const later = ((second.from - first.from) * size) / 200;
    restroke(all, (stroke) =>
      stroke === first
        ? { ...stroke, to: stroke.to + later }
        : stroke === second
          ? { ...stroke, from: stroke.from + later }
          : stroke,
    );
  },
  'pulse-stayed': ({ all, time }, size) => {
    all.swells = all.swells.map((swell) =>
      Math.abs(swell.from - time.from) < NEAR ? { ...swell, decibels: size, returns: false } : swell,
    );
  },
  'staccato-runs-together': (spot, size) => runTogether(spot, size),
  'narrow-vibrato': ({ all, time, place }, size) => {
    all.vibrato[place] = all.vibrato[place]!.flatMap((wave) =>
      !isIn(time, wave.from) ? [wave] : size > 0 ? [{ ...wave, cents: size, rate: NARROW_HERTZ }] : [],
    );
  },
  'cloudy-low-string': ({ all, time: { from, to }, place }, size) => {
    all.contacts[place] = all.contacts[place]!.flatMap((contact) => {
      if (contact.role !== 'melody' || !overlaps(contact, from, to)) return [contact];
      const parts = [
        { ...contact, to: from },
        { ...contact, from: Math.max(contact.from, from), to: Math.min(contact.to, to), cloud: size },
        { ...contact, from: to },
      ];
      return parts.filter((part) => part.to > part.from + NEAR);
    });
  },
};

/** Makes a mistake at a note, where it is one of how it sounds. */
export function makeInPlan(kind: MistakeKind, spot: Spot, size: number): void {
  MAKE[kind]?.(spot, size);
}

/** The string of a played note; what no string reaches sounds on the highest. */
export function placeOf({ fingers, unrolled }: TuneReport, index: number): number {
  const fingering = fingers.get(unrolled.notes[index]!.note.id);
  return fingering?.reachable ? PLACES.indexOf(fingering.place) : 3;
}

const isIn = ({ from, to }: StepTime, time: Seconds) => time >= from - NEAR && time < to - NEAR;
const overlaps = (contact: Contact, from: Seconds, to: Seconds) => contact.to > from + NEAR && contact.from < to - NEAR;

function retune({ all, time, place }: Spot, cents: number): void {
  all.pitches[place] = all.pitches[place]!.map((move) =>
    isIn(time, move.at) ? { ...move, hertz: move.hertz * 2 ** (cents / 1200) } : move,
  );
}

function addMoves({ all, place }: Spot, ...moves: PitchMove[]): void {
  all.pitches[place] = [...all.pitches[place]!, ...moves].sort((a, b) => a.at - b.at);
}

function restroke(all: Lists, change: (stroke: BowStroke) => BowStroke): void {
  all.strokes = all.strokes.map(change);
}

function hertzIn({ all, time, place }: Spot): number {
  return all.pitches[place]!.findLast(({ at }) => isIn(time, at))?.hertz ?? 440;
}

function secondPlace({ report, time, place }: Spot): number {
  const { drone } = report.unrolled.notes[time.step.index]!.note;
  return drone ? place + (drone === 'upper' ? 1 : -1) : -1;
}

/** Cents to a pitch near a note's that none of the notes beside it has. */
function otherCents({ report, time }: Spot, choices: readonly number[] = OTHER_CENTS): number {
  const { notes } = report.unrolled;
  const { index } = time.step;
  const own = midiOf(notes[index]!.note.pitch);
  const beside = [notes[index - 1], notes[index + 1]].flatMap((note) => (note ? [midiOf(note.note.pitch) - own] : []));
  const rest = choices.filter((cents) => !beside.includes(cents / 100));
  return rest[index % 2 === 0 ? 0 : 1]!;
}

/** The string that sounds along is left after a share of the note. */
function dropSecond(spot: Spot, percent: number): void {
  const { all, time } = spot;
  const string = secondPlace(spot);
  const until = time.from + (time.to - time.from) * (1 - percent / 100);
  all.contacts[string] &&= all.contacts[string].flatMap((contact) => {
    if (contact.role !== 'second' || !overlaps(contact, time.from, time.to)) return [contact];
    const parts = [
      { ...contact, to: until },
      { ...contact, from: time.to },
    ];
    return parts.filter((part) => part.to > part.from + NEAR);
  });
}

/** The string between the one before and this one speaks as the bow passes over it. */
function touchSkipped({ report, all, time, place }: Spot, ms: number): void {
  const { index } = time.step;
  const between = Math.round((placeOf(report, index - 1) + place) / 2);
  if ((report.figures.arm.crossings[index]?.skips ?? 0) === 0 || between === place) return;
  all.pitches[between]!.push({ at: time.from, hertz: hertzOf(midiOf(report.tune.tuning[between]!)), glide: 0 });
  all.pitches[between]!.sort((a, b) => a.at - b.at);
  all.contacts[between]!.push({ from: time.from, to: time.from + ms / 1000, role: 'second' });
  all.contacts[between]!.sort((a, b) => a.from - b.from);
}

/** The gap after a staccato note is so much shorter. */
function runTogether({ all, time: { from, to }, place }: Spot, percent: number): void {
  const own = all.contacts[place]!.find((contact) => contact.from <= from + NEAR && contact.to > from + NEAR);
  const stopped = own?.to ?? to;
  const longer = ((to - stopped) * percent) / 100;
  const isIts = (time: Seconds) => Math.abs(time - stopped) < SAME_END;
  restroke(all, (stroke) => ({
    ...stroke,
    to: isIts(stroke.to) ? stroke.to + longer : stroke.to,
    stops: stroke.stops.map((stop) =>
      isIts(stop.from) ? { ...stop, from: Math.min(stop.to, stop.from + longer) } : stop,
    ),
  }));
  all.contacts[place] = all.contacts[place]!.map((contact) =>
    isIts(contact.to) ? { ...contact, to: contact.to + longer } : contact,
  );
}
