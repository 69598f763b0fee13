import { beatsUnderNotes, type NoteBeat } from '#core/performance';
import { type Figures, minHair, type TuneReport } from '#core/report';
import { sharedTravel } from '#core/travel';
import { type Direction, type Link, type Meter, type NoteEvent, type NoteMark, type Place, PLACES } from '#core/tune';
import type { Fingering } from '../fingering';

/** What the lanes and signs show of a written note, on the pass in view. */
export interface NoteState {
  readonly id: string;
  /** Index of the played note. */
  readonly index: number;
  readonly passIndex: number;
  /** Where in the bar it begins, as `UnrolledNote` counts it. */
  readonly beat: number;
  readonly meter: Meter;
  readonly ending: number | null;
  /** Tied into the note before: shown, but part of it. */
  readonly continues: boolean;
  readonly link: Link;
  readonly bow: Direction;
  readonly inStroke: number;
  readonly strokeNotes: number;
  /** The next played note is slurred to this one. */
  readonly joinsNext: boolean;
  readonly place: Place;
  readonly finger: number | null;
  /** Fingers of the other notes that sound with it, the lowest string first: `0` for an open drone. */
  readonly beside: string;
  readonly reachable: boolean;
  /** Where the hand is, 0.5 for half position; null out of reach. */
  readonly position: number | null;
  /** The hand comes here from another position. */
  readonly shifts: boolean;
  readonly marks: readonly NoteMark[];
  /** Where on the hair it begins and ends when the hair is shared out. */
  readonly bowStartCm: number;
  readonly bowEndCm: number;
  /** The note with which its stroke begins, and the place on the hair where that does. */
  readonly strokeHead: string;
  readonly strokeFromCm: number;
  /** Length that the stroke would have by itself, and what the player wishes it to be against that. */
  readonly ownCm: number;
  readonly wish: number;
  readonly pulses: boolean;
  /** The open string that sounds along. */
  readonly drone: Place | null;
  /** At even speed the hair would have ended. */
  readonly outOfHair: boolean;
  readonly angle: number | null;
  readonly isPair: boolean;
  /** Strings swept over on the way to this note, and whether inside a slur. */
  readonly skips: number;
  readonly crossesInSlur: boolean;
  readonly headroom: number | null;
  /** Beats and offbeats of the dance while it lasts, each with its share of the way to the next note. */
  readonly beats: readonly NoteBeat[];
  readonly lock: Direction | null;
  readonly lockBroken: boolean;
  /** Met in another direction on another pass. */
  readonly differs: boolean;
  /** Rest between this note's end and the next note's onset. */
  readonly restAfter: boolean;
}

const NO_MARKS: readonly NoteMark[] = [];

/** Steps in which places on the hair are shown: what changes by less, far from an edit, is left alone. */
const SHOWN_STEPS_A_CM = 10;

function shown(cm: number): number {
  return Math.round(cm * SHOWN_STEPS_A_CM) / SHOWN_STEPS_A_CM;
}

/** Pass in view by part; parts left out show their first. */
export type PassesInView = Readonly<Record<string, number>>;

/**
 * States of all written notes: each as played on its part's pass in view or, where that pass leaves it out, on the
 * first pass that plays it. Notes never played are left out.
 */
export function noteStates(report: TuneReport, inView: PassesInView): Map<string, NoteState> {
  const { unrolled, figures, fingers, settings } = report;
  const { bowed, arm, check, ledger } = figures;
  const shared = sharedTravel(bowed, report.timing.durations, report.sharedStrokes(), figures.reach);
  const beats = beatsUnderNotes(report);
  const differing = new Set(ledger.differs.map(({ id }) => id));
  const strokeNotes = new Map<number, number>();
  for (const { stroke } of bowed) strokeNotes.set(stroke, (strokeNotes.get(stroke) ?? 0) + 1);
  const strokes = strokeFacts(report, shared);
  const states = new Map<string, NoteState>();
  const { hairCm } = settings.instrument;
  const runsOut = report.sharedStrokes().map((stroke) => minHair(stroke, settings) > hairCm);
  for (const played of unrolled.notes) {
    const { index, note, part, pass } = played;
    const wanted = (inView[part] ?? 1) === pass;
    if (states.has(note.id) && !wanted) continue;
    const { link, bow, stroke, inStroke } = bowed[index]!;
    const fingering = fingers.get(note.id)!;
    const crossing = arm.crossings[index];
    const plane = arm.planes[index];
    const own = strokes[stroke - 1]!;
    const state: NoteState = {
      id: note.id,
      index,
      passIndex: played.passIndex,
      beat: played.beat,
      meter: played.meter,
      ending: played.ending,
      continues: false,
      link,
      bow,
      inStroke,
      strokeNotes: strokeNotes.get(stroke)!,
      joinsNext: joinsNext(figures, index),
      place: fingering.place,
      finger: fingering.finger,
      beside: besideFingers(note, fingering),
      reachable: fingering.reachable,
      position: fingering.position,
      shifts: shiftsTo(figures, index, fingering.position),
      marks: note.marks ?? NO_MARKS,
      bowStartCm: shown(shared[index]!.bowStartCm),
      bowEndCm: shown(shared[index]!.bowEndCm),
      strokeHead: own.strokeHead,
      strokeFromCm: own.strokeFromCm,
      ownCm: own.ownCm,
      wish: own.wish,
      pulses: note.marks?.includes('pulse') ?? false,
      drone: dronePlace(note, fingering.place),
      outOfHair: runsOut[stroke - 1]!,
      angle: arm.angles[index] ?? null,
      isPair: plane?.length === 2,
      skips: crossing?.skips ?? 0,
      crossesInSlur: crossing?.inSlur ?? false,
      headroom: check.headroom[index] ?? null,
      beats: beats[index]!.map(shownBeat),
      lock: note.lock ?? null,
      lockBroken: note.lock !== undefined && note.lock !== bow,
      differs: differing.has(note.id),
      restAfter: restAfter(report, index),
    };
    for (const [k, id] of played.ids.entries()) states.set(id, k === 0 ? state : { ...state, id, continues: true });
  }
  return states;
}

/** The next note is slurred to this one. */
function joinsNext({ bowed }: Figures, index: number): boolean {
  const following = bowed[index + 1];
  return following?.link === 'slur' && following.stroke === bowed[index]!.stroke;
}

/** The hand comes to the note from another position, or begins the tune in one. */
function shiftsTo({ moves }: Figures, index: number, position: number | null): boolean {
  return moves[index]?.shift != null || (index === 0 && (position ?? 1) !== 1);
}

function restAfter({ unrolled }: TuneReport, index: number): boolean {
  return (unrolled.notes[index + 1]?.restBefore.n ?? 0) > 0;
}

/** Shares in steps of a thousandth: what changes by less, far from an edit, is left alone. */
const shownBeat = ({ isBeat, share }: NoteBeat): NoteBeat => ({ isBeat, share: Math.round(1000 * share) / 1000 });

/** Whether a note is shown alike; the number of the played note is left out of account. */
export function sameShown(a: NoteState, b: NoteState): boolean {
  if (a === b) return true;
  for (const name in a) {
    if (name === 'index' || name === 'beats') continue;
    if (a[name as keyof NoteState] !== b[name as keyof NoteState]) return false;
  }
  return sameBeats(a.beats, b.beats);
}

function sameBeats(a: readonly NoteBeat[], b: readonly NoteBeat[]): boolean {
  return a.length === b.length && a.every(({ isBeat, share }, i) => b[i]!.isBeat === isBeat && b[i]!.share === share);
}

type StrokeFacts = Pick<NoteState, 'strokeHead' | 'strokeFromCm' | 'ownCm' | 'wish'>;

/** What is told of each stroke as a whole. */
function strokeFacts(
  { unrolled, figures: { bowed, travel } }: TuneReport,
  shared: readonly { readonly bowStartCm: number }[],
): StrokeFacts[] {
  const strokes: { -readonly [K in keyof StrokeFacts]: StrokeFacts[K] }[] = [];
  for (const [i, { inStroke }] of bowed.entries()) {
    const { note } = unrolled.notes[i]!;
    const { bowStartCm, bowEndCm } = travel[i]!;
    if (inStroke === 1)
      strokes.push({
        strokeHead: note.id,
        strokeFromCm: shown(shared[i]!.bowStartCm),
        ownCm: 0,
        wish: note.bowLength ?? 1,
      });
    const stroke = strokes[strokes.length - 1]!;
    stroke.ownCm += Math.abs(bowEndCm - bowStartCm) / stroke.wish;
  }
  for (const stroke of strokes) stroke.ownCm = shown(stroke.ownCm);
  return strokes;
}

function besideFingers({ drone }: NoteEvent, { stops }: Fingering): string {
  const stopped = stops.flatMap((stop) => (stop?.finger == null ? [] : [String(stop.finger)]));
  return [...stopped, ...(drone ? ['0'] : [])].join(' ');
}

function dronePlace({ drone }: NoteEvent, place: Place): Place | null {
  return (drone && PLACES[PLACES.indexOf(place) + (drone === 'upper' ? 1 : -1)]) ?? null;
}
