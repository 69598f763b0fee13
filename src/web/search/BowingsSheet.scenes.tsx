import { type Scenes, sheetScene } from '../testing/scene';
import { BowingsSheet } from './BowingsSheet';

export const scenes: Scenes = { 'before a search': sheetScene(BowingsSheet) };
