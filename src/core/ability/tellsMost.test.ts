import { seeded } from '../testing/tunes';
import { cleanChance } from './cleanChance';
import { learntTogether } from './learnAbility';
import type { JudgedAttempt } from './likelihood';
import { ownCeiling } from './ownCeiling';
import { tellsMost } from './tellsMost';

const ceilings = { stroke: 118, crossing: 110 };
const random = seeded(4);
const known = Array.from({ length: 80 }, (): JudgedAttempt => {
  const margins = { stroke: -0.3 + 0.6 * random() };
  return { margins, clean: random() < cleanChance(margins, {}), weight: 1 };
});

test('what is at the edge of what nobody knows yet tells most; what is sure to come out, or known well, tells little', () => {
  const [unknown, easy, knownEdge] = tellsMost(ceilings, learntTogether(known), [
    { crossing: 0 },
    { crossing: 2 },
    { stroke: 0 },
  ]);
  expect(unknown).toBeGreaterThan(0.05);
  expect(Math.abs(easy!)).toBeLessThan(0.02);
  expect(unknown).toBeGreaterThan(3 * Math.abs(knownEdge!));
});

test('what was expected is what comes about on average', () => {
  const learnt = learntTogether(known);
  const width = (attempts: readonly JudgedAttempt[]) => {
    const { low, high } = ownCeiling(ceilings, learntTogether(attempts))!;
    return Math.log(high / low);
  };
  const margins = { crossing: 0.1 };
  const chance = cleanChance(margins, {});
  const after = (clean: boolean) => width([...known, { margins, clean, weight: 1 }]);
  const fall = width(known) - chance * after(true) - (1 - chance) * after(false);
  expect(Math.abs(tellsMost(ceilings, learnt, [margins])[0]! - fall)).toBeLessThan(0.04);
});
