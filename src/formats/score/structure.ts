import { add, compare, type Fraction, ZERO } from '#core/base';
import type { Key } from '#core/pitch';
import {
  type BarEvent,
  barLength,
  type Meter,
  type NoteEvent,
  type Part,
  type RestEvent,
  type TuneEvent,
} from '#core/tune';

/** A bar as read, with the signs around it. */
export interface RawBar {
  readonly id: string;
  readonly offset: number;
  readonly events: (NoteEvent | RestEvent)[];
  meterInForce: Meter;
  meter?: Meter;
  key?: Key;
  /** Plays named by an ending bracket that opens at this bar. */
  endingOpens?: readonly number[];
  /** An ending bracket closes after this bar. */
  endingCloses: boolean;
  opensRepeat: boolean;
  /** Plays asked for by a repeat sign after this bar; 0 without one. */
  plays: number;
  closesDouble: boolean;
  /** A part label before this bar. */
  label?: string;
}

export interface Structure {
  readonly parts: Part[];
  readonly form: string[];
}

interface Segment {
  readonly bars: RawBar[];
  plays: number;
  /** Bars at the front that are played once. */
  pickupBars: number;
  label: string | null;
}

/**
 * Parts and playing order from bars and their signs. Without labels a part ends at every repeat sign and double bar
 * (a double bar inside an open repeat does not cut it); with labels, at labels and repeat signs.
 * A stretch shorter than a bar before a repeat or double bar is the pickup of what follows, played once.
 * @param order part labels in playing order, as a `P:` header gives them; null without one
 */
export function structureOf(bars: readonly RawBar[], order: readonly string[] | null): Structure {
  const hasLabels = bars.some(({ label }) => label !== undefined);
  const segments = cutSegments(bars, hasLabels);
  if (!hasLabels) {
    const parts = segments.map((segment, i) => partOf(segment, partName(i)));
    const form = segments.flatMap((segment, i) => Array.from({ length: segment.plays }, () => partName(i)));
    return { parts, form };
  }
  const byLabel = new Map<string, Segment[]>();
  for (const segment of segments) {
    const label = segment.label ?? '';
    byLabel.set(label, [...(byLabel.get(label) ?? []), segment]);
  }
  const parts: Part[] = [];
  const expansion = new Map<string, string[]>();
  for (const [label, group] of byLabel) {
    const names = group.map((_, i) => (group.length === 1 ? label || 'A' : `${label}${'abcdefgh'[i] ?? i + 1}`));
    group.forEach((segment, i) => parts.push(partOf(segment, names[i]!)));
    expansion.set(
      label,
      group.flatMap((segment, i) => Array.from({ length: segment.plays }, () => names[i]!)),
    );
  }
  const labels = order?.filter((label) => expansion.has(label)) ?? [];
  const played = labels.length > 0 ? labels : [...expansion.keys()];
  // Music before the first label has no letter of its own and comes first.
  const lead = expansion.has('') && labels.length > 0 ? [''] : [];
  return { parts, form: [...lead, ...played].flatMap((label) => expansion.get(label)!) };
}

function cutSegments(bars: readonly RawBar[], hasLabels: boolean): Segment[] {
  const segments: Segment[] = [];
  let open: Segment = { bars: [], plays: 1, pickupBars: 0, label: null };
  let repeatOpen = false;
  const close = (plays: number) => {
    const endings = Math.max(0, ...open.bars.flatMap(({ endingOpens }) => endingOpens ?? []));
    if (open.bars.length > 0) segments.push({ ...open, plays: Math.max(plays, endings) });
    open = { bars: [], plays: 1, pickupBars: 0, label: open.label };
    repeatOpen = false;
  };

  for (const [i, bar] of bars.entries()) {
    if (bar.label !== undefined) {
      close(1);
      open.label = bar.label;
    }
    if (bar.opensRepeat && open.bars.length > 0) {
      if (isPickup(open.bars)) open.pickupBars = open.bars.length;
      else close(1);
    }
    repeatOpen ||= bar.opensRepeat;
    open.bars.push(bar);
    const next = bars[i + 1];
    if (bar.plays > 0) {
      if (next?.endingOpens && !next.label) continue;
      close(bar.plays);
    } else if (bar.closesDouble && next && !hasLabels) {
      if (repeatOpen && !hasEnding(open) && closesLater(bars, i + 1)) continue;
      if (!hasEnding(open) && isPickup(open.bars)) open.pickupBars = open.bars.length;
      else close(1);
    }
  }
  close(1);
  return segments;
}

function hasEnding({ bars }: Segment): boolean {
  return bars.some(({ endingOpens }) => endingOpens);
}

/** Whether the repeat open at bar `from` is closed before another one opens. */
function closesLater(bars: readonly RawBar[], from: number): boolean {
  for (let i = from; i < bars.length; i++) {
    if (bars[i]!.opensRepeat) return false;
    if (bars[i]!.plays > 0) return true;
  }
  return false;
}

function isPickup(bars: readonly RawBar[]): boolean {
  const first = bars[0]!;
  return bars.length === 1 && compare(lengthOf(first), barLength(first.meterInForce)) < 0;
}

function lengthOf(bar: RawBar): Fraction {
  return bar.events.reduce((sum, { duration }) => add(sum, duration), ZERO);
}

function partOf({ bars, pickupBars, plays }: Segment, name: string): Part {
  let ending: readonly number[] | null = null;
  const events: TuneEvent[] = [];
  for (const [i, bar] of bars.entries()) {
    if (bar.endingOpens) ending = bar.endingOpens;
    const isOnce = i < pickupBars && plays > 1;
    const event: BarEvent = {
      kind: 'bar',
      id: bar.id,
      ...(ending ? { onPlays: ending, ending: true as const } : isOnce ? { onPlays: [1] } : {}),
      ...(bar.meter ? { meter: bar.meter } : {}),
      ...(bar.key ? { key: bar.key } : {}),
    };
    if (bar.endingCloses && !bar.plays) ending = null;
    events.push(event);
    for (const own of bar.events) events.push(own);
  }
  return { name, events };
}

/** A, B … Z, A2, B2 … */
function partName(index: number): string {
  const letter = String.fromCharCode(65 + (index % 26));
  return index < 26 ? letter : `${letter}${Math.floor(index / 26) + 1}`;
}

/** Passes that a playing order may name: more is not understood as one. */
const MAX_PASSES = 512;

/** Reads a playing order such as `AABB`, `A2B2`, `A(AB)3C` or `A.B.A`; null where it is not one. */
export function readOrder(text: string): string[] | null {
  let at = 0;
  const clean = text.replace(/[\s.,]/g, '');
  const group = (depth: number): string[] | null => {
    const names: string[] = [];
    while (at < clean.length && clean[at] !== ')') {
      let item: string[];
      if (clean[at] === '(') {
        at += 1;
        const inner = depth < 8 ? group(depth + 1) : null;
        if (!inner || clean[at] !== ')') return null;
        at += 1;
        item = inner;
      } else if (/[A-Za-z]/.test(clean[at]!)) {
        item = [clean[at]!];
        at += 1;
      } else {
        return null;
      }
      const times = /^\d+/.exec(clean.slice(at))?.[0];
      at += times?.length ?? 0;
      const plays = Number(times ?? 1);
      if (names.length + plays * item.length > MAX_PASSES) return null;
      for (let k = 0; k < plays; k++) names.push(...item);
    }
    return names;
  };
  const names = group(0);
  return names && at === clean.length && names.length > 0 ? names : null;
}
