import {
  add,
  compare,
  divide,
  equals,
  floorQuotient,
  type Fraction,
  fraction,
  multiply,
  subtract,
  toNumber,
  ZERO,
} from '#core/base';
import { midiOf, type Pitch } from '#core/pitch';
import { beatUnit } from '#core/tempo';
import { type Bar, barNumbers, type Tune, writtenBars } from '#core/tune';
import { melodyLikeness, shareAt } from './melodyLikeness';
import { melodyLines, wholeLine } from './melodyLines';

/** A note as it stands in a beat. */
export interface BeatNote {
  readonly pitch: Pitch;
  /** From the beginning of the beat, in whole notes. */
  readonly at: Fraction;
  readonly duration: Fraction;
}

/** A bar of a setting, beat by beat; a beat without a beginning note is empty. */
export interface VariantBar {
  readonly part: string;
  /** As counted within its part, 0 for a pickup. */
  readonly bar: number;
  /** Plays of the part in which it sounds, counted from 1; null: in all. */
  readonly onPlays: readonly number[] | null;
  readonly beats: readonly (readonly BeatNote[])[];
}

/**
 * `same`: the same notes in the same rhythm. `on-the-beat`: the same note on the beat, others after it. `different`: not
 * even that. `alone`: only one of them has the beat.
 */
export type Agreement = 'same' | 'on-the-beat' | 'different' | 'alone';

/** A bar of either setting and the bar of the other that it answers to; null where there is none. */
export interface AlignedBar {
  readonly one: VariantBar | null;
  readonly other: VariantBar | null;
  /** One for each beat of the longer of the two. */
  readonly beats: readonly Agreement[];
}

export interface VariantsAligned {
  readonly bars: readonly AlignedBar[];
  /** Semitones by which the first lies above the second; agreement is counted as if both stood in one key. */
  readonly semitones: number;
  readonly counts: Readonly<Record<Agreement, number>>;
}

/** Cost of a bar that stands alone, where one that agrees in nothing costs 1: two halves that differ are put side by side. */
const ALONE = 0.6;
const COSTS: Readonly<Record<Agreement, number>> = { same: 0, 'on-the-beat': 0.35, different: 1, alone: 1 };

/** Share of likeness by which another transposition must win against the one that the keys say. */
const CLEARLY_BETTER = 0.15;

/**
 * Lays two settings of a tune along each other bar by bar with the least cost, and says beat by beat where they agree.
 * Written bars in the order of the page; a pickup is put against the end of its bar. The second is heard as if in the key
 * of the first, octaves left out. Minimises Σ cost of the pairs + 0.6 for each bar alone, where the cost of a pair is the
 * mean of its beats; on a tie bars go together. Time and memory O(n·m·b) for n and m bars of b beats.
 */
export function alignVariants(one: Tune, other: Tune): VariantsAligned {
  const semitones = transpositionOf(one, other);
  const [left, right] = [settingBars(one), settingBars(other)];
  const agreements = left.map((bar) => right.map((facing) => beatAgreements(bar, facing, semitones)));
  const costs = fillCosts(left.length, right.length, (i, j) => meanCost(agreements[i]![j]!));
  const bars = traceBack(left, right, costs, agreements);
  const counts: Record<Agreement, number> = { same: 0, 'on-the-beat': 0, different: 0, alone: 0 };
  for (const { beats } of bars) for (const agreement of beats) counts[agreement] += 1;
  return { bars, semitones, counts };
}

/** The difference of the tonics, unless the melodies agree far better at another: keys are stated wrongly at times. */
function transpositionOf(one: Tune, other: Tune): number {
  const [a, b] = [wholeLine(melodyLines(one)), wholeLine(melodyLines(other))];
  const tonic = (tune: Tune) => midiOf({ ...tune.key, octave: 4 });
  const up = (((tonic(one) - tonic(other)) % 12) + 12) % 12;
  const stated = up > 6 ? up - 12 : up;
  const found = melodyLikeness(a, b);
  const isFarBetter = found.share > 0 && found.share > shareAt(a, b, stated) + CLEARLY_BETTER;
  return isFarBetter ? found.semitones : stated;
}

function settingBars(tune: Tune): VariantBar[] {
  return [...writtenBars(tune)].flatMap(([part, bars]) => {
    const numbers = barNumbers(bars, tune.form.filter((name) => name === part).length);
    return bars.map((bar) => ({
      part,
      bar: numbers.get(bar.event.id) ?? 0,
      onPlays: bar.event.onPlays ?? null,
      beats: beatsOf(bar, beatUnit(tune.danceType, bar.meter), numbers.get(bar.event.id) === 0),
    }));
  });
}

function beatsOf({ events, duration }: Bar, beat: Fraction, isPickup: boolean): BeatNote[][] {
  const count = Math.max(1, Math.ceil(toNumber(divide(duration, beat)) - 1e-9));
  const beats = Array.from({ length: count }, (): BeatNote[] => []);
  let onset = isPickup ? subtract(multiply(beat, fraction(count)), duration) : ZERO;
  for (const event of events) {
    if (event.kind === 'note') {
      const index = Math.min(count - 1, floorQuotient(onset, beat));
      const at = subtract(onset, multiply(beat, fraction(index)));
      beats[index]!.push({ pitch: event.pitch, at, duration: event.duration });
    }
    onset = add(onset, event.duration);
  }
  return beats;
}

function beatAgreements(one: VariantBar, other: VariantBar, semitones: number): Agreement[] {
  const count = Math.max(one.beats.length, other.beats.length);
  // Beats of a pickup are those that lead into the bar line.
  const isPickup = one.bar === 0 && other.bar === 0;
  const beat = ({ beats }: VariantBar, i: number) => beats[isPickup ? i - (count - beats.length) : i];
  return Array.from({ length: count }, (_, i) => agreementOf(beat(one, i), beat(other, i), semitones));
}

function agreementOf(
  one: readonly BeatNote[] | undefined,
  other: readonly BeatNote[] | undefined,
  semitones: number,
): Agreement {
  if (!one || !other) return 'alone';
  const samePitch = (a: BeatNote, b: BeatNote) => (midiOf(a.pitch) - midiOf(b.pitch) - semitones) % 12 === 0;
  const isSame =
    one.length === other.length &&
    one.every((note, i) => {
      const facing = other[i]!;
      return samePitch(note, facing) && equals(note.at, facing.at) && equals(note.duration, facing.duration);
    });
  if (isSame) return 'same';
  const [first, facing] = [one[0], other[0]];
  const isOnBeat = first && facing && samePitch(first, facing) && compare(first.at, facing.at) === 0;
  return isOnBeat ? 'on-the-beat' : 'different';
}

function meanCost(beats: readonly Agreement[]): number {
  return beats.reduce((sum, agreement) => sum + COSTS[agreement], 0) / beats.length;
}

/** `costs[i][j]`: the least cost of the first i bars against the first j. */
function fillCosts(rows: number, columns: number, pairCost: (i: number, j: number) => number): number[][] {
  const costs = [Array.from({ length: columns + 1 }, (_, j) => ALONE * j)];
  for (let i = 1; i <= rows; i++) {
    const row = [ALONE * i];
    for (let j = 1; j <= columns; j++)
      row.push(
        Math.min(costs[i - 1]![j - 1]! + pairCost(i - 1, j - 1), costs[i - 1]![j]! + ALONE, row[j - 1]! + ALONE),
      );
    costs.push(row);
  }
  return costs;
}

function traceBack(
  left: readonly VariantBar[],
  right: readonly VariantBar[],
  costs: readonly (readonly number[])[],
  agreements: readonly (readonly Agreement[][])[],
): AlignedBar[] {
  const alone = (bar: VariantBar): Agreement[] => bar.beats.map(() => 'alone');
  const bars: AlignedBar[] = [];
  let [i, j] = [left.length, right.length];
  while (i > 0 || j > 0) {
    const cost = costs[i]![j]!;
    const pair = i > 0 && j > 0 ? agreements[i - 1]![j - 1]! : null;
    if (pair && Math.abs(costs[i - 1]![j - 1]! + meanCost(pair) - cost) < 1e-9) {
      bars.push({ one: left[--i]!, other: right[--j]!, beats: pair });
    } else if (i > 0 && Math.abs(costs[i - 1]![j]! + ALONE - cost) < 1e-9) {
      const bar = left[--i]!;
      bars.push({ one: bar, other: null, beats: alone(bar) });
    } else {
      const bar = right[--j]!;
      bars.push({ one: null, other: bar, beats: alone(bar) });
    }
  }
  return bars.reverse();
}
