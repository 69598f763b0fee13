import type { DroneScene } from './candidates';
import { type DroneChoice, droneLine, type DroneOptions, type DroneWish } from './droneLine';

/**
 * Drones for the played notes that are in: every stretch of neighbours within a pass is chosen as one line. A written note is
 * told by the first pass that plays it.
 * @returns the choice of each written note, by its id; time as `droneLine`
 */
export function lineChoices(
  scene: DroneScene,
  isIn: (index: number) => boolean,
  wish: DroneWish,
  options: DroneOptions = {},
): Map<string, DroneChoice> {
  const { notes } = scene.unrolled;
  const choices = new Map<string, DroneChoice>();
  for (let i = 0; i < notes.length;) {
    if (!isIn(i)) {
      i += 1;
      continue;
    }
    let end = i;
    while (end < notes.length && isIn(end) && notes[end]!.passIndex === notes[i]!.passIndex) end += 1;
    for (const [k, choice] of droneLine(scene, { from: i, to: end }, wish, options).choices.entries()) {
      const { id } = notes[i + k]!.note;
      if (!choices.has(id)) choices.set(id, choice);
    }
    i = end;
  }
  return choices;
}
