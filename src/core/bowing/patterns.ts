import { divide, type Fraction, fraction, toNumber } from '#core/base';
import { barLength, type Direction, type Meter, meterBeat } from '#core/tune';
import { opposite } from './strokes';

/** A bowing pattern: stroke lengths in units of the rhythm grid. */
export interface Pattern {
  readonly name: string;
  /** null: one stroke per note whatever its length. */
  readonly slots: readonly number[] | null;
  /** The meter it is at home in: figures per bar speak of it. */
  readonly meter: Meter;
  /** The cycle runs on over bar lines instead of starting afresh. */
  readonly runsOn: boolean;
  /** Units before the bar line at which a cycle begins. */
  readonly lead: number;
}

const COMMON: Meter = { num: 4, den: 4 };
const JIG: Meter = { num: 6, den: 8 };
const WALTZ: Meter = { num: 3, den: 4 };

const pattern = (name: string, slots: number[] | null, meter: Meter, runsOn = false, lead = 0): Pattern => ({
  name,
  slots,
  meter,
  runsOn,
  lead,
});

/** The library, in the order in which it is offered. */
export const PATTERNS: readonly Pattern[] = [
  pattern('saw', null, COMMON),
  pattern('pair-first-shuffle', [2, 1, 1], COMMON),
  pattern('singles-first-shuffle', [1, 1, 2], COMMON),
  pattern('middle-pair', [1, 2, 1], COMMON),
  pattern('pairs', [2, 2], COMMON),
  pattern('offbeat-pairs', [1, 2, 2, 2, 1], COMMON),
  pattern('running-offbeat-pairs', [2], COMMON, true, 1),
  pattern('three-and-one', [3, 1], COMMON),
  pattern('one-and-three', [1, 3], COMMON),
  pattern('three-three-two', [3, 3, 2], COMMON),
  pattern('fours', [4], COMMON),
  pattern('two-and-one', [2, 1], JIG),
  pattern('one-and-two', [1, 2], JIG),
  pattern('threes', [3], JIG),
  pattern('three-and-three-singles', [3, 1, 1, 1], JIG),
  pattern('waltz-beats', [2, 2, 2], WALTZ),
  pattern('waltz-long-short', [4, 2], WALTZ),
];

export function findPattern(name: string): Pattern | null {
  return PATTERNS.find((candidate) => candidate.name === name) ?? null;
}

/** Whole-note length of the grid unit in which the library's figures are given. */
export const LIBRARY_UNIT: Fraction = fraction(1, 8);

export interface PatternFigures {
  readonly name: string;
  readonly slots: readonly number[];
  readonly strokesPerCycle: number;
  readonly parityPerCycle: 'even' | 'odd';
  readonly strokesPerBar: number;
  readonly parityPerBar: 'even' | 'odd';
  /**
   * Net travel toward the tip at equal speed, in units, over the fewest cycles that end as they began
   * (one cycle with an even number of strokes, else two, which cancel).
   */
  readonly driftUnits: number;
  /** Direction at each beat of the first bar, begun on a down-bow, all units filled. */
  readonly beatDirections: readonly Direction[];
}

/**
 * Parity, drift and beat directions of a pattern on running units in its own meter.
 * A slot cut by the bar line still makes its stroke; with `runsOn` the strokes of a bar are those beginning in it.
 */
export function patternFigures(pattern: Pattern): PatternFigures {
  const slots = pattern.slots ?? [1];
  const units = Math.round(toNumber(divide(barLength(pattern.meter), LIBRARY_UNIT)));
  const beat = Math.round(toNumber(divide(meterBeat(pattern.meter), LIBRARY_UNIT)));
  const slotOfUnit = Array.from({ length: units }, (_, unit) => slotAt(slots, unit + pattern.lead));
  const directions: Direction[] = [];
  let bow: Direction = 'down';
  for (let unit = 0; unit < units; unit++) {
    if (unit > 0 && slotOfUnit[unit] !== slotOfUnit[unit - 1]) bow = opposite(bow);
    directions.push(bow);
  }
  const strokesPerBar = pattern.runsOn
    ? new Set(slotOfUnit).size - (pattern.lead > 0 ? 1 : 0)
    : new Set(slotOfUnit).size;
  const signed = slots.reduce((sum, slot, i) => sum + (i % 2 === 0 ? slot : -slot), 0);
  const parity = (count: number) => (count % 2 === 0 ? 'even' : 'odd');
  return {
    name: pattern.name,
    slots,
    strokesPerCycle: slots.length,
    parityPerCycle: parity(slots.length),
    strokesPerBar,
    parityPerBar: parity(strokesPerBar),
    driftUnits: slots.length % 2 === 0 ? signed : 0,
    beatDirections: directions.filter((_, unit) => unit % beat === 0),
  };
}

/** Number of the slot that covers a unit, counted on through the cycles; units may be negative. */
export function slotAt(slots: readonly number[], unit: number): number {
  const cycle = slots.reduce((sum, slot) => sum + slot, 0);
  const whole = Math.floor(unit / cycle);
  let rest = unit - whole * cycle;
  let slot = 0;
  while (rest >= slots[slot]!) {
    rest -= slots[slot]!;
    slot += 1;
  }
  return whole * slots.length + slot;
}
