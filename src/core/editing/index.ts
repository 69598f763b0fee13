// Entering and taking away.
export type { Entered, NewEvent } from './insert';
export { beginBar, enterEvent } from './insert';
export { removeEvents, silence, withoutEvents } from './remove';
// Changing what is there.
export type { LengthChange } from './lengths';
export { changeLengths, isDotted } from './lengths';
export { alterNotes, keysInForce, transposeByOctaves, transposeBySteps, transposeToKey } from './transpose';
export type { Freedom } from './marks';
export {
  canTie,
  pinPlace,
  setChord,
  setDrone,
  setFreedom,
  setGraceNotes,
  toggleMark,
  toggleStop,
  toggleTies,
} from './marks';
export { moveEvents } from './move';
// Copies.
export type { Fragment, MovedFragment, Pasted } from './clipboard';
export { copyEvents, onNeighbourStrings, pasteEvents, repeatBars } from './clipboard';
// Bars, parts and the form.
export { barsOf, joinBar, setEnding, setKeyFrom, setMeterFrom } from './bars';
export { rebar } from './rebar';
export type { Followed, ReusedRun } from './reuse';
export { followReuse, releaseBars, reuseBars, reusedRuns, sameMusic } from './reuse';
export {
  addPart,
  firstRun,
  freshPartName,
  movePart,
  parseForm,
  removePart,
  renamePart,
  setForm,
  setPlays,
  splitPart,
} from './form';
// Where things stand.
export type { BarRoom, Location } from './document';
export { barRoom, findEvent, inForce, mapChosen } from './document';
// As a tune is begun.
export { blankTune } from './blankTune';
