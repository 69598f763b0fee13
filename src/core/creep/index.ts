// How a changed string drifts, and when to look again.
export type { Cents, CheckedDrift, Creep, Minutes, Reading } from './creep';
export {
  CREEP_GUESSES,
  HEARD_CENTS,
  creepAt,
  creepScale,
  fitCreep,
  guessedCreep,
  guessedDrift,
  nextCheck,
} from './creep';
// A fiddle to try it on.
export type { SimulatedFiddle } from './simulatedFiddle';
export { centsFrom, simulatedFiddle, soundOf, soundingMidi, turnPeg, waitMinutes } from './simulatedFiddle';
