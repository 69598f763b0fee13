import type { Degrees } from '#core/base';
import { staysInStroke } from '#core/bowing';
import { turningOf } from '#core/crossing';
import { reportTune, type TuneReport } from '#core/report';
import { type Link, type Tune, writtenBars } from '#core/tune';
import { type AlikeBowing, alikeBowing, type EqualBars, equalBars, unlikeBars } from './alikeBars';
import {
  adoptBowing,
  barsOfNotes,
  bestBowings,
  type Bowing,
  bowingOf,
  chainTables,
  differingBowings,
  reallyDiffer,
} from './bestBowings';
import type { ChainTable } from './chainBest';
import { idiomOf, type Template, unlike } from './idioms';
import { barCosts, bestOfMixed } from './mixedBest';
import { type Choice, type SearchModel, searchModel } from './model';
import { COST_TERMS, COST_WEIGHTS, type CostTerm, MILLIONTHS, type StyleWishes } from './wishes';

/** What a bowing comes to, counted by the report on the tune that has it. */
export interface BowingFigures {
  readonly strokesPerSecond: number;
  /** Crossings within a slur, all passes counted. */
  readonly slurCrossings: number;
  readonly armDegreesPerBar: Degrees;
  /** Furthest that a stroke's middle strays from the sweet spot with the hair shared out, in centimetres. */
  readonly driftCm: number;
  readonly comesRound: boolean;
  /** null: stands at any tempo. */
  readonly ceilingBpm: number | null;
  /** Share of the links that are as in the plan at hand. */
  readonly likeness: number;
  /** Notes bowed against their lock. */
  readonly locksContradicted: number;
}

/** A proposed bowing. */
export interface Candidate extends Bowing {
  /** The way of bowing a bar that it keeps to. */
  readonly template: string;
  /** By the id of each written bar with notes, the template that it follows; null where it follows none. */
  readonly barTemplates: ReadonlyMap<string, string | null>;
  /** What it costs more than the best that keeps to one template, in whole millionths of a point; less than 0 where mixing them is better. */
  readonly regret: number;
  /** By how much a bowing of the same idea could be better at most, in whole millionths: 0 where it is proven the best. */
  readonly gap: number;
  readonly figures: BowingFigures;
  /** What each term of the objective adds, in whole millionths of a point; their sum is the cost. */
  readonly terms: Readonly<Record<CostTerm, number>>;
}

/**
 * Proposes up to K bowings that differ in idea, with their figures: for each way in which players of the dance bow a bar, the
 * best bowing of all that keeps to it, and the best in which phrases follow different ones, cheapest first; where the dance
 * has fewer, or two come to the same, others that really differ from all of them and keep to the best.
 * Time as for `bestBowings` for each template and twice for all of them together, and a report for each bowing.
 * @throws RangeError as `joinChains` does
 */
export function proposeBowings(
  report: TuneReport,
  wishes: StyleWishes,
  count: number,
  onFound?: (found: number) => void,
): Candidate[] {
  const { templates } = idiomOf(report.tune);
  const barOf = barsOfNotes(report);
  const groups = equalBars(report.tune);
  const pure: Proposal[] = [];
  let tables: readonly ChainTable[] | undefined;
  for (const template of templates) {
    const model = searchModel(report, wishes, { template });
    const own = chainTables(model, tables);
    tables ??= own;
    const [first] = bestBowings(model, 1, own);
    if (!first) return [];
    const idiom = Math.round(template.points * MILLIONTHS) * barsOpened(report, model);
    pure.push(proposal({ template, model, tables: own, idiom, switches: 0 }, alikeBowing(model, own, first, groups)));
  }
  const mixed = mixedProposal(report, wishes, pure, groups);
  const followed = templates.map(({ name, links }) => ({ name, links: links(report.tune) }));
  const followedBy = (one: Proposal) =>
    barTemplates(report.tune, one.bowing, followed, one.templateAt ?? (() => one.template.name));
  const proposals = [...pure, ...(mixed ? [mixed] : [])]
    .sort((a, b) => a.cost - b.cost)
    .filter((one, i) => i === 0 || keepsToIt(one, followedBy(one)));
  const chosen: Proposal[] = [];
  const add = (one: Proposal) => {
    if (chosen.length === count || !chosen.every(({ bowing }) => reallyDiffer(bowing, one.bowing, barOf))) return;
    chosen.push(one);
    onFound?.(chosen.length);
  };
  proposals.forEach(add);
  const [best] = proposals;
  if (chosen.length < count && best)
    for (const bowing of differingBowings(best.model, count + 1 - chosen.length, undefined, best.tables)) {
      const unlike = unlikeBars(bowing, groups);
      const cost = bowing.cost + unlike * COST_WEIGHTS.unlikeBars * MILLIONTHS;
      const further = proposal(best, { bowing, unlike, cost, gap: Math.max(0, cost - bowing.cost) });
      if (further.cost <= MAX_FURTHER * best.cost) add(further);
    }
  chosen.sort((a, b) => a.cost - b.cost);
  const bestPure = Math.min(...pure.map(({ cost }) => cost));
  return chosen.map((one): Candidate => {
    const { template, model, bowing, cost, gap, idiom, switches, unlike } = one;
    return {
      ...bowing,
      cost,
      gap,
      template: template.name,
      barTemplates: followedBy(one),
      regret: cost - bestPure,
      figures: bowingFigures(report, bowing),
      terms: {
        ...bowingTerms(model, bowing),
        idiom,
        templateSwitch: switches,
        unlikeBars: unlike * COST_WEIGHTS.unlikeBars * MILLIONTHS,
      },
    };
  });
}

/** A template with its model, and what is the same for every bowing that keeps to it. */
interface Kept {
  readonly template: Template;
  readonly model: SearchModel;
  readonly tables: readonly ChainTable[];
  readonly idiom: number;
  readonly switches: number;
  /** The name of the template that the bar of a note keeps to, where it is not one for all. */
  readonly templateAt?: (id: string) => string | undefined;
}

interface Proposal extends Kept, AlikeBowing {}

function proposal(kept: Kept, alike: AlikeBowing): Proposal {
  return { ...kept, ...alike, cost: alike.cost + kept.idiom + kept.switches };
}

/** What is no idea of its own may cost so many times the best: beyond it nobody would play it. */
const MAX_FURTHER = 1.3;

/** Whether half of the bars really follow what a proposal is named after: one that seldom can is another idea. */
function keepsToIt({ template }: Proposal, bars: ReadonlyMap<string, string | null>): boolean {
  const names = template.name.split(' + ');
  const following = [...bars.values()].filter((name) => name !== null && names.includes(name));
  return 2 * following.length >= bars.size;
}

/** Bars played in which a note begins. */
function barsOpened(report: TuneReport, { chains }: SearchModel): number {
  return chains.reduce(
    (sum, chain) => sum + chain.starts.length * barCosts(report, chain, [], 0).opens.filter(Boolean).length,
    0,
  );
}

/** The best bowing in which bars follow different templates; null where one for all is the best. */
function mixedProposal(
  report: TuneReport,
  wishes: StyleWishes,
  pure: readonly Proposal[],
  groups: readonly EqualBars[],
): Proposal | null {
  const { model } = pure[0]!;
  const own = pure.map(({ template }) => Math.round(template.points * MILLIONTHS));
  const switchCost = Math.round(COST_WEIGHTS.templateSwitch * wishes.shuffle * MILLIONTHS);
  const found = bestOfMixed(
    model,
    pure.map(({ tables }) => tables),
    own,
    switchCost,
  );
  if (!found) return null;
  const { joined, assigned, idiom, switches } = found;
  const used = byUse(assigned, pure);
  if (used.length < 2) return null;
  // A player keeps two ways in mind at most: the two that were most used, mixed anew.
  if (used.length > 2) return mixedProposal(report, wishes, used.slice(0, 2), groups);
  const links = new Map<string, Link>();
  const wanted = pure.map(({ template }) => template.links(report.tune));
  for (const [id, t] of assigned) {
    const link = wanted[t]!.get(id);
    if (link !== undefined) links.set(id, link);
  }
  const template: Template = {
    name: used.map((one) => one.template.name).join(' + '),
    points: 0,
    links: () => links,
  };
  const mixed = searchModel(report, wishes, { template });
  const tables = chainTables(mixed, pure[0]!.tables);
  const first = { ...bowingOf(mixed, joined), cost: joined.cost - idiom - switches };
  const kept: Kept = {
    template,
    model: mixed,
    tables,
    idiom,
    switches,
    templateAt: (id) => pure[assigned.get(id) ?? -1]?.template.name,
  };
  return proposal(kept, alikeBowing(mixed, tables, first, groups));
}

/** Proposals whose templates notes keep to, by their share of them. */
function byUse(assigned: ReadonlyMap<string, number>, pure: readonly Proposal[]): Proposal[] {
  const uses = pure.map(() => 0);
  for (const t of assigned.values()) uses[t]! += 1;
  return [...pure.keys()]
    .filter((t) => uses[t]! > 0)
    .sort((a, b) => uses[b]! - uses[a]!)
    .map((t) => pure[t]!);
}

/** The template that each bar follows note for note: the one it is to keep to before others that fit. */
function barTemplates(
  tune: Tune,
  { links }: Bowing,
  followed: readonly { readonly name: string; readonly links: ReadonlyMap<string, Link> }[],
  wanted: (id: string) => string | undefined,
): Map<string, string | null> {
  const found = new Map<string, string | null>();
  for (const bars of writtenBars(tune).values())
    for (const { event, events } of bars) {
      // How a bar's first note is come to belongs to the bar before as much.
      const [, ...inner] = events.filter(({ id }) => links.has(id)).map(({ id }) => id);
      if (inner.length === 0) continue;
      const fits = followed.filter((one) =>
        inner.every((id) => unlike(links.get(id)!, one.links.get(id) ?? 'change') === 0),
      );
      const own = wanted(inner[0]!);
      found.set(event.id, (fits.find(({ name }) => name === own) ?? fits[0])?.name ?? null);
    }
  return found;
}

/** The figures of a bowing, by a whole report of the tune that has it. */
export function bowingFigures(report: TuneReport, bowing: Pick<Bowing, 'links' | 'start'>): BowingFigures {
  const after = reportOn(report, adoptBowing(report.tune, bowing));
  return { ...planFigures(after), likeness: likeness(report, bowing) };
}

/** The same figures of the plan at hand. */
export function planFigures(report: TuneReport): BowingFigures {
  const { figures, timing, bars, unrolled, settings } = report;
  const { bowed, arm, ledger, check } = figures;
  const strokes = bowed[bowed.length - 1]?.stroke ?? 0;
  return {
    strokesPerSecond: timing.total > 0 ? strokes / timing.total : 0,
    slurCrossings: arm.sums.inSlur,
    armDegreesPerBar: bars > 0 ? turningOf(arm.sums, settings.schools.arm) / bars : 0,
    driftCm: report
      .sharedStrokes()
      .reduce(
        (most, { fromCm, toCm }) => Math.max(most, Math.abs((fromCm + toCm) / 2 - settings.instrument.sweetSpotCm)),
        0,
      ),
    comesRound: ledger.comesRound,
    ceilingBpm: check.ceiling?.ceilingBpm ?? null,
    likeness: 1,
    locksContradicted: new Set(
      unrolled.notes
        .filter(({ index, note }) => note.lock && note.lock !== bowed[index]!.bow)
        .map(({ note }) => note.id),
    ).size,
  };
}

function likeness({ unrolled }: TuneReport, { links }: Pick<Bowing, 'links'>): number {
  const known = new Map(unrolled.notes.map(({ note }) => [note.id, note]));
  const same = [...links].filter(([id, link]) => {
    const note = known.get(id)!;
    return note.link === link && note.linkOnPass === undefined;
  });
  return links.size > 0 ? same.length / links.size : 1;
}

/** The report of another version of a tune, taken with the same settings. */
export function reportOn({ settings }: TuneReport, tune: Tune): TuneReport {
  const { bpm, fingerRule, limits, instrument, schools, hand } = settings;
  return reportTune(tune, { bpm, fingerRule, limits, instrument, schools, hand });
}

/**
 * The objective of `searchModel` for one bowing, term by term: the tune is bowed note by note and every term counted
 * where it falls. It knows nothing of how the search adds costs up, so each can be checked against the other.
 * Time O(n) for n played notes, after the report.
 */
export function bowingTerms(model: SearchModel, bowing: Pick<Bowing, 'links' | 'start'>): Record<CostTerm, number> {
  const { bowed } = reportOn(model.report, adoptBowing(model.report.tune, bowing)).figures;
  const sums = Object.fromEntries(COST_TERMS.map((term) => [term, 0])) as Record<CostTerm, number>;
  const add = (terms: Partial<Record<CostTerm, number>>) => {
    for (const [term, cost] of Object.entries(terms)) sums[term as CostTerm] += cost;
  };
  for (const { starts, length } of model.chains) {
    for (const start of starts) {
      let cell = model.home(bowed[start]!.bow);
      let strokeFrom = 0;
      for (let k = 0; k < length; k++) {
        const { link, bow } = bowed[start + k]!;
        const choice: Choice = link === 'start' ? 'change' : link;
        add(model.noteTerms(start + k, choice, bow));
        const next = k + 1 < length ? bowed[start + k + 1]!.link : null;
        if (next !== null && staysInStroke(next)) continue;
        const count = k + 1 - strokeFrom;
        add(model.strokeTerms(start + strokeFrom, count));
        const landing = model.land(starts[0]! + strokeFrom, count, bow, cell, k + 1 === length);
        add({ hair: landing.cost });
        cell = next === 'retake' ? model.home(bow) : landing.cell;
        strokeFrom = k + 1;
      }
    }
  }
  return sums;
}
