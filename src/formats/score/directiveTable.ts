import type { LinedField } from '#core/document';
import { POSITIONS } from '#core/fingering';
import { midiOf } from '#core/pitch';
import { HOLD_RANGE, LILT_NAME, MAX_BREATH, PACE_RANGE } from '#core/tempo';
import { MAX_WISH, MIN_WISH } from '#core/travel';
import {
  type BarEvent,
  type Direction,
  type Link,
  LINKS,
  NOTE_MARKS,
  type NoteEvent,
  type NoteMark,
  PLACES,
  type Tune,
} from '#core/tune';
import { parseTuning, type Tuning } from '#core/tuning';
import { tuningFault } from '../text';
import type { PlainScore } from './plainScore';

/** What the lines say; notes and bars are counted from 1 in written order. */
export interface MorrinDirectives {
  readonly tuning?: Tuning;
  readonly start?: Direction;
  readonly form?: readonly string[];
  readonly parts?: readonly string[];
  readonly lilt?: string;
  readonly plays: readonly { readonly bar: number; readonly onPlays: readonly number[]; readonly ending: boolean }[];
  readonly links: readonly { readonly note: number; readonly pass: number | null; readonly link: Link }[];
  readonly reuses: readonly { readonly bar: number; readonly of: number }[];
  /** What single notes have beside their signs, with the line that said it. */
  readonly notes: readonly NoteItem[];
}

export interface NoteItem {
  readonly note: number;
  readonly line: string;
  readonly own: (note: NoteEvent) => Partial<NoteEvent>;
}

export type DirectiveDraft = {
  -readonly [K in keyof MorrinDirectives]: MorrinDirectives[K] extends readonly (infer Item)[]
    ? Item[]
    : MorrinDirectives[K];
};

/** What lines are written from. */
export interface WrittenTune {
  readonly tune: Tune;
  readonly notes: readonly NoteEvent[];
  readonly bars: readonly BarEvent[];
  readonly plain: PlainScore;
  /** Marks for which the notation has a sign of its own. */
  readonly said: ReadonlySet<NoteMark>;
}

/** An item of a line that is not as it should be; a tuning may be four pitches and still none. */
export type DirectiveFault =
  { readonly what: 'bad-directive' } | { readonly what: 'directive-tuning'; readonly tuning: Tuning };

/** One kind of line: how it is read, with what is not as it should be, and what is written on it. */
interface Directive {
  readonly read: (value: string, into: DirectiveDraft) => readonly DirectiveFault[];
  /** The items of the line; none: it is not written. */
  readonly write: (written: WrittenTune) => readonly string[];
}

const BAD: DirectiveFault = { what: 'bad-directive' };

/** Items of a line, each by itself: those that are none are told one by one. */
const items =
  (pattern: RegExp, take: (found: RegExpExecArray, into: DirectiveDraft) => boolean | number) =>
  (value: string, into: DirectiveDraft) =>
    value
      .trim()
      .split(/\s+/)
      .flatMap((item) => {
        const found = pattern.exec(item);
        return found && take(found, into) ? [] : [BAD];
      });

/** A line that says one thing. */
const one =
  (take: (value: string, into: DirectiveDraft) => boolean) =>
  (value: string, into: DirectiveDraft): readonly DirectiveFault[] =>
    take(value.trim(), into) ? [] : [BAD];

interface NoteLine {
  readonly pattern: RegExp;
  /** What a note gets by its item, null where the item is none. */
  readonly own: (text: string) => NoteItem['own'] | null;
  /** The texts of a note's items. */
  readonly write: (note: NoteEvent, written: WrittenTune) => readonly string[];
}

/** A line with items `5:text` for single notes, or the bare numbers of notes where its items say no more. */
const onNotes = (line: string, { pattern, own, write }: NoteLine): Directive => ({
  read: items(pattern, ([, note, text = ''], into) => {
    const set = own(text);
    return set !== null && into.notes.push({ note: Number(note), line, own: set });
  }),
  write: (written) =>
    written.notes.flatMap((note, i) =>
      write(note, written).map((text) => (text === '' ? `${i + 1}` : `${i + 1}:${text}`)),
    ),
});

const BARE = /^(\d+)$/;

interface Amounts {
  readonly pattern: RegExp;
  readonly min: number;
  readonly max: number;
}

/** A note's amount within bounds. */
const amounts = (line: string, field: 'bowLength' | 'hold' | 'breath' | 'pace', bounds: Amounts) =>
  onNotes(line, {
    pattern: bounds.pattern,
    own: (text) => {
      const amount = Number(text);
      return amount >= bounds.min && amount <= bounds.max ? () => ({ [field]: amount }) : null;
    },
    write: (note) => (note[field] === undefined ? [] : [`${note[field]}`]),
  });

/** What is played freely. */
const freely = (line: string, field: 'hold' | 'breath' | 'pace', range: Pick<Amounts, 'min' | 'max'>) =>
  amounts(line, field, {
    pattern: /^(\d+):(\d*\.?\d+)$/,
    ...range,
  });

const partsOf = (field: 'form' | 'parts') =>
  one((value, into) => {
    const names = partNames(value);
    if (names) into[field] = names;
    return names !== null;
  });

/**
 * What ABC and MusicXML have no sign for, as lines that other readers skip, in the order in which they are written:
 * `%%morrin-form ["A","B","A"]` and `%%morrin-parts ["A","B"]` (where repeat signs cannot say it) · `%%morrin-plays 3:1 9:1,2e`
 * (bars that sound on some passes only, e: under a bracket) · `%%morrin-start up` · `%%morrin-links 5:retake 9@2:change` (9th
 * note, 2nd pass) · `%%morrin-melody 5 6` (the lowest of these chords is the melody: what is above it is a drone) ·
 * `%%morrin-breaths 5:0.125` (whole notes) · `%%morrin-reuse 9:5 10:6` (the 9th bar takes up the 5th). A new line is a row here.
 */
export const DIRECTIVES = {
  parts: {
    read: partsOf('parts'),
    write: ({ tune, plain }) => (plain.plays ? [] : [JSON.stringify(tune.parts.map(({ name }) => name))]),
  },
  form: {
    read: partsOf('form'),
    write: ({ tune, plain }) => (plain.plays ? [] : [JSON.stringify(tune.form)]),
  },
  plays: {
    read: items(/^(\d+):([1-9]\d{0,2}(?:,[1-9]\d{0,2}){0,63})(e?)$/, ([, bar, passes, ending], { plays }) =>
      plays.push({ bar: Number(bar), onPlays: passes!.split(',').map(Number), ending: ending === 'e' }),
    ),
    write: playItems,
  },
  tuning: {
    read: (value: string, into: DirectiveDraft) => {
      const parsed = parseTuning(value);
      if (!parsed) return [BAD];
      if (tuningFault(parsed)) return [{ what: 'directive-tuning', tuning: parsed }];
      into.tuning = parsed;
      return [];
    },
    // Each format says the strings in its own head.
    write: () => [],
  },
  start: {
    read: one((value, into) => {
      if (value !== 'down' && value !== 'up') return false;
      into.start = value;
      return true;
    }),
    write: ({ tune }) => (tune.start ? [tune.start] : []),
  },
  links: {
    read: items(/^(\d+)(?:@(\d+))?:(\w+)$/, ([, note, pass, name], { links }) => {
      const link = LINKS.find((candidate) => candidate === name);
      return link !== undefined && links.push({ note: Number(note), pass: pass ? Number(pass) : null, link });
    }),
    write: ({ notes, plain }) => notes.flatMap((note, i) => linkItems(note, i + 1, plain)),
  },
  places: onNotes('places', {
    pattern: /^(\d+):([GDAE])$/,
    own: (text) => () => ({ place: PLACES.find((place) => place === text)! }),
    write: ({ place }) => (place ? [place] : []),
  }),
  pulse: onNotes('pulse', {
    pattern: BARE,
    own:
      () =>
      ({ marks = [] }) => ({ marks: [...marks, 'pulse'] }),
    write: ({ marks }) => (marks?.includes('pulse') ? [''] : []),
  }),
  melody: onNotes('melody', {
    pattern: BARE,
    own: () => lowestAsMelody,
    write: ({ pitch, stops }) => (stops?.[0] && midiOf(stops[0]) > midiOf(pitch) ? [''] : []),
  }),
  bow: amounts('bow', 'bowLength', {
    pattern: /^(\d+):(\d+(?:\.\d+)?)$/,
    min: MIN_WISH,
    max: MAX_WISH,
  }),
  drones: onNotes('drones', {
    pattern: /^(\d+):(lower|upper)$/,
    own: (text) => () => ({ drone: text as 'lower' | 'upper' }),
    write: ({ drone }) => (drone ? [drone] : []),
  }),
  positions: onNotes('positions', {
    pattern: /^(\d+):([\d.]+)$/,
    own: (text) => {
      const position = POSITIONS.find((candidate) => candidate === Number(text));
      return position === undefined ? null : () => ({ position });
    },
    write: ({ position }) => (position === undefined ? [] : [`${position}`]),
  }),
  marks: onNotes('marks', {
    pattern: /^(\d+):([a-z-]+)$/,
    own: (text) => {
      const mark = NOTE_MARKS.find((candidate) => candidate === text);
      if (mark === undefined) return null;
      return ({ marks = [] }) => (marks.includes(mark) ? {} : { marks: [...marks, mark] });
    },
    write: ({ marks = [] }, { said }) => marks.filter((mark) => mark !== 'pulse' && !said.has(mark)),
  }),
  lilt: {
    read: one((value, into) => {
      if (!LILT_NAME.test(value)) return false;
      into.lilt = value;
      return true;
    }),
    write: ({ tune }) => (tune.lilt ? [tune.lilt] : []),
  },
  holds: freely('holds', 'hold', HOLD_RANGE),
  breaths: freely('breaths', 'breath', { min: 0.001, max: MAX_BREATH }),
  paces: freely('paces', 'pace', PACE_RANGE),
  reuse: {
    read: items(/^(\d+):(\d+)$/, ([, bar, of], { reuses }) => reuses.push({ bar: Number(bar), of: Number(of) })),
    write: ({ bars }) => {
      const numbers = new Map(bars.map(({ id }, i) => [id, i + 1]));
      return bars.flatMap(({ reuses: root }, i) => (root === undefined ? [] : [`${i + 1}:${numbers.get(root)}`]));
    },
  },
} as const satisfies Readonly<Record<string, Directive>>;

export type DirectiveName = keyof typeof DIRECTIVES;

/** Fields that notation does not say wholly, each with the line that does. */
export const LINE_OF_FIELD: Readonly<Record<LinedField, DirectiveName>> = {
  pitch: 'melody',
  link: 'links',
  linkOnPass: 'links',
  place: 'places',
  position: 'positions',
  marks: 'marks',
  drone: 'drones',
  bowLength: 'bow',
  hold: 'holds',
  breath: 'breaths',
  pace: 'paces',
};

/** Bars that sound on some passes only, where brackets do not say it. */
function playItems({ tune, bars, plain }: WrittenTune): string[] {
  return bars.flatMap((bar, i) => {
    const { onPlays, ending } = bar;
    const part = tune.parts.find(({ events }) => events.includes(bar))!;
    const isSaid = plain.bracketed.has(part.name) && (ending || plain.plays !== null);
    return onPlays === undefined || isSaid ? [] : [`${i + 1}:${onPlays.join(',')}${ending ? 'e' : ''}`];
  });
}

/** Links that the slurs do not say: the note's own, then those of single passes. */
function linkItems(note: NoteEvent, number: number, plain: PlainScore): string[] {
  const isSaid = plain.links.get(note.id) === note.link;
  const own = isSaid ? [] : [`${number}:${note.link}`];
  // A link that is said anew takes those of single passes away.
  const read = isSaid ? (plain.linksOnPass.get(note.id) ?? {}) : {};
  const wanted = note.linkOnPass ?? {};
  const passes = [...new Set([...Object.keys(read), ...Object.keys(wanted)])].map(Number).sort((a, b) => a - b);
  return [
    ...own,
    ...passes.flatMap((pass) => {
      const link = wanted[pass] ?? note.link;
      return link === (read[pass] ?? note.link) ? [] : [`${number}@${pass}:${link}`];
    }),
  ];
}

/** A chord with its lowest note as the melody and the rest above it. */
function lowestAsMelody({ pitch, stops = [] }: NoteEvent): Partial<NoteEvent> {
  const lowest = stops[stops.length - 1];
  return lowest ? { pitch: lowest, stops: [pitch, ...stops.slice(0, -1)] } : {};
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
