import { reportTune } from '#core/report';
import { inventedTune } from '../testing/books';
import { seeded } from '../testing/tunes';
import { learningOrder } from './orders';
import { practicePlan } from './practicePlan';
import { BLOCK_MINUTES, type Candidate, candidatesOf, ITEM_MINUTES, NO_HISTORY, sessionOf, worthOf } from './session';

const candidate = (what: Candidate['what'], i: number, value: number): Candidate => ({
  what,
  bite: `b${i}`,
  share: value,
  chance: 0,
  value,
});

/** The worth of the best choice of minutes, by trying all. */
function bestByHand(candidates: readonly Candidate[], room: number): number {
  if (candidates.length === 0) return 0;
  const [first, ...rest] = candidates as [Candidate, ...Candidate[]];
  const choices = [0, ...ITEM_MINUTES].filter((minutes) => minutes <= room);
  return Math.max(...choices.map((minutes) => worthOf(first.value, minutes) + bestByHand(rest, room - minutes)));
}

test('minutes are shared out as well as can be: equal to trying every choice', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const random = seeded(seed);
    const candidates = Array.from({ length: 1 + (seed % 5) }, (_, i) => candidate('review', i, random()));
    const minutes = 10 + Math.floor(random() * 35);
    const session = sessionOf(candidates, minutes);
    const warmUp = session.items.find(({ what }) => what === 'warm-up')?.minutes ?? 0;
    const run = session.items.find(({ what }) => what === 'run-through')?.minutes ?? 0;
    expect([seed, session.worth]).toEqual([seed, expect.closeTo(bestByHand(candidates, minutes - warmUp - run), 9)]);
    const worth = session.items.reduce((sum, item) => sum + worthOf(item.candidate?.value ?? 0, item.minutes), 0);
    expect(worth).toBeCloseTo(session.worth, 9);
  }
});

test('minutes are kept, the warm-up is at most a fifth, and no block is longer than ten', () => {
  for (let minutes = 1; minutes <= 90; minutes++) {
    const { items, minutes: used } = sessionOf(
      Array.from({ length: 9 }, (_, i) => candidate(i < 2 ? 'new' : 'review', i, 0.1 * (i + 1))),
      minutes,
    );
    expect(used).toBeLessThanOrEqual(minutes);
    expect(items.find(({ what }) => what === 'warm-up')?.minutes ?? 0).toBeLessThanOrEqual(minutes / 5);
    let block = 0;
    for (const item of items) {
      block = item.checksBefore ? item.minutes : block + item.minutes;
      expect(block).toBeLessThanOrEqual(BLOCK_MINUTES);
    }
  }
});

test('what is left out is told, and everything is either in or left', () => {
  const candidates = Array.from({ length: 9 }, (_, i) => candidate('join', i, 0.1));
  const { items, left } = sessionOf(candidates, 15);
  expect(items.filter((item) => item.candidate).length + left.length).toBe(9);
  expect(left.length).toBeGreaterThan(0);
});

test('a tune that was never practised offers its first two bites and nothing else', () => {
  const report = reportTune(inventedTune(4));
  const plan = practicePlan(report);
  const { order } = learningOrder(plan, report, 'most');
  const offered = candidatesOf(plan, report, order, NO_HISTORY);
  expect(offered.map(({ what, bite }) => [what, bite])).toEqual(order.slice(0, 2).map((id) => ['new', id]));
});

test('a tune that is known offers its weakest bite, what is due, and the joins of what is met', () => {
  const report = reportTune(inventedTune(4));
  const plan = practicePlan(report);
  const ids = plan.bites.map(({ id }) => id);
  const offered = candidatesOf(plan, report, ids, {
    met: new Set(ids),
    ability: {},
    due: [{ bite: ids[0]!, recall: 0.4 }],
  });
  expect(offered.find(({ what }) => what === 'review')).toMatchObject({ bite: ids[0], chance: 0.4 });
  expect(offered.filter(({ what }) => what === 'weakest')).toHaveLength(1);
  expect(offered.filter(({ what }) => what === 'join')).toHaveLength(plan.joins.length);
  for (const { share, chance, value } of offered) expect(value).toBeCloseTo(share * (1 - chance), 12);
});
