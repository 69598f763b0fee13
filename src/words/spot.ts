import type { ReusedRun } from '#core/editing';
import type { Spot } from '#core/report';
import { isCompound, type Meter } from '#core/tune';
import { ordinal } from './ordinal';

/** Where in its bar something begins: 1 + the onset in units of the meter's denominator. */
interface Counted {
  readonly beat: number;
  readonly meter: Meter;
}
/** A bar as it is counted within its pass, and the ending bracket over it. */
interface NumberedBar {
  readonly bar: number;
  readonly ending: number | null;
}

/** Names of the quarters of a beat, as they are counted aloud. */
const QUARTERS = ['', 'e', 'and', 'a'];
const NEAR = 1e-6;

/**
 * Where in a bar, as players count it: `beat 4`, `the “and” of 4`, `the “e” of 4`, `the 2nd triplet note of 4`; in
 * compound meters by the dotted beat: `beat 2`, `the 3rd eighth of beat 1`. What falls between is `just after` it.
 */
export function countWords({ beat, meter }: Counted): string {
  const units = Math.max(0, beat - 1);
  return isDotted(meter) ? compoundWords(units) : simpleWords(units);
}

/** Beats of three eighths; a bar of 3/8 is counted in eighths. */
const isDotted = (meter: Meter): boolean => isCompound(meter) && meter.num > 3;

function simpleWords(units: number): string {
  const whole = Math.floor(units + NEAR);
  const share = units - whole;
  const count = whole + 1;
  if (isWhole(4 * share)) {
    const name = QUARTERS[Math.round(4 * share)]!;
    return name === '' ? `beat ${count}` : `the “${name}” of ${count}`;
  }
  if (isWhole(3 * share)) return `the ${ordinal(1 + Math.round(3 * share))} triplet note of ${count}`;
  return `just after ${simpleWords(whole + Math.floor(4 * share) / 4)}`;
}

function compoundWords(eighths: number): string {
  const beat = Math.floor(eighths / 3 + NEAR);
  const within = eighths - 3 * beat;
  const of = `of beat ${beat + 1}`;
  if (isWhole(within)) return within < 0.5 ? `beat ${beat + 1}` : `the ${ordinal(1 + Math.round(within))} eighth ${of}`;
  if (isWhole(2 * within)) return `the ${ordinal(1 + Math.round(2 * within))} sixteenth ${of}`;
  return `just after ${compoundWords(3 * beat + Math.floor(2 * within) / 2)}`;
}

function isWhole(value: number): boolean {
  return Math.abs(value - Math.round(value)) < NEAR;
}

/** `bar 6`, `bar 8, 2nd ending`, `the pickup`. */
export function barWords({ bar, ending }: NumberedBar): string {
  const name = bar === 0 ? 'the pickup' : `bar ${bar}`;
  return ending === null ? name : `${name}, ${ordinal(ending)} ending`;
}

/** `bar 6 of B`, `bar 8 of B, 2nd ending`. */
export function spotWords({ bar, ending, part }: NumberedBar & { readonly part: string }): string {
  const name = `${barWords({ bar, ending: null })} of ${part}`;
  return ending === null ? name : `${name}, ${ordinal(ending)} ending`;
}

/** `bar 2 of A, the “and” of 4`. */
export function noteSpotWords(spot: Omit<Spot, 'pass'>): string {
  return `${spotWords(spot)}, ${countWords(spot)}`;
}

/** The first letter in capitals, as a sentence begins. */
export function capitalised(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** `5–8`, `5`, `pickup–2`. */
export function barSpan(from: number, to: number): string {
  const name = (bar: number) => (bar === 0 ? 'pickup' : String(bar));
  return from === to ? name(from) : `${name(from)}–${name(to)}`;
}

/** `as A 5–8`, over bars that take up others. */
export function reuseWords({ ofPart, ofFrom, ofTo }: ReusedRun): string {
  return `as ${ofPart} ${barSpan(ofFrom, ofTo)}`;
}
