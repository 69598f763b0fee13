import { setLinks } from '#core/bowing';
import { sameMusic } from '#core/editing';
import {
  LINKS,
  NOTE_MARKS,
  type Direction,
  type Link,
  type NoteEvent,
  type NoteMark,
  PLACES,
  type Place,
  type Tune,
  writtenNotes,
  mapEvents,
  mapNotes,
} from '#core/tune';
import { MIN_WISH, MAX_WISH } from '#core/travel';
import { type Tuning, parseTuning } from '#core/tuning';
import { POSITIONS } from '#core/fingering';
import { midiOf } from '#core/pitch';
import { HOLD_RANGE, LILTS, LILT_NAME, MAX_BREATH, PACE_RANGE, STRAIGHT } from '#core/tempo';
import { type ImportMessage, tuningFault } from '../text';
import type { PlainScore } from './plainScore';

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
const FREE_LINES = {
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

/** Lines about a tune, each with the line of the file on which it stands. */
export function readDirectives(
  lines: readonly { readonly text: string; readonly line: number }[],
  messages: ImportMessage[],
): MorrinDirectives {
  let tuning: Tuning | undefined;
  let start: Direction | undefined;
  let form: string[] | undefined;
  let parts: string[] | undefined;
  const plays: { bar: number; onPlays: number[]; ending: boolean }[] = [];
  const links: { note: number; pass: number | null; link: Link }[] = [];
  const places: { note: number; place: Place }[] = [];
  const reuses: { bar: number; of: number }[] = [];
  const pulses: number[] = [];
  const lowMelodies: number[] = [];
  const bowLengths: { note: number; ratio: number }[] = [];
  const drones: { note: number; side: 'lower' | 'upper' }[] = [];
  const positions: { note: number; position: number }[] = [];
  const marks: { note: number; mark: NoteMark }[] = [];
  const free: { note: number; own: Pick<NoteEvent, 'hold' | 'breath' | 'pace'> }[] = [];
  let lilt: string | undefined;
  for (const { text, line } of lines) {
    if (!text.startsWith('%%morrin-')) continue;
    const match = /^%%morrin-(\w+)\s+(.*)$/.exec(text);
    if (!match) continue;
    const [, name, value] = match as unknown as [string, string, string];
    const refuse = (expected: string) =>
      messages.push({
        line,
        column: 10 + name.length,
        severity: 'warning',
        code: 'bad-directive',
        message: `%%morrin-${name}: expected ${expected}, got "${value.slice(0, 60)}".`,
      });
    if (name === 'tuning') {
      const parsed = parseTuning(value);
      const fault = parsed && tuningFault(parsed);
      if (fault) refuse(`a tuning that a fiddle can be brought into (${fault})`);
      else if (parsed) tuning = parsed;
      else refuse('four pitches low to high, such as A3 E4 A4 E5');
    } else if (name === 'start') {
      if (value.trim() === 'down' || value.trim() === 'up') start = value.trim() as Direction;
      else refuse('down or up');
    } else if (name === 'links') {
      for (const item of value.trim().split(/\s+/)) {
        const found = /^(\d+)(?:@(\d+))?:(\w+)$/.exec(item);
        const link = LINKS.find((candidate) => candidate === found?.[3]);
        if (found && link) links.push({ note: Number(found[1]), pass: found[2] ? Number(found[2]) : null, link });
        else refuse('links such as 5:retake or 9@2:change');
      }
    } else if (name === 'places') {
      for (const item of value.trim().split(/\s+/)) {
        const found = /^(\d+):([GDAE])$/.exec(item);
        if (found) places.push({ note: Number(found[1]), place: PLACES.find((place) => place === found[2])! });
        else refuse('places such as 5:D');
      }
    } else if (name === 'form' || name === 'parts') {
      const names = partNames(value);
      if (!names) refuse('names of parts such as ["A","B"]');
      else if (name === 'form') form = names;
      else parts = names;
    } else if (name === 'plays') {
      for (const item of value.trim().split(/\s+/)) {
        const found = /^(\d+):([1-9]\d{0,2}(?:,[1-9]\d{0,2}){0,63})(e?)$/.exec(item);
        if (found)
          plays.push({ bar: Number(found[1]), onPlays: found[2]!.split(',').map(Number), ending: found[3] === 'e' });
        else refuse('bars with their passes such as 9:1,2e');
      }
    } else if (name === 'reuse') {
      for (const item of value.trim().split(/\s+/)) {
        const found = /^(\d+):(\d+)$/.exec(item);
        if (found) reuses.push({ bar: Number(found[1]), of: Number(found[2]) });
        else refuse('bars such as 9:5');
      }
    } else if (name === 'pulse' || name === 'melody') {
      for (const item of value.trim().split(/\s+/)) {
        if (/^\d+$/.test(item)) (name === 'pulse' ? pulses : lowMelodies).push(Number(item));
        else refuse('notes such as 5 9');
      }
    } else if (name === 'bow') {
      for (const item of value.trim().split(/\s+/)) {
        const found = /^(\d+):(\d+(?:\.\d+)?)$/.exec(item);
        const ratio = Number(found?.[2]);
        if (found && ratio >= MIN_WISH && ratio <= MAX_WISH) bowLengths.push({ note: Number(found[1]), ratio });
        else refuse(`stroke lengths from ${MIN_WISH} to ${MAX_WISH} such as 5:1.25`);
      }
    } else if (name === 'drones') {
      for (const item of value.trim().split(/\s+/)) {
        const found = /^(\d+):(lower|upper)$/.exec(item);
        if (found) drones.push({ note: Number(found[1]), side: found[2] as 'lower' | 'upper' });
        else refuse('notes with a side such as 5:upper');
      }
    } else if (name === 'positions') {
      for (const item of value.trim().split(/\s+/)) {
        const found = /^(\d+):([\d.]+)$/.exec(item);
        const position = POSITIONS.find((candidate) => candidate === Number(found?.[2]));
        if (found && position !== undefined) positions.push({ note: Number(found[1]), position });
        else refuse(`positions (${POSITIONS.join(', ')}) such as 5:3`);
      }
    } else if (name === 'marks') {
      for (const item of value.trim().split(/\s+/)) {
        const found = /^(\d+):([a-z-]+)$/.exec(item);
        const mark = NOTE_MARKS.find((candidate) => candidate === found?.[2]);
        if (found && mark) marks.push({ note: Number(found[1]), mark });
        else refuse('marks such as 5:cut');
      }
    } else if (name === 'lilt') {
      if (LILT_NAME.test(value.trim())) lilt = value.trim();
      else refuse(`the name of a lilt, such as ${LILTS.map((known) => known.name).join(', ')}`);
    } else if (name in FREE_LINES) {
      const { key, range } = FREE_LINES[name as keyof typeof FREE_LINES];
      for (const item of value.trim().split(/\s+/)) {
        const found = /^(\d+):(\d*\.?\d+)$/.exec(item);
        const amount = Number(found?.[2]);
        if (found && amount >= range.least && amount <= range.most)
          free.push({ note: Number(found[1]), own: { [key]: amount } });
        else refuse(`notes with an amount from ${range.least} to ${range.most} such as 5:1`);
      }
    } else {
      refuse(
        'one of tuning, start, form, parts, plays, links, places, positions, reuse, pulse, melody, bow, drones, marks, lilt, holds, breaths, paces',
      );
    }
  }
  return {
    tuning,
    start,
    form,
    parts,
    plays,
    links,
    places,
    reuses,
    pulses,
    lowMelodies,
    bowLengths,
    drones,
    positions,
    marks,
    lilt,
    free,
  };
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

/** What of a tune's directives changes notes; its parts and form are put together before. */
export function applyDirectives(
  tune: Tune,
  {
    start,
    links,
    places,
    reuses,
    pulses,
    lowMelodies,
    bowLengths,
    drones,
    positions,
    marks,
    lilt,
    free,
  }: MorrinDirectives,
): Tune {
  let edited: Tune = start ? { ...tune, start } : tune;
  if (lilt && lilt !== STRAIGHT.name) edited = { ...edited, lilt };
  const onNotes = [links, places, pulses, lowMelodies, bowLengths, drones, positions, marks, free];
  const notes = onNotes.some((list) => list.length > 0) ? writtenNotes(tune) : [];
  // Links that hold on every pass first: they take those of single passes away.
  for (const pass of [...new Set(links.map((own) => own.pass))].sort((x, y) => (x ?? 0) - (y ?? 0))) {
    const wanted = new Map<string, Link>();
    for (const own of links) {
      const id = notes[own.note - 1]?.id;
      if (own.pass === pass && id !== undefined && (own.note > 1 || (own.pass ?? 1) > 1)) wanted.set(id, own.link);
    }
    edited = setLinks(edited, wanted, pass);
  }
  if (reuses.length > 0) edited = withReuses(edited, reuses);
  const more = new Map<string, Partial<NoteEvent>>();
  const add = (number: number, part: (note: NoteEvent) => Partial<NoteEvent>) => {
    const note = notes[number - 1];
    if (note) more.set(note.id, { ...more.get(note.id), ...part({ ...note, ...more.get(note.id) }) });
  };
  for (const { note, place } of places) add(note, () => ({ place }));
  for (const number of pulses) add(number, ({ marks = [] }) => ({ marks: [...marks, 'pulse'] }));
  for (const number of lowMelodies) add(number, lowestAsMelody);
  for (const { note, ratio } of bowLengths) add(note, () => ({ bowLength: ratio }));
  for (const { note, position } of positions) add(note, () => ({ position }));
  for (const { note, mark } of marks)
    add(note, ({ marks: own = [] }) => (own.includes(mark) ? {} : { marks: [...own, mark] }));
  for (const { note, side } of drones) add(note, () => ({ drone: side }));
  for (const { note, own } of free) add(note, () => own);
  return mapNotes(edited, (note) => {
    const own = more.get(note.id);
    return own ? { ...note, ...own } : note;
  });
}

/** A chord with its lowest note as the melody and the rest above it. */
function lowestAsMelody({ pitch, stops = [] }: NoteEvent): Partial<NoteEvent> {
  const lowest = stops[stops.length - 1];
  return lowest ? { pitch: lowest, stops: [pitch, ...stops.slice(0, -1)] } : {};
}

/** Bars that are said to take up others do so as long as they really have the same notes. */
function withReuses(tune: Tune, reuses: MorrinDirectives['reuses']): Tune {
  const bars = tune.parts.flatMap(({ events }) => events).filter((event) => event.kind === 'bar');
  const taken = new Map<string, string>();
  for (const { bar, of } of reuses) {
    const [here, root] = [bars[bar - 1], bars[of - 1]];
    if (here && root && here !== root && !taken.has(root.id) && sameMusic(tune, here.id, root.id))
      taken.set(here.id, root.id);
  }
  return mapEvents(tune, (event) => {
    const reused = taken.get(event.id);
    return event.kind === 'bar' && reused !== undefined ? { ...event, reuses: reused } : event;
  });
}

/**
 * The directive lines that bring back what plain notation of this tune would lose.
 * @param said marks for which the notation has a sign of its own
 */
export function directiveLines(tune: Tune, plain: PlainScore, said: ReadonlySet<NoteMark>): string[] {
  const notes = writtenNotes(tune);
  const links = notes.flatMap((note, i) => linkItems(note, i + 1, plain));
  const bars = tune.parts.flatMap(({ events }) => events).filter((event) => event.kind === 'bar');
  const numbers = new Map(bars.map(({ id }, i) => [id, i + 1]));
  const reuses = bars.flatMap(({ reuses: root }, i) => (root === undefined ? [] : [`${i + 1}:${numbers.get(root)}`]));
  const places = notes.flatMap(({ place }, i) => (place ? [`${i + 1}:${place}`] : []));
  const pulses = notes.flatMap(({ marks }, i) => (marks?.includes('pulse') ? [`${i + 1}`] : []));
  const lowMelodies = notes.flatMap(({ pitch, stops }, i) =>
    stops?.[0] && midiOf(stops[0]) > midiOf(pitch) ? [`${i + 1}`] : [],
  );
  const bowLengths = notes.flatMap(({ bowLength }, i) => (bowLength === undefined ? [] : [`${i + 1}:${bowLength}`]));
  const positions = notes.flatMap(({ position }, i) => (position === undefined ? [] : [`${i + 1}:${position}`]));
  const marks = notes.flatMap(({ marks = [] }, i) =>
    marks.filter((mark) => mark !== 'pulse' && !said.has(mark)).map((mark) => `${i + 1}:${mark}`),
  );
  const drones = notes.flatMap(({ drone }, i) => (drone ? [`${i + 1}:${drone}`] : []));
  const plays = bars.flatMap(({ onPlays, ending }, i) => {
    const part = tune.parts.find(({ events }) => events.includes(bars[i]!))!;
    const isSaid = plain.bracketed.has(part.name) && (ending || plain.plays !== null);
    return onPlays === undefined || isSaid ? [] : [`${i + 1}:${onPlays.join(',')}${ending ? 'e' : ''}`];
  });
  return [
    ...(plain.plays
      ? []
      : [
          `%%morrin-parts ${JSON.stringify(tune.parts.map(({ name }) => name))}`,
          `%%morrin-form ${JSON.stringify(tune.form)}`,
        ]),
    ...(plays.length > 0 ? [`%%morrin-plays ${plays.join(' ')}`] : []),
    ...(tune.start ? [`%%morrin-start ${tune.start}`] : []),
    ...(links.length > 0 ? [`%%morrin-links ${links.join(' ')}`] : []),
    ...(places.length > 0 ? [`%%morrin-places ${places.join(' ')}`] : []),
    ...(pulses.length > 0 ? [`%%morrin-pulse ${pulses.join(' ')}`] : []),
    ...(lowMelodies.length > 0 ? [`%%morrin-melody ${lowMelodies.join(' ')}`] : []),
    ...(bowLengths.length > 0 ? [`%%morrin-bow ${bowLengths.join(' ')}`] : []),
    ...(drones.length > 0 ? [`%%morrin-drones ${drones.join(' ')}`] : []),
    ...(positions.length > 0 ? [`%%morrin-positions ${positions.join(' ')}`] : []),
    ...(marks.length > 0 ? [`%%morrin-marks ${marks.join(' ')}`] : []),
    ...(tune.lilt ? [`%%morrin-lilt ${tune.lilt}`] : []),
    ...(Object.keys(FREE_LINES) as (keyof typeof FREE_LINES)[]).flatMap((name) => {
      const { key } = FREE_LINES[name];
      const items = notes.flatMap((note, i) => (note[key] === undefined ? [] : [`${i + 1}:${note[key]}`]));
      return items.length > 0 ? [`%%morrin-${name} ${items.join(' ')}`] : [];
    }),
    ...(reuses.length > 0 ? [`%%morrin-reuse ${reuses.join(' ')}`] : []),
  ];
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
