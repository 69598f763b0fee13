import { type Scenes, sheetScene } from '../testing/scene';
import { PatternSheet } from './PatternSheet';

export const scenes: Scenes = {
  'a part': sheetScene(PatternSheet, { chosen: [0, 0] }),
  'a few notes': sheetScene(PatternSheet, { chosen: [5, 13] }),
};
