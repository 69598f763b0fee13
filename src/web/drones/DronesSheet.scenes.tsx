import { type Scenes, sheetScene } from '../testing/scene';
import { DronesSheet } from './DronesSheet';

export const scenes: Scenes = {
  'a note chosen': sheetScene(DronesSheet),
  'none chosen': sheetScene(DronesSheet, { chosen: [0, 0] }),
};
