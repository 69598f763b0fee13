import { divide, type Fraction, fraction, multiply, toNumber } from '#core/base';
import { alterInKey, type Key, midiOf, type Pitch } from '#core/pitch';
import type { NoteEvent, RestEvent } from '#core/tune';
import type { LineBar } from './lines';

/** One event as it will stand in a bar: its written value, its accidentals, and the room it asks for. */
export interface WrittenEvent {
  readonly event: NoteEvent | RestEvent;
  /** Name of the written value, as `8`, and its dots. */
  readonly value: string;
  readonly dots: number;
  /** All heads from the lowest up; none for a rest. */
  readonly heads: readonly WrittenHead[];
  readonly graces: readonly WrittenHead[];
  /** Share of the line's free room. */
  readonly weight: number;
  /** Pixels that accidentals and grace notes need to the left. */
  readonly leftExtra: number;
}

interface WrittenHead {
  readonly pitch: Pitch;
  readonly accidental: string | null;
}

const ACCIDENTAL_ROOM = 11;
const GRACE_ROOM = 14;
const BASE_DURATIONS: readonly [Fraction, string][] = [
  [fraction(2), '1/2'],
  [fraction(1), 'w'],
  [fraction(1, 2), 'h'],
  [fraction(1, 4), 'q'],
  [fraction(1, 8), '8'],
  [fraction(1, 16), '16'],
  [fraction(1, 32), '32'],
  [fraction(1, 64), '64'],
];
const ACCIDENTAL_SIGNS: Record<number, string> = { [-2]: 'bb', [-1]: 'b', 0: 'n', 1: '#', 2: '##' };

/** What a bar shows, before anything is drawn. */
export function barContent({ events, key }: LineBar): WrittenEvent[] {
  const held = new Map<string, number>();
  return events.map((event) => {
    const written = event.tuplet
      ? multiply(event.duration, fraction(event.tuplet.notes, event.tuplet.inTimeOf))
      : event.duration;
    const { base: value, dots } = writtenDuration(written);
    const weight = spacingWeight(event.duration);
    if (event.kind === 'rest') return { event, value, dots, heads: [], graces: [], weight, leftExtra: 0 };
    const toHead = (pitch: Pitch) => ({ pitch, accidental: accidentalFor(pitch, key, held) });
    const drone = event.droneHead ? [event.droneHead] : [];
    const heads = [...(event.stops ?? []), event.pitch, ...drone].sort((a, b) => midiOf(a) - midiOf(b)).map(toHead);
    const graces = (event.graceNotes ?? []).map(toHead);
    const accidentalRoom = heads.some(({ accidental }) => accidental !== null) ? ACCIDENTAL_ROOM : 0;
    const graceRoom = graces.length > 0 ? GRACE_ROOM * graces.length + 2 : 0;
    return { event, value, dots, heads, graces, weight, leftExtra: accidentalRoom + graceRoom };
  });
}

/** The nearest plain or dotted value not longer than the written length. */
function writtenDuration(length: Fraction): { base: string; dots: number } {
  for (const [base, name] of BASE_DURATIONS) {
    const ratio = toNumber(divide(length, base));
    if (ratio < 1 - 1e-9) continue;
    return { base: name, dots: ratio >= 1.75 - 1e-9 ? 2 : ratio >= 1.5 - 1e-9 ? 1 : 0 };
  }
  return { base: '64', dots: 0 };
}

/** Space after a note grows more slowly than its length. */
function spacingWeight(duration: Fraction): number {
  return Math.pow(Math.max(toNumber(duration), 1 / 32) * 8, 0.62);
}

/** Accidental to show: where the bar so far at this height, or the key, says otherwise; courtesy in other octaves. */
function accidentalFor(pitch: Pitch, key: Key, held: Map<string, number>): string | null {
  const slot = `${pitch.letter}${pitch.octave}`;
  const inKey = alterInKey(key, pitch.letter);
  const expected = held.get(slot) ?? inKey;
  const elsewhere = [...held].some(
    ([name, alter]) => name !== slot && name[0] === pitch.letter && alter !== pitch.alter,
  );
  if (pitch.alter === expected && !(elsewhere && !held.has(slot))) return null;
  held.set(slot, pitch.alter);
  return ACCIDENTAL_SIGNS[pitch.alter] ?? null;
}
