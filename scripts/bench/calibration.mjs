import { calibrate, OTHER_CURVE, OTHER_MODELS, OWN_MODEL } from '../../src/core/testing/simulatedPlayers.ts';

/** Simulated players a model. */
export const PLAYERS = 400;

const percent = (share) => `${(100 * share).toFixed(1)} %`;

/** How far 80 % intervals hold, of seeded players of each model, as lines of a table. */
export function calibrationTable(players = PLAYERS) {
  const rows = [OWN_MODEL, ...OTHER_MODELS, OTHER_CURVE].map((model) => calibrate(model, players));
  return [
    '| players | ability | own ceiling | days | chi-square of the ranks | error of the own ceiling against the guess |',
    '| --- | --- | --- | --- | --- | --- |',
    ...rows.map(({ name, ability, ceiling, days, chiSquare, error }) => {
      const ranks = [chiSquare.ability, chiSquare.ceiling, chiSquare.days].map((own) => own.toFixed(1)).join(', ');
      return `| ${name} | ${percent(ability)} | ${percent(ceiling)} | ${percent(days)} | ${ranks} | ${percent(error)} |`;
    }),
  ];
}
