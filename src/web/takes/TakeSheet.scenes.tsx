import { type Scenes, sheetScene } from '../testing/scene';
import TakeSheet from './TakeSheet';

export const scenes: Scenes = { 'nothing played yet': sheetScene(TakeSheet) };
