import type { TuneReport } from '#core/report';
import { PHRASE_BARS } from '#core/tune';
import {
  type ChainBowing,
  type ChainTable,
  fillBestAt,
  linksFrom,
  stateIndex,
  type Values,
  valuesAtEnd,
} from './chainBest';
import type { Chain } from './chains';
import { joinChains, type TuneBowing } from './meet';
import { CHOICES, type SearchModel } from './model';

/** The best bowing of a tune in which each bar follows any of some templates. */
export interface MixedTune {
  /** Its cost is that of the whole. */
  readonly joined: TuneBowing;
  /** By the id of each note, the template of its bar. */
  readonly assigned: ReadonlyMap<string, number>;
  /** Of the cost, what the templates themselves and the changes between them make, in whole millionths. */
  readonly idiom: number;
  readonly switches: number;
}

/**
 * The best bowing of a tune when each bar may follow any of some templates; null where no bowing agrees on all passes.
 * @param tables `tables[t][chain]`
 * @param own `own[t]`: what a bar with template t costs, in whole millionths
 * @param switchCost what another template than the bar before's costs within a phrase
 */
export function bestOfMixed(
  model: SearchModel,
  tables: readonly (readonly ChainTable[])[],
  own: readonly number[],
  switchCost: number,
): MixedTune | null {
  const bars = model.chains.map((chain) => barCosts(model.report, chain, own, switchCost));
  const best = model.chains.map((_, j) =>
    bestMixed(
      tables.map((list) => list[j]!),
      bars[j]!,
    ),
  );
  const [joined] = joinChains(model, best, 1);
  if (!joined) return null;
  const assigned = new Map<string, number>();
  let [idiom, switches] = [0, 0];
  for (const [j, { templates }] of (joined.chains as readonly MixedBowing[]).entries())
    for (const [k, t] of templates.entries()) {
      assigned.set(model.ids[j]![k]!, t);
      if (!bars[j]!.opens[k]) continue;
      idiom += own[t]! * bars[j]!.plays;
      if (k > 0 && templates[k - 1] !== t) switches += bars[j]!.turns[k]!;
    }
  return { joined, assigned, idiom, switches };
}

/** A bowing of a chain whose bars follow different templates: the template of each note's bar, by its place in the list. */
interface MixedBowing extends ChainBowing {
  readonly templates: readonly number[];
}

/** What a chain's bars cost by template, beside what its notes do. */
interface BarCosts {
  /** `opens[k]`: note k is the first of its bar. */
  readonly opens: readonly boolean[];
  /** `own[t]`: what following template t costs more than the one most at home, in a bar of one playing. */
  readonly own: readonly number[];
  /** `turns[k]`: what another template than that of the bar before costs there, all playings counted. */
  readonly turns: readonly number[];
  readonly plays: number;
}

/** Where the bars of a chain begin, and what a change of template costs there: nothing where a phrase or the chain begins. */
export function barCosts(
  { unrolled: { notes } }: TuneReport,
  { starts, length }: Chain,
  own: readonly number[],
  switchCost: number,
): BarCosts {
  const first = starts[0]!;
  const opens = Array.from({ length }, (_, k) => {
    const [here, before] = [notes[first + k]!, notes[first + k - 1]];
    return !before || before.passIndex !== here.passIndex || before.bar !== here.bar;
  });
  const turns = opens.map((isFirst, k) => {
    const { bar } = notes[first + k]!;
    const isJoint = k === 0 || bar <= 1 || (bar - 1) % PHRASE_BARS === 0;
    return isFirst && !isJoint ? switchCost * starts.length : 0;
  });
  return { opens, own, turns, plays: starts.length };
}

/**
 * The best bowing of a chain when each bar may follow any of some templates, for each direction of its first note and of its
 * last, `best[bow][exit]`: the dynamic programming of `bestOfChain` over one state more, the template of the bar. Before the
 * first note of a bar the least over all templates is taken, a change paying what it costs there; within a bar none changes.
 * @param tables of the chain, one for each template, which differ in what their notes cost
 * Time O(t·n·m·c) for t templates.
 */
function bestMixed(tables: readonly ChainTable[], { opens, own, turns, plays }: BarCosts): MixedBowing[][][] {
  const { length, cells, home, choices } = tables[0]!;
  const withBars = tables.map(({ note }, t) => {
    const costs = Float64Array.from(note);
    for (let k = 0; k < length; k++)
      if (opens[k]) for (let at = 8 * k; at < 8 * k + 8; at++) costs[at]! += own[t]! * plays;
    return costs;
  });
  const layers = [0, 1].map((exit) => layersFrom(tables, withBars, opens, turns, exit));
  return [0, 1].map((d) =>
    layers.map(({ values, came }) => {
      let best: MixedBowing | null = null;
      for (const choice of choices[0]!)
        for (const [t, { cost, states }] of values.entries()) {
          const state = stateIndex(cells, d, 1, home[d]!);
          const total = cost[states + state]! + withBars[t]![CHOICES.indexOf(choice) * 2 + d]!;
          if (total === Infinity || (best && total >= best.cost)) continue;
          const found = alongLayers(tables, { values, came }, { state, first: t, d });
          best = { cost: total, bow: d ? 'up' : 'down', links: [choice, ...found.links], templates: found.templates };
        }
      return best ? [best] : [];
    }),
  );
}

interface Layers {
  readonly values: readonly Values[];
  /** `came[k][t·states + state]`: the template that note k's bar follows best after one that follows t; empty where none may change. */
  readonly came: readonly Uint8Array[];
}

function layersFrom(
  tables: readonly ChainTable[],
  costs: readonly Float64Array[],
  opens: readonly boolean[],
  turns: readonly number[],
  exit: number,
): Layers {
  const values = tables.map((table) => valuesAtEnd(table, exit, 1));
  const { length } = tables[0]!;
  const { states } = values[0]!;
  const came: Uint8Array[] = Array.from({ length }, () => new Uint8Array(0));
  for (let k = length - 1; k >= 1; k--) {
    for (const [t, table] of tables.entries()) fillBestAt(table, costs[t]!, values[t]!, k);
    if (!opens[k]) continue;
    const chosen = new Uint8Array(tables.length * states);
    const from = k * states;
    for (let state = 0; state < states; state++) {
      let [least, by] = [Infinity, 0];
      for (const [t, { cost }] of values.entries())
        if (cost[from + state]! < least) [least, by] = [cost[from + state]!, t];
      for (const [t, { cost }] of values.entries()) {
        const isKept = cost[from + state]! <= least + turns[k]!;
        chosen[t * states + state] = isKept ? t : by;
        if (!isKept) cost[from + state] = least + turns[k]!;
      }
    }
    came[k] = chosen;
  }
  return { values, came };
}

/** The links of notes 1, 2 … and the template of every note, along the pointers. */
function alongLayers(
  tables: readonly ChainTable[],
  { values, came }: Layers,
  { state, first, d }: { readonly state: number; readonly first: number; readonly d: number },
): { links: ChainBowing['links']; templates: number[] } {
  const { states } = values[0]!;
  const templates = [first];
  let t = first;
  const links = linksFrom(
    tables[0]!,
    (k, at) => {
      if (came[k]!.length > 0) t = came[k]![t * states + at]!;
      templates.push(t);
      return values[t]!.choice[k * states + at]!;
    },
    state,
    d,
  );
  return { links, templates };
}
