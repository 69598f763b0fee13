import { setLinks } from '#core/bowing';
import { DEFAULT_SCHOOLS, type Schools } from '#core/schools';
import { part, tune } from '../testing/tunes';
import { linkEditsOf } from './mend';
import { OVAL_RUN } from './ovalFindings';
import { reportTune } from './report';

/** D and A string by turns, the higher one down: each crossing is reverse. */
const backwards = 'D5 C#5 A4 D4 A4 D4 A4 D4 A4 B4 C#5 D5';
const lowerDown: Schools = { ...DEFAULT_SCHOOLS, ovals: 'lower-down' };
const found = (t: ReturnType<typeof tune>, schools = lowerDown) =>
  reportTune(t, { schools }).findings.filter(({ code }) => code === 'reverse-crossings');

test('from six crossings in a row against what the player likes the passage is named, with its count', () => {
  const t = tune([part('A', backwards)], { start: 'down', form: ['A'] });
  const [finding, ...others] = found(t);
  expect(finding).toMatchObject({ severity: 'note', spot: { bar: 1 }, count: 6 });
  expect(others).toEqual([]);
  // Begun on the other bow the same crossings are natural.
  expect(found({ ...t, start: 'up' })).toEqual([]);
  const { sums } = reportTune(t).figures.arm;
  expect(sums.reverseOvals).toBeGreaterThanOrEqual(OVAL_RUN);
});

test('nobody is told of them who has not chosen, or who likes them so', () => {
  const t = tune([part('A', backwards)], { start: 'down', form: ['A'] });
  expect(found(t, DEFAULT_SCHOOLS)).toEqual([]);
  expect(found(t, { ...DEFAULT_SCHOOLS, ovals: 'upper-down' })).toEqual([]);
  expect(found({ ...t, start: 'up' }, { ...DEFAULT_SCHOOLS, ovals: 'upper-down' })).toHaveLength(1);
  expect(found(tune([part('A', 'D5 A4 D4 A4 D4 A4 B4 C#5')], { start: 'down' }))).toEqual([]);
});

test('turning the passage round makes all of it natural and leaves the round as it was', () => {
  const t = tune([part('A', `E5 F#5 ${backwards} B4 A4`)], { start: 'down', form: ['A', 'A'] });
  const before = reportTune(t);
  const [finding] = found(t);
  const flip = finding!.mends.find((mend) => linkEditsOf(mend).length === 2)!;
  const after = reportTune(setLinks(t, new Map(linkEditsOf(flip).map(({ id, link }) => [id, link]))));
  expect(after.figures.ledger.comesRound).toBe(before.figures.ledger.comesRound);
  expect(after.figures.arm.sums.reverseOvals).toBeLessThan(before.figures.arm.sums.reverseOvals);
  expect(after.figures.check.ceiling!.ceilingBpm).toBeCloseTo(flip.ceilingBpm!, 9);
  expect(flip.comesRound).toBe(after.figures.ledger.comesRound);
});

test('beginning on the other bow is offered where it makes more crossings natural', () => {
  const [finding] = found(tune([part('A', backwards)], { start: 'down' }));
  const start = finding!.mends.find(({ deed }) => deed === 'start')!;
  expect(start).toMatchObject({ start: 'up', gain: { of: 'reverse-crossings', left: 0 } });
});
