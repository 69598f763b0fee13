import { staysInStroke } from '#core/bowing';
import { type Link, type Tune, writtenBars } from '#core/tune';
import { type Bowing, bowingOf } from './bestBowings';
import { bestOfChain, type ChainTable } from './chainBest';
import { joinChains } from './meet';
import type { Choice, SearchModel } from './model';
import { COST_WEIGHTS, MILLIONTHS } from './wishes';

/** Bars of a part with the same notes, each by the ids of its notes but the first: how that is come to is the bar before's. */
export type EqualBars = readonly (readonly string[])[];

/** Groups of bars that have the same notes as another of their part. Time O(n). */
export function equalBars(tune: Tune): EqualBars[] {
  const groups: EqualBars[] = [];
  for (const bars of writtenBars(tune).values()) {
    const known = new Map<string, string[][]>();
    for (const { events } of bars) {
      const [, ...inner] = events.flatMap((event) => (event.kind === 'note' ? [event.id] : []));
      if (inner.length === 0) continue;
      const music = JSON.stringify(events.map((event) => [event.duration, event.kind === 'note' && event.pitch]));
      known.set(music, [...(known.get(music) ?? []), inner]);
    }
    for (const group of known.values()) if (group.length > 1) groups.push(group);
  }
  return groups;
}

/** Which notes of a bar begin a stroke, as text. */
const shapeOf = (links: ReadonlyMap<string, Link>, bar: readonly string[]): string =>
  bar.map((id) => (staysInStroke(links.get(id) ?? 'change') ? '-' : '|')).join('');

/** Bars that are bowed otherwise than the one before them with the same notes. */
export function unlikeBars({ links }: Pick<Bowing, 'links'>, groups: readonly EqualBars[]): number {
  let unlike = 0;
  for (const group of groups)
    for (let i = 1; i < group.length; i++) if (shapeOf(links, group[i]!) !== shapeOf(links, group[i - 1]!)) unlike += 1;
  return unlike;
}

const NU = COST_WEIGHTS.unlikeBars * MILLIONTHS;
/** Each round draws equal bars to what most of them do; the second rarely finds more. */
const ROUNDS = 3;

/** A bowing with what its unlike bars cost, and how much a better one could save at most. */
export interface AlikeBowing {
  readonly bowing: Bowing;
  /** With the unlike bars counted. */
  readonly cost: number;
  readonly unlike: number;
  readonly gap: number;
}

/**
 * A bowing of little cost with its unlike bars counted: the best without them, then again with each equal bar drawn to the
 * shape of most of its group, kept while that is cheaper. Every one is the exact best of what it is asked for. Bars far from
 * each other hang together by this term alone, which no chain can carry; so the whole is not proven the best, but
 * no bowing costs less than the first without its unlike bars, which bounds what is lost: `gap`, nothing where all are alike.
 * Time O(n·m·c) a round.
 */
export function alikeBowing(
  model: SearchModel,
  tables: readonly ChainTable[],
  first: Bowing,
  groups: readonly EqualBars[],
): AlikeBowing {
  const counted = (bowing: Bowing): AlikeBowing => {
    const unlike = unlikeBars(bowing, groups);
    const cost = bowing.cost + NU * unlike;
    return { bowing, unlike, cost, gap: Math.max(0, cost - first.cost) };
  };
  let best = counted(first);
  for (let round = 0; round < ROUNDS && best.unlike > 0; round++) {
    const wanted = commonShapes(best.bowing, groups);
    const drawn = solve(model, tables, (id, choice) => {
      const mark = wanted.get(id);
      return mark !== undefined && (mark === '-') !== staysInStroke(choice) ? NU : 0;
    });
    const next = drawn && counted(drawn);
    if (!next || next.cost >= best.cost) break;
    best = next;
  }
  return best;
}

/** By note, whether most bars of its group share its stroke with the note before: of all that are not alike. */
function commonShapes({ links }: Bowing, groups: readonly EqualBars[]): Map<string, string> {
  const wanted = new Map<string, string>();
  for (const group of groups) {
    const shapes = group.map((bar) => shapeOf(links, bar));
    const counts = new Map<string, number>();
    for (const shape of shapes) counts.set(shape, (counts.get(shape) ?? 0) + 1);
    if (counts.size === 1) continue;
    const common = [...counts].reduce((most, one) => (one[1] > most[1] ? one : most))[0];
    for (const bar of group) for (const [i, id] of bar.entries()) wanted.set(id, common[i]!);
  }
  return wanted;
}

/** The best bowing with something charged on its links, told by what it costs without the charge. */
function solve(
  model: SearchModel,
  tables: readonly ChainTable[],
  charge: (id: string, choice: Choice) => number,
): Bowing | null {
  const best = tables.map((table, j) => bestOfChain(table, 1, (k, choice) => charge(model.ids[j]![k]!, choice)));
  const [joined] = joinChains(model, best, 1);
  if (!joined) return null;
  const bowing = bowingOf(model, joined);
  let charged = 0;
  for (const [id, link] of bowing.links) charged += charge(id, link === 'start' ? 'change' : link);
  return { ...bowing, cost: bowing.cost - charged };
}
