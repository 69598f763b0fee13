import { reportTune } from '#core/report';
import { inventedTune } from '../testing/books';
import { some } from '../testing/share';
import { bestLearningArea, BITE_ORDERS, type CoverageStep, learningArea, learningOrder } from './orders';
import { type PracticePlan, practicePlan } from './practicePlan';

const SEEDS = some(
  Array.from({ length: 30 }, (_, i) => i + 1),
  7,
);
const planned = SEEDS.map((seed) => {
  const report = reportTune(inventedTune(seed));
  return { seed, report, plan: practicePlan(report) };
});

test('every order has every bite once, its coverage rises to the whole', () => {
  for (const { report, plan } of planned)
    for (const name of BITE_ORDERS) {
      const { order, coverage } = learningOrder(plan, report, name);
      expect([...order].sort()).toEqual(plan.bites.map(({ id }) => id).sort());
      expect(coverage[coverage.length - 1]!.total).toBeCloseTo(1, 9);
      for (let i = 1; i < coverage.length; i++)
        expect(coverage[i]!.total).toBeGreaterThanOrEqual(coverage[i - 1]!.total - 1e-12);
    }
});

function* orders(ids: readonly string[]): Generator<string[]> {
  if (ids.length === 0) yield [];
  for (const [i, id] of ids.entries())
    for (const rest of orders([...ids.slice(0, i), ...ids.slice(i + 1)])) yield [id, ...rest];
}

/** The coverage of any order, counted anew from the notes. */
function coverageOf(ids: readonly string[], plan: PracticePlan, report: (typeof planned)[0]['report']): CoverageStep[] {
  const known = new Set<string>();
  const { notes } = report.unrolled;
  const length = ({ duration }: (typeof notes)[0]) => duration.n / duration.d;
  const all = notes.reduce((sum, note) => sum + length(note), 0);
  return ids.map((id) => {
    const { first, last } = plan.bites.find((bite) => bite.id === id)!;
    const before = known.size;
    for (const { note } of notes.slice(first, last + 1)) known.add(plan.learnt.model.get(note.id)!);
    const time = notes
      .filter(({ note }) => known.has(plan.learnt.model.get(note.id)!))
      .reduce((sum, note) => sum + length(note), 0);
    return { bite: id, newNotes: known.size - before, total: time / all };
  });
}

test('of all orders of up to seven bites none beats the one that is said to be best, and its gap to the one taken is told', () => {
  let small = 0;
  for (const { report, plan } of planned) {
    const few: PracticePlan = { ...plan, bites: plan.bites.slice(0, 6) };
    if (few.bites.length < 4) continue;
    small += 1;
    const best = Math.max(
      ...[...orders(few.bites.map(({ id }) => id))].map((ids) => learningArea(coverageOf(ids, few, report))),
    );
    const { area, isExact } = bestLearningArea(few, report);
    expect(isExact).toBe(true);
    expect(area).toBeCloseTo(best, 9);
    const taken = learningArea(learningOrder(few, report, 'most').coverage);
    expect(taken).toBeLessThanOrEqual(area + 1e-9);
    expect(taken).toBeGreaterThan(0.9 * area);
  }
  expect(small).toBeGreaterThan(0);
});

test('what is most is at least as much as from the start to the end, and never more than the bound', () => {
  for (const { report, plan } of planned) {
    const areas = Object.fromEntries(
      BITE_ORDERS.map((name) => [name, learningArea(learningOrder(plan, report, name).coverage)]),
    );
    const { area } = bestLearningArea(plan, report);
    for (const own of Object.values(areas)) expect(own).toBeLessThanOrEqual(area + 1e-9);
  }
});

test('the hardest first is the one that breaks first', () => {
  for (const { report, plan } of planned) {
    const { order } = learningOrder(plan, report, 'hardest');
    const ceilings = order.map((id) => plan.bites.find((bite) => bite.id === id)!.ceilingBpm ?? Infinity);
    expect(ceilings).toEqual([...ceilings].sort((a, b) => a - b));
  }
});
