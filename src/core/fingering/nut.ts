import type { Millimetres, Semitones } from '#core/base';

/** String lengths of the usual sizes, in millimetres, largest first: common makers' figures, a guess for any one fiddle. */
export const STRING_LENGTHS: readonly { readonly size: string; readonly mm: Millimetres }[] = [
  { size: 'full size', mm: 328 },
  { size: '7/8', mm: 317 },
  { size: '3/4', mm: 307 },
  { size: '1/2', mm: 285 },
  { size: '1/4', mm: 255 },
  { size: '1/8', mm: 230 },
];

/** Distance from the nut to the place of a pitch, n semitones above the open string of length L: L·(1 − 2^(−n/12)). */
export function nutDistance(semitones: Semitones, stringLengthMm: Millimetres): Millimetres {
  return stringLengthMm * (1 - 2 ** (-semitones / 12));
}

const tables = new Map<Millimetres, Float64Array>();
const TABLE_SEMITONES = 48;

/** The same for whole semitones, looked up: a search asks for them many thousand times. */
export function wholeDistance(semitones: Semitones, stringLengthMm: Millimetres): Millimetres {
  let table = tables.get(stringLengthMm);
  if (!table) {
    table = Float64Array.from({ length: TABLE_SEMITONES }, (_, n) => nutDistance(n, stringLengthMm));
    if (tables.size > 64) tables.clear();
    tables.set(stringLengthMm, table);
  }
  return table[semitones]!;
}

/** How far a finger moves toward the bridge for c cents at a place n semitones up: L·2^(−n/12)·ln2/1200·c, for small c. */
export function centsToMm(cents: number, semitones: Semitones, stringLengthMm: Millimetres): Millimetres {
  return ((stringLengthMm * 2 ** (-semitones / 12) * Math.LN2) / 1200) * cents;
}
