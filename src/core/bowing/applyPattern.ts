import { add, compare, divide, type Fraction, fraction, multiply, subtract, toNumber, ZERO } from '#core/base';
import { samePitch } from '#core/pitch';
import {
  type Bar,
  barLength,
  type Link,
  mapNotes,
  type NoteEvent,
  type RestEvent,
  type Tune,
  writtenBars,
} from '#core/tune';
import { joiningLink } from './gestures';
import { type Pattern, slotAt } from './patterns';

const EIGHTH = fraction(1, 8);
const SIXTEENTH = fraction(1, 16);

/**
 * The grid unit of a tune: the commoner of eighth and sixteenth among its written notes, the eighth on a tie.
 * A dotted or snapped pair counts as the two even notes that it stands for.
 */
export function gridUnit(tune: Tune): Fraction {
  let eighths = 0;
  let sixteenths = 0;
  for (const part of tune.parts) {
    let paired = false;
    for (const [i, event] of part.events.entries()) {
      if (paired || event.kind !== 'note' || event.tuplet) {
        paired = false;
        continue;
      }
      const next = part.events[i + 1];
      paired = next?.kind === 'note' && !next.tuplet && isUneven(event.duration, next.duration);
      const even = paired && next?.kind === 'note' ? halved(add(event.duration, next.duration)) : event.duration;
      if (compare(even, EIGHTH) === 0) eighths += paired ? 2 : 1;
      if (compare(even, SIXTEENTH) === 0) sixteenths += paired ? 2 : 1;
    }
  }
  return sixteenths > eighths ? SIXTEENTH : EIGHTH;
}

const halved = (length: Fraction) => multiply(length, fraction(1, 2));

/** In the ratios of a dotted or double-dotted pair, either way round. */
function isUneven(a: Fraction, b: Fraction): boolean {
  const [one, other] = [a.n * b.d, b.n * a.d];
  return one === 3 * other || other === 3 * one || one === 7 * other || other === 7 * one;
}

export interface PatternOptions {
  /** Length of a grid unit in whole notes; the tune's own `gridUnit` when left out. */
  readonly unit?: Fraction;
  /** Ids of the notes to set; all when left out. */
  readonly ids?: ReadonlySet<string>;
  /** Overrides the pattern's own habit. */
  readonly runsOn?: boolean;
}

/**
 * The links a pattern gives to notes, laid on the rhythm grid.
 *
 * The pattern starts afresh at each bar line (its last cycle cut) unless it runs on; a pickup takes the slots that end
 * at the bar line; each part is a fresh start. A note belongs to the slot in which it begins; notes that begin in one
 * slot share a stroke, after a rest or on one pitch by a hook. Tied notes are one, a tuplet stays whole in the slot of
 * its first note, and a dotted or snapped pair counts as two equal units. The first note of a range begins a stroke.
 * Overrides of single passes within the range are dropped, locks stay.
 * @returns new link per note id; the tune's first note keeps `start`
 * Time O(n) for n written events.
 */
export function patternLinks(tune: Tune, pattern: Pattern, options: PatternOptions = {}): Map<string, Link> {
  return layPattern(gridNotes(tune, options.unit ?? gridUnit(tune)), pattern, options);
}

/** A written note as the grid sees it. */
export interface GridNote {
  readonly note: NoteEvent;
  /** Tied to the note before: part of it. */
  readonly isTied: boolean;
  readonly restBefore: boolean;
  /** Index of the note before it in the playing of its part; -1 where there is none. */
  readonly before: number;
  /** Number of its bar in its part, and where it begins in units from there; a pickup lies before 0. */
  readonly bar: number;
  readonly inBar: number;
  readonly barUnits: number;
  /** Units from the part's first full bar. */
  readonly running: number;
}

/** Lays every note of a tune, or of one part, on its rhythm grid: what all patterns have in common. */
export function gridNotes(tune: Tune, unit: Fraction, part?: string): GridNote[] {
  const grid: GridNote[] = [];
  for (const [name, bars] of writtenBars(tune)) if (part === undefined || name === part) addPart(grid, bars, unit);
  return grid;
}

/** The links of `patternLinks` on notes that lie on the grid already. Time O(n). */
function layPattern(grid: readonly GridNote[], pattern: Pattern, options: PatternOptions = {}): Map<string, Link> {
  const { ids } = options;
  const laid = patternOnGrid(grid, pattern, options.runsOn ?? pattern.runsOn);
  const links = new Map<string, Link>();
  for (const [i, { note, before }] of grid.entries()) {
    if (ids && !ids.has(note.id)) continue;
    const link = laid(i);
    const last = grid[before]?.note;
    // The first note of a range begins a stroke.
    links.set(note.id, ids && !grid[i]!.isTied && last && !ids.has(last.id) ? 'change' : link);
  }
  return links;
}

/** The link that a pattern gives to each note of a grid. */
export function patternOnGrid(
  grid: readonly GridNote[],
  pattern: Pattern,
  runsOn = pattern.runsOn,
): (i: number) => Link {
  const slots = grid.map((item) => slotOf(pattern, item, runsOn));
  return (i) => {
    const { note, isTied, restBefore, before, bar } = grid[i]!;
    if (note.link === 'start') return 'start';
    if (isTied) return 'slur';
    const last = grid[before];
    const isOneSlot = last !== undefined && slots[before] === slots[i] && (runsOn || last.bar === bar);
    return pattern.slots !== null && isOneSlot ? joiningLink(last.note, note, restBefore) : 'change';
  };
}

/** Where the laying of a part stands between two bars. */
interface Flow {
  readonly onset: Fraction;
  readonly before: number;
  readonly restBefore: boolean;
  readonly tied: NoteEvent | null;
}

function addPart(grid: GridNote[], bars: readonly Bar[], unit: Fraction): void {
  const first = bars[0];
  const hasPickup = first !== undefined && bars.length > 1 && compare(first.duration, barLength(first.meter)) < 0;
  // Unit 0 of the running cycle is the first full bar, so that a pickup takes slots that end there.
  const origin = hasPickup ? first.duration : ZERO;
  let flow: Flow = { onset: ZERO, before: -1, restBefore: false, tied: null };
  let beforeEndings: Flow | null = null;
  for (const [i, bar] of bars.entries()) {
    if (!bar.event.ending) {
      beforeEndings = null;
    } else if (!sameEnding(bar, bars[i - 1])) {
      // Each ending follows the body, not the ending written before it.
      beforeEndings ??= flow;
      flow = beforeEndings;
    }
    const lead = i === 0 && hasPickup ? subtract(ZERO, bar.duration) : ZERO;
    const barUnits = toNumber(divide(barLength(bar.meter), unit));
    let { before, restBefore, tied } = flow;
    for (const { event, offset } of gridPositions(bar.events, unit)) {
      if (event.kind === 'rest') {
        restBefore = true;
        tied = null;
        continue;
      }
      const isTied = tied !== null && samePitch(tied.pitch, event.pitch);
      grid.push({
        note: event,
        isTied,
        restBefore,
        before,
        bar: i,
        inBar: toNumber(divide(add(lead, offset), unit)),
        barUnits,
        running: toNumber(divide(subtract(add(flow.onset, offset), origin), unit)),
      });
      if (!isTied) before = grid.length - 1;
      restBefore = false;
      tied = event.tie ? event : null;
    }
    flow = { onset: add(flow.onset, bar.duration), before, restBefore, tied };
  }
}

function sameEnding(bar: Bar, other: Bar | undefined): boolean {
  return other?.event.ending === true && String(bar.event.onPlays) === String(other.event.onPlays);
}

/** Number of the slot in which a note begins, counted within its bar or on through the part. */
function slotOf({ slots, lead }: Pattern, { inBar, barUnits, running }: GridNote, runsOn: boolean): number {
  if (!slots) return 0;
  if (runsOn) return slotAt(slots, Math.floor(running + 1e-9) + lead);
  // A pickup lies at negative units; seen from the bar line before it, it takes the end of a whole bar's slots.
  return slotAt(slots, Math.floor((inBar < 0 ? inBar + barUnits : inBar) + 1e-9));
}

interface GridPosition {
  readonly event: NoteEvent | RestEvent;
  /** Where the grid sees the onset, in whole notes from the start of the bar. */
  readonly offset: Fraction;
}

/** Onsets within a bar as the grid sees them: tuplets gathered on their first note, uneven pairs made even. */
function gridPositions(events: readonly (NoteEvent | RestEvent)[], unit: Fraction): GridPosition[] {
  const positions: GridPosition[] = [];
  let at = ZERO;
  let tupletOffset: Fraction | null = null;
  let pairOffset: Fraction | null = null;
  for (const [i, event] of events.entries()) {
    if (!event.tuplet) tupletOffset = null;
    else if (event.tuplet.first || tupletOffset === null) tupletOffset = at;
    const offset: Fraction = tupletOffset ?? pairOffset ?? at;
    positions.push({ event, offset });
    const next = events[i + 1];
    pairOffset =
      pairOffset === null && !event.tuplet && next && !next.tuplet && isUnevenPair(event, next, at, unit)
        ? add(at, unit)
        : null;
    at = add(at, event.duration);
  }
  return positions;
}

/** A dotted or snapped pair: two units in all, begun on the grid. */
function isUnevenPair(
  event: NoteEvent | RestEvent,
  next: NoteEvent | RestEvent,
  at: Fraction,
  unit: Fraction,
): boolean {
  if (divide(at, unit).d !== 1) return false;
  if (compare(add(event.duration, next.duration), multiply(unit, fraction(2))) !== 0) return false;
  return isUneven(event.duration, next.duration);
}

/** The tune with a pattern's links in place. */
export function applyPattern(tune: Tune, pattern: Pattern, options: PatternOptions = {}): Tune {
  const links = patternLinks(tune, pattern, options);
  return mapNotes(tune, (note) => {
    const link = links.get(note.id);
    if (link === undefined) return note;
    const { linkOnPass: _dropped, ...kept } = note;
    return { ...kept, link };
  });
}
