// What is shown of each written note, on the passes in view.
export type { NoteState, PassesInView } from './noteStates';
export { noteStates, sameShown } from './noteStates';
