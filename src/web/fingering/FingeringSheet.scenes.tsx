import { type Scenes, sheetScene } from '../testing/scene';
import { FingeringSheet } from './FingeringSheet';

export const scenes: Scenes = {
  'a note chosen': sheetScene(FingeringSheet),
  'none chosen': sheetScene(FingeringSheet, { chosen: [0, 0] }),
};
