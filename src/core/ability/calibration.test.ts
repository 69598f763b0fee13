import { cases } from '../testing/share';
import { calibrate, CHI_SQUARE, OTHER_CURVE, OTHER_MODELS, OWN_MODEL } from '../testing/simulatedPlayers';

/** Below this many the shares say little: they are held against wider bounds. */
const FULL = 400;
const players = Math.max(120, cases(FULL));
/** Two deviations of a share of so many players. */
const slack = players < FULL ? 2 * Math.sqrt((0.8 * 0.2) / players) : 0;

test(`of ${players} players as the model has them 80 % intervals hold 76 to 84 %, and truths lie evenly over the ranks`, () => {
  const found = calibrate(OWN_MODEL, players);
  for (const held of [found.ability, found.ceiling, found.days]) {
    expect(held).toBeGreaterThanOrEqual(0.76 - slack);
    expect(held).toBeLessThanOrEqual(0.84 + slack);
  }
  for (const kind of ['ability', 'ceiling', 'days'] as const)
    expect(found.chiSquare[kind]).toBeLessThan(CHI_SQUARE[kind] * (players < FULL ? 1.5 : 1));
  // After 120 attempts the own ceiling is much nearer than the guess.
  expect(found.error).toBeLessThanOrEqual(0.4);
});

test.each(OTHER_MODELS)('of players of another kind ($name) 80 % intervals hold 70 to 90 %', (model) => {
  const found = calibrate(model, players);
  for (const held of [found.ability, found.ceiling, found.days]) {
    expect(held).toBeGreaterThanOrEqual(0.7 - slack);
    expect(held).toBeLessThanOrEqual(0.9 + slack);
  }
  expect(found.error).toBeLessThanOrEqual(0.4);
});

test('of players whose best days follow another curve the days are told wrong more often', () => {
  const found = calibrate(OTHER_CURVE, players);
  // It is a weakness: about half of them lie outside.
  expect(found.days).toBeGreaterThan(0.4);
  expect(found.days).toBeLessThan(0.7);
});
