import { POSITIONS } from '#core/fingering';
import { HOLD_RANGE, LILTS, LILT_NAME, MAX_BREATH, PACE_RANGE } from '#core/tempo';
import { MAX_WISH, MIN_WISH } from '#core/travel';
import {
  type Direction,
  LINKS,
  type Link,
  NOTE_MARKS,
  type NoteEvent,
  type NoteMark,
  PLACES,
  type Place,
} from '#core/tune';
import { type Tuning, parseTuning } from '#core/tuning';
import { type ImportMessage, tuningFault } from '../text';

/**
 * What ABC has no sign for, as `%%morrin-…` lines that other readers skip. Notes are counted from 1 in written order.
 * `%%morrin-tuning A3 E4 A4 E5` · `%%morrin-start up` · `%%morrin-links 5:retake 9@2:change` (9th note, 2nd pass) ·
 * `%%morrin-places 5:D 12:A` · `%%morrin-pulse 3 7` (pulsed notes) · `%%morrin-bow 4:1.25` (wished stroke lengths) ·
 * `%%morrin-positions 5:3 6:0.5` (hand positions) · `%%morrin-marks 4:cut 9:flick` (what has no decoration) ·
 * `%%morrin-lilt dotted` · `%%morrin-holds 5:1.5` · `%%morrin-breaths 5:0.125` (whole notes) · `%%morrin-paces 3:1.2` (played freely) ·
 * `%%morrin-form ["A","B","A"]` and `%%morrin-parts ["A","B"]` (where repeat signs cannot say it) · `%%morrin-plays 3:1 9:1,2e` (bars
 * that sound on some passes only, e: under a bracket) ·
 * `%%morrin-drones 5:upper 6:lower` (the open neighbour sounds along) · `%%morrin-melody 5 6` (the lowest
 * of these chords is the melody: what is above it is a drone) · `%%morrin-reuse 9:5 10:6` (bars counted from 1: the 9th takes up the 5th)
 */
/** Lines about what is played freely: the note's own field, and the amounts it may have. */
export const FREE_LINES = {
  holds: { key: 'hold', range: HOLD_RANGE },
  breaths: { key: 'breath', range: { least: 0.001, most: MAX_BREATH } },
  paces: { key: 'pace', range: PACE_RANGE },
} as const;

export interface MorrinDirectives {
  readonly tuning?: Tuning;
  readonly start?: Direction;
  readonly form?: readonly string[];
  readonly parts?: readonly string[];
  readonly plays: readonly { readonly bar: number; readonly onPlays: readonly number[]; readonly ending: boolean }[];
  readonly links: readonly { readonly note: number; readonly pass: number | null; readonly link: Link }[];
  readonly places: readonly { readonly note: number; readonly place: Place }[];
  readonly reuses: readonly { readonly bar: number; readonly of: number }[];
  readonly pulses: readonly number[];
  readonly bowLengths: readonly { readonly note: number; readonly ratio: number }[];
  /** Chords whose lowest note is the melody. */
  readonly lowMelodies: readonly number[];
  readonly drones: readonly { readonly note: number; readonly side: 'lower' | 'upper' }[];
  readonly positions: readonly { readonly note: number; readonly position: number }[];
  readonly marks: readonly { readonly note: number; readonly mark: NoteMark }[];
  readonly lilt?: string;
  readonly free: readonly { readonly note: number; readonly own: Pick<NoteEvent, 'hold' | 'breath' | 'pace'> }[];
}

type Draft = {
  -readonly [K in keyof MorrinDirectives]: MorrinDirectives[K] extends readonly (infer Item)[]
    ? Item[]
    : MorrinDirectives[K];
};

/** How a line is read: null where it was, else what was expected instead. */
type Reader = (value: string, into: Draft) => readonly string[];

/** A line of items, each by itself: those that are none are told one by one. */
const items =
  (expected: string, pattern: RegExp, take: (found: RegExpExecArray, into: Draft) => boolean | number): Reader =>
  (value, into) =>
    value
      .trim()
      .split(/\s+/)
      .flatMap((item) => {
        const found = pattern.exec(item);
        return found && take(found, into) ? [] : [expected];
      });

/** A line that says one thing. */
const one =
  (expected: string, take: (value: string, into: Draft) => boolean): Reader =>
  (value, into) =>
    take(value.trim(), into) ? [] : [expected];

/** Notes with an amount of what is played freely. */
const freely = ({ key, range }: (typeof FREE_LINES)[keyof typeof FREE_LINES]): Reader =>
  items(
    `notes with an amount from ${range.least} to ${range.most} such as 5:1`,
    /^(\d+):(\d*\.?\d+)$/,
    ([, note, text], { free }) => {
      const amount = Number(text);
      return amount >= range.least && amount <= range.most && free.push({ note: Number(note), own: { [key]: amount } });
    },
  );

const partsOf = (field: 'form' | 'parts'): Reader =>
  one('names of parts such as ["A","B"]', (value, into) => {
    const names = partNames(value);
    if (names) into[field] = names;
    return names !== null;
  });

const notesOf = (field: 'pulses' | 'lowMelodies'): Reader =>
  items('notes such as 5 9', /^\d+$/, ([note], into) => into[field].push(Number(note)));

/** Lines by their names: another field that plain notation cannot say is one line here and one in `directiveLines`. */
const READERS: Readonly<Record<string, Reader>> = {
  tuning: (value, into) => {
    const parsed = parseTuning(value);
    if (!parsed) return ['four pitches low to high, such as A3 E4 A4 E5'];
    const fault = tuningFault(parsed);
    if (fault) return [`a tuning that a fiddle can be brought into (${fault})`];
    into.tuning = parsed;
    return [];
  },
  start: one('down or up', (value, into) => {
    if (value !== 'down' && value !== 'up') return false;
    into.start = value;
    return true;
  }),
  form: partsOf('form'),
  parts: partsOf('parts'),
  plays: items(
    'bars with their passes such as 9:1,2e',
    /^(\d+):([1-9]\d{0,2}(?:,[1-9]\d{0,2}){0,63})(e?)$/,
    ([, bar, passes, ending], { plays }) =>
      plays.push({ bar: Number(bar), onPlays: passes!.split(',').map(Number), ending: ending === 'e' }),
  ),
  links: items(
    'links such as 5:retake or 9@2:change',
    /^(\d+)(?:@(\d+))?:(\w+)$/,
    ([, note, pass, name], { links }) => {
      const link = LINKS.find((candidate) => candidate === name);
      return link !== undefined && links.push({ note: Number(note), pass: pass ? Number(pass) : null, link });
    },
  ),
  places: items('places such as 5:D', /^(\d+):([GDAE])$/, ([, note, name], { places }) =>
    places.push({ note: Number(note), place: PLACES.find((place) => place === name)! }),
  ),
  positions: items(`positions (${POSITIONS.join(', ')}) such as 5:3`, /^(\d+):([\d.]+)$/, ([, note, text], into) => {
    const position = POSITIONS.find((candidate) => candidate === Number(text));
    return position !== undefined && into.positions.push({ note: Number(note), position });
  }),
  reuse: items('bars such as 9:5', /^(\d+):(\d+)$/, ([, bar, of], { reuses }) =>
    reuses.push({ bar: Number(bar), of: Number(of) }),
  ),
  pulse: notesOf('pulses'),
  melody: notesOf('lowMelodies'),
  bow: items(
    `stroke lengths from ${MIN_WISH} to ${MAX_WISH} such as 5:1.25`,
    /^(\d+):(\d+(?:\.\d+)?)$/,
    ([, note, text], { bowLengths }) => {
      const ratio = Number(text);
      return ratio >= MIN_WISH && ratio <= MAX_WISH && bowLengths.push({ note: Number(note), ratio });
    },
  ),
  drones: items('notes with a side such as 5:upper', /^(\d+):(lower|upper)$/, ([, note, side], { drones }) =>
    drones.push({ note: Number(note), side: side as 'lower' | 'upper' }),
  ),
  marks: items('marks such as 5:cut', /^(\d+):([a-z-]+)$/, ([, note, name], { marks }) => {
    const mark = NOTE_MARKS.find((candidate) => candidate === name);
    return mark !== undefined && marks.push({ note: Number(note), mark });
  }),
  lilt: one(`the name of a lilt, such as ${LILTS.map((known) => known.name).join(', ')}`, (value, into) => {
    if (!LILT_NAME.test(value)) return false;
    into.lilt = value;
    return true;
  }),
  holds: freely(FREE_LINES.holds),
  breaths: freely(FREE_LINES.breaths),
  paces: freely(FREE_LINES.paces),
};

/** Lines about a tune, each with the line of the file on which it stands. */
export function readDirectives(
  lines: readonly { readonly text: string; readonly line: number }[],
  messages: ImportMessage[],
): MorrinDirectives {
  const read: Draft = {
    plays: [],
    links: [],
    places: [],
    reuses: [],
    pulses: [],
    bowLengths: [],
    lowMelodies: [],
    drones: [],
    positions: [],
    marks: [],
    free: [],
  };
  for (const { text, line } of lines) {
    const match = /^%%morrin-(\w+)\s+(.*)$/.exec(text);
    if (!match) continue;
    const [, name, value] = match as unknown as [string, string, string];
    const reader = Object.hasOwn(READERS, name) ? READERS[name]! : () => [`one of ${Object.keys(READERS).join(', ')}`];
    for (const expected of reader(value, read))
      messages.push({
        line,
        column: 10 + name.length,
        severity: 'warning',
        code: 'bad-directive',
        message: `%%morrin-${name}: expected ${expected}, got "${value.slice(0, 60)}".`,
      });
  }
  return read;
}

function partNames(value: string): string[] | null {
  try {
    const names: unknown = JSON.parse(value);
    const isNames =
      Array.isArray(names) &&
      names.length > 0 &&
      names.length <= 1000 &&
      names.every((name) => typeof name === 'string' && name.length > 0 && name.length <= 24);
    return isNames ? (names as string[]) : null;
  } catch {
    return null;
  }
}
