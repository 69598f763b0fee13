// Who plays, and which mistakes are made where.
export { PLAYER_NAMES, PLAYERS, type PlayerName } from './players';
export type { Mistake } from './steps';
export { placesOf } from './places';
// A take, and the truth about it.
export {
  choosePlace,
  mistakeAt,
  simulate,
  simulateInBlocks,
  type SimulateOptions,
  type Truth,
  type TruthNote,
} from './simulate';
