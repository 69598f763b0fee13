import { reportTune } from '#core/report';
import { randomTune } from '../testing/tunes';
import { bowedTune } from './bowedTune';

test('strokes and verdict are those of the whole report', () => {
  for (let seed = 0; seed < 60; seed++) {
    const tune = randomTune(seed);
    const { figures } = reportTune(tune);
    const { bowed, comesRound, comesRoundAgain, flippedParts } = bowedTune(tune);
    expect([seed, bowed]).toEqual([seed, figures.bowed]);
    const { ledger } = figures;
    expect([comesRound, comesRoundAgain, flippedParts]).toEqual([
      ledger.comesRound,
      ledger.comesRoundAgain,
      ledger.flippedParts,
    ]);
  }
});
