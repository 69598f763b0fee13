import type { Millimetres, Seconds } from '#core/base';
import type { Instrument } from '#core/instrument';
import { alterInKey, isConsonant, type Key, midiOf, type Pitch, pitchAtStep, samePitch, staffStep } from '#core/pitch';
import type { Schools } from '#core/schools';
import { type Place, PLACES, type Tune, type UnrolledNote } from '#core/tune';
import { type FingerScene, mayLieFrom, setTogether, staysThrough } from './fingerLines';
import type { Fingering, Stop } from './firstPosition';
import { HAND_COSTS } from './handCosts';
import { handGround } from './handGround';
import { handMoves, type Hop, type Shift, stopsOf } from './handMoves';
import { nutDistance } from './nut';
import type { Position } from './positions';

/** What the left hand does for one played note. */
export interface HandNote {
  /** From when on the note's finger is free for it, in seconds before its onset; null for an open string. */
  readonly preparation: Seconds | null;
  /** Index of the first note at whose beginning the finger may already lie; null for an open string. */
  readonly mayLieFrom: number | null;
  /** Fingers that are set together here, the highest first, since a run falls on this string; null where none does. */
  readonly sets: readonly number[] | null;
  /** Index of the last note through which the finger may stay down, as advice; null where it lifts at once. */
  readonly staysThrough: number | null;
  /** Held, the note can sound on as a drone under or over the next notes, through this one; null where none of them agrees. */
  readonly dronesThrough: number | null;
  /** To which side the finger may lean: a neighbour that does not sound may be touched. null for an open string. */
  readonly lean: 'either' | 'lower' | 'upper' | 'none' | null;
  readonly hop: (Hop & { readonly options: readonly HopOption[] }) | null;
  readonly shift: (Shift & ShiftGuide) | null;
  /** One finger stops two strings at once. */
  readonly isBarre: boolean;
  /** Widest span between this note's stopped strings, and from that of the note before under the same hand. */
  readonly spanMm: Millimetres | null;
}

export interface HopOption {
  readonly by: 'barre' | 'hop' | 'other-finger' | 'prepare';
  /** Millimetres of the objective. */
  readonly cost: number;
}

export interface ShiftGuide {
  /** Where the leading finger arrives: heard in passing, or only thought; null where it goes to the note itself. */
  readonly guide: Pitch | null;
  /** In a slur it is heard; at a turn or over a rest it is clean. */
  readonly isAudible: boolean;
  /** Index of the first later note with the hand where it came from; null where it does not come back. */
  readonly wayBack: number | null;
}

/** Times of the played notes. */
interface Times {
  readonly onsets: readonly Seconds[];
  readonly durations: readonly Seconds[];
}

export interface HandPlanOptions {
  readonly timing: Times;
  readonly instrument: Pick<Instrument, 'stringLengthMm'>;
  readonly schools: Pick<Schools, 'guide' | 'fingers'>;
}

/**
 * What the left hand does, note by note as played.
 *
 * Preparation: the time from the end of the finger's last use to the note. A finger may stay down while later notes of
 * the same position lie above it on its string, or on other strings while it is not needed and its string is not wanted
 * open. It may lean to a neighbour that does not sound.
 * Time O(n·k), k the longest time a finger stays.
 */
export function handPlan(
  tune: Tune,
  notes: readonly UnrolledNote[],
  fingers: ReadonlyMap<string, Fingering>,
  { timing: { onsets, durations }, instrument, schools: { guide: led, fingers: hold } }: HandPlanOptions,
): HandNote[] {
  const { stringLengthMm } = instrument;
  const moves = handMoves(notes, fingers, { stringLengthMm });
  const lastUse: number[] = [-1, -1, -1, -1, -1];
  const of = (i: number) => fingers.get(notes[i]!.note.id)!;
  const scene: FingerScene = { notes, of, ground: handGround(tune, instrument), hold };
  return notes.map(({ note }, i): HandNote => {
    const fingering = of(i);
    const stops = stopsOf(fingering);
    const [top] = stops;
    const stopped = stops.filter(({ finger }) => finger > 0);
    const freeFrom = Math.max(-1, ...stopped.map(({ finger }) => lastUse[finger]!));
    for (const { finger } of stopped) lastUse[finger] = i;
    const move = moves[i] ?? null;
    const held = top && top.finger > 0 ? top : null;
    const last = held && staysThrough(scene, i, held);
    return {
      preparation:
        stopped.length === 0 ? null : onsets[i]! - (freeFrom < 0 ? 0 : onsets[freeFrom]! + durations[freeFrom]!),
      mayLieFrom: held && mayLieFrom(scene, i, held),
      sets: setTogether(scene, i),
      staysThrough: last,
      dronesThrough: held && last !== null ? lastDroned(of, notes, i, last, held) : null,
      lean: top && top.finger > 0 ? leanOf(top, stops, note.drone) : null,
      hop: move?.hop ? { ...move.hop, options: hopOptions(move.hop, notes[i]!.restBefore.n > 0) } : null,
      shift: move?.shift ? { ...move.shift, ...guideOf(tune, move.shift, scene, i, led) } : null,
      isBarre: stopped.length > new Set(stopped.map(({ finger }) => finger)).size,
      spanMm: spanOf(
        i > 0 && of(i - 1).position === fingering.position ? [...stopped, ...stoppedOf(of(i - 1), stopped)] : stopped,
        stringLengthMm,
      ),
    };
  });
}

/** Two notes in a row are the least that a finger is held as a drone for. */
const MIN_DRONED = 2;

/** The last of the notes that follow on one neighbour string, alone there, and agree with the held one. */
function lastDroned(
  of: (i: number) => Fingering,
  notes: readonly UnrolledNote[],
  from: number,
  through: number,
  held: Stop,
): number | null {
  const pitch = midiOf(notes[from]!.note.pitch);
  const string = PLACES.indexOf(held.place);
  let side = 0;
  let last = from;
  for (let j = from + 1; j <= through; j++) {
    const next = of(j);
    const apart = PLACES.indexOf(next.place) - string;
    const agrees = isConsonant(midiOf(notes[j]!.note.pitch) - pitch);
    if (Math.abs(apart) !== 1 || (side !== 0 && apart !== side) || next.stops.length > 0 || !agrees) break;
    side = apart;
    last = j;
  }
  return last - from >= MIN_DRONED ? last : null;
}

/** A finger touches a string next to its own without harm where that string does not sound. */
function leanOf(held: Stop, stops: readonly Stop[], drone: 'lower' | 'upper' | undefined): HandNote['lean'] {
  const at = PLACES.indexOf(held.place);
  const sounds = (side: -1 | 1) =>
    stops.some(({ place }) => place === PLACES[at + side]) || drone === (side === 1 ? 'upper' : 'lower');
  const lower = !sounds(-1);
  const upper = !sounds(1);
  if (lower && upper) return 'either';
  if (lower) return 'lower';
  return upper ? 'upper' : 'none';
}

/** Farther than this nobody plans a finger or looks for the way back: a bound, so that the longest tunes stay quick. */
const LOOKED_AHEAD = 256;

/** What can be done about a hop, the cheapest first. */
export function hopOptions({ couldBarre }: Hop, afterRest: boolean): HopOption[] {
  const options: HopOption[] = [
    { by: 'hop', cost: HAND_COSTS.hop },
    { by: 'other-finger', cost: HAND_COSTS.substitute },
    ...(couldBarre ? [{ by: 'barre' as const, cost: HAND_COSTS.barre }] : []),
    ...(afterRest ? [{ by: 'prepare' as const, cost: HAND_COSTS.hop / 2 }] : []),
  ];
  return options.sort((a, b) => a.cost - b.cost);
}

/** The stopped strings of the note before, where this note has any. */
function stoppedOf(before: Fingering, stopped: readonly Stop[]): readonly Stop[] {
  return stopped.length === 0 ? [] : stopsOf(before).filter(({ finger }) => finger > 0);
}

function spanOf(stopped: readonly Stop[], stringLengthMm: Millimetres): Millimetres | null {
  if (stopped.length < 2) return null;
  const at = stopped.map(({ semitones }) => nutDistance(semitones, stringLengthMm));
  return Math.max(...at) - Math.min(...at);
}

/**
 * The guide note: the lowest finger of the new position, or the finger that was down, on the string of the new note. A
 * finger that goes to the note itself needs none.
 */
function guideOf(
  tune: Tune,
  { from, to }: Shift,
  { notes, of }: Pick<FingerScene, 'notes' | 'of'>,
  i: number,
  led: Schools['guide'],
): ShiftGuide {
  const finger = led === 'lowest-finger' ? 1 : of(i - 1).finger || 1;
  const place = of(i).place;
  const played = notes[i]!;
  const guide = finger === of(i).finger ? null : guideNote(tune, place, finger, to);
  let wayBack: number | null = null;
  for (let j = i + 1; j < Math.min(notes.length, i + LOOKED_AHEAD) && wayBack === null; j++) {
    const next = of(j);
    if (next.reachable && next.position === from) wayBack = j;
  }
  return {
    guide: guide && samePitch(guide, played.note.pitch) ? null : guide,
    isAudible: played.note.link === 'slur',
    wayBack,
  };
}

function guideNote({ tuning, key }: Tune, place: Place, finger: number, position: Position): Pitch {
  const step = staffStep(tuning[PLACES.indexOf(place)]!) + Math.max(1, Math.floor(position)) - 1 + finger;
  return inKey(key, step);
}

function inKey(key: Key, step: number): Pitch {
  const natural = pitchAtStep(step);
  return { ...natural, alter: alterInKey(key, natural.letter) };
}
