import { type Scenes, sheetScene } from '../testing/scene';
import { BarSheet } from './BarSheet';

export const scenes: Scenes = { 'a bar': sheetScene(BarSheet) };
