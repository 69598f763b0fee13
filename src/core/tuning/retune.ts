import type { Semitones } from '#core/base';
import { intervalName, midiOf, type Pitch } from '#core/pitch';
import { type Place, PLACES } from '#core/tune';
import { type Implausible, implausibleStrings } from './plausible';
import { TENSION_NEWTONS, tensionRatio, type Tuning } from './tunings';

/** Why a string asks for care. */
export type StringWarning = 'above-a-tone' | 'very-slack';

/** What a change of tuning asks of one string. */
export interface RetunedString {
  readonly place: Place;
  readonly from: Pitch;
  readonly to: Pitch;
  readonly semitones: Semitones;
  readonly tensionRatio: number;
  /** Tension before and after, in newtons. */
  readonly newtons: { readonly from: number; readonly to: number };
  readonly warnings: readonly StringWarning[];
}

/** One turn of a peg. */
export interface RetuneStep {
  readonly round: 1 | 2;
  readonly place: Place;
  /** `check`: the second round only brings back what the others have moved. */
  readonly turn: 'up' | 'down' | 'check';
  readonly from: Pitch;
  readonly to: Pitch;
  /** The string to match it with, and the interval from that string; null where none agrees: take a tone. */
  readonly reference: { readonly place: Place; readonly interval: string } | null;
}

export interface RetunePlan {
  readonly ok: true;
  readonly strings: readonly RetunedString[];
  readonly totalTensionRatio: number;
  /** The total rises by more than the fiddle should be asked for without advice. */
  readonly totalWarning: boolean;
  readonly steps: readonly RetuneStep[];
}

/** From this many semitones above its usual pitch on a string is warned about; from standard, since strings are made for it. */
const TONE: Semitones = 2;
/** A string this far down hardly speaks, a guess. */
const SLACK: Semitones = 4;
/** Rise of the total tension from which a luthier is asked, a guess. */
const MAX_TOTAL = 1.12;

/**
 * The way from one tuning to another: strings to be lowered first, each by itself, from the lowest; then those to be
 * raised, so that the total tension is never above where it ends; then all four once more, since each change moves the
 * others. Each is matched with a string that stands where it shall: by unison, octave, fifth, fourth, third or sixth, in
 * that order, the nearest string first.
 * @returns or every reason why it is implausible
 */
export function retunePlan(
  from: Tuning,
  to: Tuning,
  tensions: readonly number[] = TENSION_NEWTONS,
  usual: Tuning = from,
): RetunePlan | { readonly ok: false; readonly implausible: readonly Implausible[] } {
  const implausible = implausibleStrings(to, usual);
  if (implausible.length > 0) return { ok: false, implausible };

  const strings = PLACES.map((place, i): RetunedString => {
    const semitones = midiOf(to[i]!) - midiOf(from[i]!);
    const fromDefault = midiOf(to[i]!) - midiOf(usual[i]!);
    const newtons = (pitch: Pitch) => tensions[i]! * tensionRatio(midiOf(pitch) - midiOf(usual[i]!));
    const warnings: StringWarning[] = [];
    if (fromDefault > TONE) warnings.push('above-a-tone');
    if (fromDefault <= -SLACK) warnings.push('very-slack');
    return {
      place,
      from: from[i]!,
      to: to[i]!,
      semitones,
      tensionRatio: tensionRatio(semitones),
      newtons: { from: newtons(from[i]!), to: newtons(to[i]!) },
      warnings,
    };
  });
  const sum = (side: 'from' | 'to') => strings.reduce((total, { newtons }) => total + newtons[side], 0);
  const totalTensionRatio = sum('to') / sum('from');
  return {
    ok: true,
    strings,
    totalTensionRatio,
    totalWarning: totalTensionRatio > MAX_TOTAL,
    steps: stepsOf(strings),
  };
}

function stepsOf(strings: readonly RetunedString[]): RetuneStep[] {
  const changed = strings.filter(({ semitones }) => semitones !== 0);
  const order = [
    ...changed.filter(({ semitones }) => semitones < 0),
    ...changed.filter(({ semitones }) => semitones > 0),
  ];
  const steps: RetuneStep[] = [];
  const there = new Set(strings.filter(({ semitones }) => semitones === 0).map(({ place }) => place));
  for (const { place, from, to, semitones } of order) {
    const turn = semitones > 0 ? 'up' : 'down';
    steps.push({ round: 1, place, turn, from, to, reference: referenceFor(place, strings, there) });
    there.add(place);
  }
  // Strings that stay are pulled along by the others: they are looked at first, since the others are matched with them.
  const stayed = order.length > 0 ? strings.filter(({ semitones }) => semitones === 0) : [];
  for (const { place, to } of [...stayed, ...order])
    steps.push({
      round: 2,
      place,
      turn: 'check',
      from: to,
      to,
      reference: referenceFor(place, strings, new Set(PLACES.filter((other) => other !== place))),
    });
  return steps;
}

/** Intervals within the octave by which a string is matched, the surest first. */
const MATCHED: readonly Semitones[] = [0, 7, 5, 4, 3, 9, 8];

function referenceFor(
  place: Place,
  strings: readonly RetunedString[],
  there: ReadonlySet<Place>,
): RetuneStep['reference'] {
  const at = PLACES.indexOf(place);
  const { to } = strings[at]!;
  const candidates = strings.flatMap((other, i) => {
    if (i === at || !there.has(other.place)) return [];
    const rank = MATCHED.indexOf(Math.abs(midiOf(to) - midiOf(other.to)) % 12);
    return rank < 0 ? [] : [{ other, rank, distance: Math.abs(i - at) }];
  });
  candidates.sort((a, b) => a.rank - b.rank || a.distance - b.distance);
  const [best] = candidates;
  return best ? { place: best.other.place, interval: intervalName(best.other.to, to) } : null;
}
