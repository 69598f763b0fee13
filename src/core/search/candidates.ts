import type { Degrees } from '#core/base';
import { staysInStroke } from '#core/bowing';
import { turningOf } from '#core/crossing';
import { type TuneReport, reportTune } from '#core/report';
import { type Link, type Tune, writtenBars } from '#core/tune';
import {
  type Bowing,
  adoptBowing,
  barsOfNotes,
  bestBowings,
  chainTables,
  differingBowings,
  reallyDiffer,
} from './bestBowings';
import type { ChainTable } from './chainBest';
import { type Template, idiomOf, unlike } from './idioms';
import { type Choice, type SearchModel, searchModel } from './model';
import { COST_TERMS, type CostTerm, MILLIONTHS, type StyleWishes } from './wishes';

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
  /** What it costs more than the best of the proposals, in whole millionths of a point. */
  readonly regret: number;
  readonly figures: BowingFigures;
  /** What each term of the objective adds, in whole millionths of a point; their sum is the cost. */
  readonly terms: Readonly<Record<CostTerm, number>>;
}

/**
 * Proposes up to K bowings that differ in idea, with their figures: for each way in which players of the dance bow a bar, the
 * best bowing of all that keeps to it, cheapest first; where the dance has fewer, or two come to the same, others that
 * really differ from all of them and keep to the best.
 * Time as for `bestBowings` for each template, and a report for each bowing.
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
  const proposals: Proposal[] = [];
  let tables: readonly ChainTable[] | undefined;
  for (const template of templates) {
    const model = searchModel(report, wishes, { template });
    const own = chainTables(model, tables);
    tables ??= own;
    const [bowing] = bestBowings(model, 1, own);
    if (!bowing) return [];
    proposals.push({ template, model, tables: own, bowing, cost: bowing.cost + idiomCost(report, template) });
  }
  proposals.sort((a, b) => a.cost - b.cost);
  const chosen: Proposal[] = [];
  const add = (proposal: Proposal) => {
    if (chosen.length === count || !chosen.every(({ bowing }) => reallyDiffer(bowing, proposal.bowing, barOf))) return;
    chosen.push(proposal);
    onFound?.(chosen.length);
  };
  proposals.forEach(add);
  const [best] = proposals;
  if (chosen.length < count && best)
    for (const bowing of differingBowings(best.model, count + 1 - chosen.length, undefined, best.tables)) {
      const cost = bowing.cost + idiomCost(report, best.template);
      if (cost <= MOST_FURTHER * best.cost) add({ ...best, bowing, cost });
    }
  chosen.sort((a, b) => a.cost - b.cost);
  const followed = templates.map(({ name, links }) => ({ name, links: links(report.tune) }));
  return chosen.map(({ template, model, bowing, cost }): Candidate => {
    const idiom = idiomCost(report, template);
    return {
      ...bowing,
      cost,
      template: template.name,
      barTemplates: barTemplates(report.tune, bowing, ownFirst(followed, template.name)),
      regret: cost - chosen[0]!.cost,
      figures: bowingFigures(report, bowing),
      terms: { ...bowingTerms(model, bowing), idiom },
    };
  });
}

interface Proposal {
  readonly template: Template;
  readonly model: SearchModel;
  readonly tables: ChainTable[];
  readonly bowing: Bowing;
  readonly cost: number;
}

/** What is no idea of its own may cost so many times the best: beyond it nobody would play it. */
const MOST_FURTHER = 1.3;

/** What a template costs more than the one most at home, all bars played counted. */
function idiomCost({ unrolled: { bars } }: TuneReport, { points }: Template): number {
  return Math.round(points * MILLIONTHS) * bars.length;
}

/** A bar that follows two templates is told to follow the proposal's own. */
const ownFirst = <T extends { readonly name: string }>(followed: readonly T[], own: string): T[] =>
  [...followed].sort((a, b) => Number(b.name === own) - Number(a.name === own));

/** The template that each bar follows note for note, the first that fits. */
function barTemplates(
  tune: Tune,
  { links }: Bowing,
  followed: readonly { readonly name: string; readonly links: ReadonlyMap<string, Link> }[],
): Map<string, string | null> {
  const found = new Map<string, string | null>();
  for (const bars of writtenBars(tune).values())
    for (const { event, events } of bars) {
      // How a bar's first note is come to belongs to the bar before as much.
      const [, ...inner] = events.filter(({ id }) => links.has(id)).map(({ id }) => id);
      if (inner.length === 0) continue;
      const template = followed.find((one) =>
        inner.every((id) => unlike(links.get(id)!, one.links.get(id) ?? 'change') === 0),
      );
      found.set(event.id, template?.name ?? null);
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
