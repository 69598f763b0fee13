import { type Scenes, sheetScene } from '../testing/scene';
import BowSheet from './BowSheet';

export const scenes: Scenes = { 'the stroke of a note': sheetScene(BowSheet) };
