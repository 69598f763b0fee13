import { type Fraction, fraction } from '#core/base';

/** Bars of a phrase in dance music. */
export const PHRASE_BARS = 4;

/** A time signature. `symbol` only says how it is written: C or cut C. */
export interface Meter {
  readonly num: number;
  readonly den: number;
  readonly symbol?: 'common' | 'cut';
}

export function barLength(meter: Meter): Fraction {
  return fraction(meter.num, meter.den);
}

/** Compound meters have a dotted quarter beat: 6/8, 9/8, 12/8 and 3/8. */
export function isCompound(meter: Meter): boolean {
  return meter.den === 8 && meter.num % 3 === 0;
}

/** The beat as it is counted and beamed within a bar: the dotted quarter in compound meters, else the meter's own unit. */
export function meterBeat(meter: Meter): Fraction {
  return isCompound(meter) ? fraction(3, 8) : fraction(1, meter.den);
}

export function meterName(meter: Meter): string {
  return `${meter.num}/${meter.den}`;
}

export function sameMeter(a: Meter, b: Meter): boolean {
  return a.num === b.num && a.den === b.den && a.symbol === b.symbol;
}
