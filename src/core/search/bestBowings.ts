import { setLinks, startOf } from '#core/bowing';
import type { TuneReport } from '#core/report';
import { type Direction, type Link, type Tune, unroll } from '#core/tune';
import { bestOfChain, type ChainTable, chainTable } from './chainBest';
import { joinChains, type TuneBowing } from './meet';
import type { Choice, SearchModel } from './model';
import { MILLIONTHS } from './wishes';

/** A bowing of the whole tune: one link for each written note, the same on all passes. */
export interface Bowing {
  /** In whole millionths of a point. */
  readonly cost: number;
  /** Direction of the tune's first stroke. */
  readonly start: Direction;
  /** In written order; the first note of the tune has `start`. Notes tied to the one before are left out. */
  readonly links: ReadonlyMap<string, Link>;
}

/** The summed costs of all chains; `like` are those of the same tune under another template. */
export function chainTables(model: SearchModel, like?: readonly ChainTable[]): ChainTable[] {
  return model.chains.map((_, j) => chainTable(model, j, like?.[j]));
}

/**
 * The K best bowings of a tune by the objective of `searchModel`, exactly, least cost first.
 * Ties: down before up at the start, then the earlier of `CHOICES` at the first written note that differs.
 * @param tables of the model, where they are counted already
 * @returns empty where no bowing agrees on all passes: a tune without notes, or of a single one
 * Time O(n·m·c·K) for n written notes, m notes in a stroke at most and c cells of the bow.
 */
export function bestBowings(model: SearchModel, count: number, tables = chainTables(model)): Bowing[] {
  if (model.chains.length === 0) return [];
  const best = tables.map((table) => bestOfChain(table, count));
  return joinChains(model, best, count).map((joined) => bowingOf(model, joined));
}

/** Least share of the links, and least number of bars, in which any two bowings that really differ do so. */
export const MIN_DIFFERENCE = 0.1;
export const MIN_BARS = 2;
/** The penalty on a link that another bowing has too grows from the first to the last of these, in points. */
const FIRST_PENALTY = 0.05;
const LAST_PENALTY = 400;
/** Halvings of the step to the least penalty that is enough. */
const REFINEMENTS = 2;

/**
 * Up to K bowings that really differ, cheapest first: any two in at least a tenth of the links and in two bars.
 *
 * The first is the best of all. Each further one minimises the objective plus a penalty for every link that it has in
 * common with one found before; the penalty is doubled until the bowing differs enough from all of them, then brought
 * back towards the last one that was too small. So every bowing is the exact optimum of what it was asked for, and the
 * same input gives the same bowings. Fewer come back where no penalty parts them.
 * @param onFound called after each bowing with how many there are
 * Time O(K·p·n·m·c) for p penalties tried, about ten.
 */
export function differingBowings(
  model: SearchModel,
  count: number,
  onFound?: (found: number) => void,
  tables: readonly ChainTable[] = chainTables(model),
): Bowing[] {
  if (model.chains.length === 0) return [];
  const barOf = barsOfNotes(model.report);
  const found: { readonly bowing: Bowing; readonly plain: number }[] = [];
  const solve = (points: number): Bowing | null => {
    const common = Math.round(points * MILLIONTHS);
    const agreeing = (id: string, choice: Choice) =>
      found.reduce((sum, { bowing }) => (linkIn(bowing, id) === choice ? sum + common : sum), 0);
    const best = tables.map((table, j) => {
      const ids = model.ids[j]!;
      return bestOfChain(table, 1, common > 0 ? (k, choice) => agreeing(ids[k]!, choice) : undefined);
    });
    const [joined] = joinChains(model, best, 1);
    return joined ? bowingOf(model, joined) : null;
  };
  const differs = (bowing: Bowing) => found.every((other) => reallyDiffer(bowing, other.bowing, barOf));
  let penalty = 0;
  while (found.length < count) {
    if (found.length === 1) penalty = FIRST_PENALTY;
    let bowing = solve(penalty);
    if (!bowing) return [];
    let tooSmall = 0;
    while (!differs(bowing)) {
      tooSmall = penalty;
      penalty *= 2;
      if (penalty > LAST_PENALTY) return sorted(found);
      bowing = solve(penalty)!;
    }
    for (let i = 0; i < REFINEMENTS && tooSmall > 0; i++) {
      const middle = (tooSmall + penalty) / 2;
      const milder = solve(middle)!;
      if (differs(milder)) [bowing, penalty] = [milder, middle];
      else tooSmall = middle;
    }
    const shared = [...bowing.links].reduce(
      (sum, [id, link]) =>
        sum + found.filter((other) => linkIn(other.bowing, id) === (link === 'start' ? 'change' : link)).length,
      0,
    );
    found.push({ bowing, plain: bowing.cost - shared * Math.round(penalty * MILLIONTHS) });
    onFound?.(found.length);
  }
  return sorted(found);
}

function sorted(found: readonly { readonly bowing: Bowing; readonly plain: number }[]): Bowing[] {
  return found
    .map(({ bowing, plain }, i) => ({ bowing: { ...bowing, cost: plain }, i }))
    .sort((a, b) => a.bowing.cost - b.bowing.cost || a.i - b.i)
    .map(({ bowing }) => bowing);
}

/** Whether two bowings differ in enough links and bars to be worth comparing. */
export function reallyDiffer(one: Bowing, other: Bowing, barOf: (id: string) => string | undefined): boolean {
  const ids = [...one.links.keys()].filter((id) => one.links.get(id) !== other.links.get(id));
  return ids.length >= MIN_DIFFERENCE * one.links.size && new Set(ids.map(barOf)).size >= MIN_BARS;
}

/** The bar in which a written note stands, by the note's id: part, and number as it is first played. */
export function barsOfNotes({ unrolled }: TuneReport): (id: string) => string | undefined {
  const bars = new Map<string, string>();
  for (const { note, part, bar, pass } of unrolled.notes)
    if (!bars.has(note.id)) bars.set(note.id, `${part} ${pass} ${bar}`);
  return (id) => bars.get(id);
}

/** The tune with a bowing's links, in all its parts or in some; links of single passes there give way, locks stay. */
export function adoptBowing(
  tune: Tune,
  { links, start }: Pick<Bowing, 'links' | 'start'>,
  parts?: readonly string[],
): Tune {
  const within = (name: string) => parts === undefined || parts.includes(name);
  const ids = new Set(tune.parts.flatMap(({ name, events }) => (within(name) ? events.map(({ id }) => id) : [])));
  const adopted = setLinks(tune, new Map([...links].filter(([id]) => ids.has(id))));
  if (!within(tune.form[0] ?? '')) return adopted;
  // A start that comes by itself is not written down.
  const unforced = startOf({ ...adopted, start: null }, unroll(adopted), null).direction;
  return { ...adopted, start: tune.start === null && unforced === start ? null : start };
}

function linkIn({ links }: Bowing, id: string): Link | undefined {
  const link = links.get(id);
  return link === 'start' ? 'change' : link;
}

/** The links of a tune's chains put together. */
export function bowingOf(model: SearchModel, { cost, chains }: TuneBowing): Bowing {
  const links = new Map<string, Link>();
  for (const [j, { links: chosen }] of chains.entries())
    for (const [k, id] of model.ids[j]!.entries()) links.set(id, j === 0 && k === 0 ? 'start' : chosen[k]!);
  return { cost, start: chains[0]!.bow, links };
}
