import { type Scenes, sheetScene } from '../testing/scene';
import { OrnamentsSheet } from './OrnamentsSheet';

export const scenes: Scenes = {
  'a note chosen': sheetScene(OrnamentsSheet),
  'none chosen': sheetScene(OrnamentsSheet, { chosen: [0, 0] }),
};
