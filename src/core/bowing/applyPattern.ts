import { type Fraction, ZERO, add, compare, divide, fraction, multiply, subtract, toNumber } from '#core/base';
import { samePitch } from '#core/pitch';
import {
  type Bar,
  type Link,
  type NoteEvent,
  type Part,
  type RestEvent,
  type Tune,
  barLength,
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
  const ratio = divide(a, b);
  return [3, 7].some((odd) => compare(ratio, fraction(odd)) === 0 || compare(ratio, fraction(1, odd)) === 0);
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
  const unit = options.unit ?? gridUnit(tune);
  const runsOn = options.runsOn ?? pattern.runsOn;
  const links = new Map<string, Link>();
  const bars = writtenBars(tune);
  for (const part of tune.parts) layOnPart(bars.get(part.name)!, pattern, unit, runsOn, options.ids, links);
  const first = tune.parts[0]?.events.find((event) => event.kind === 'note');
  if (first && links.has(first.id)) links.set(first.id, 'start');
  return links;
}

/** Where the laying of slots stands between two notes. */
interface Flow {
  readonly onset: Fraction;
  readonly before: { readonly note: NoteEvent; readonly slot: string } | null;
  readonly restBefore: boolean;
  readonly tied: NoteEvent | null;
}

function layOnPart(
  bars: readonly Bar[],
  pattern: Pattern,
  unit: Fraction,
  runsOn: boolean,
  ids: ReadonlySet<string> | undefined,
  links: Map<string, Link>,
): void {
  const first = bars[0];
  const hasPickup = first !== undefined && bars.length > 1 && compare(first.duration, barLength(first.meter)) < 0;
  // Unit 0 of the running cycle is the first full bar, so that a pickup takes slots that end there.
  const origin = hasPickup ? first.duration : ZERO;
  let flow: Flow = { onset: ZERO, before: null, restBefore: false, tied: null };
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
      const wanted = !ids || ids.has(event.id);
      if (tied && samePitch(tied.pitch, event.pitch)) {
        if (wanted) links.set(event.id, 'slur');
      } else {
        const inBar = toNumber(divide(add(lead, offset), unit));
        const running = toNumber(divide(subtract(add(flow.onset, offset), origin), unit));
        const slot = slotOf(pattern, event.id, runsOn, i, inBar, running, barUnits);
        const shares = before?.slot === slot && (!ids || ids.has(before.note.id));
        if (wanted) links.set(event.id, shares ? joiningLink(before!.note, event, restBefore) : 'change');
        before = { note: event, slot };
      }
      restBefore = false;
      tied = event.tie ? event : null;
    }
    flow = { onset: add(flow.onset, bar.duration), before, restBefore, tied };
  }
}

function sameEnding(bar: Bar, other: Bar | undefined): boolean {
  return other?.event.ending === true && String(bar.event.onPlays) === String(other.event.onPlays);
}

function slotOf(
  pattern: Pattern,
  id: string,
  runsOn: boolean,
  bar: number,
  inBar: number,
  running: number,
  barUnits: number,
): string {
  if (!pattern.slots) return id;
  if (runsOn) return String(slotAt(pattern.slots, Math.floor(running + 1e-9) + pattern.lead));
  // A pickup lies at negative units; seen from the bar line before it, it takes the end of a whole bar's slots.
  const position = Math.floor((inBar < 0 ? inBar + barUnits : inBar) + 1e-9);
  return `${bar} ${slotAt(pattern.slots, position)}`;
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
  return {
    ...tune,
    parts: tune.parts.map((part): Part => {
      if (!part.events.some((event) => links.has(event.id))) return part;
      return {
        ...part,
        events: part.events.map((event) => {
          const link = links.get(event.id);
          if (link === undefined || event.kind !== 'note') return event;
          const { linkOnPass: _dropped, ...kept } = event;
          return { ...kept, link };
        }),
      };
    }),
  };
}
