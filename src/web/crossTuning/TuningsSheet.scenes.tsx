import { type Scenes, sheetScene } from '../testing/scene';
import { TuningsSheet } from './TuningsSheet';

export const scenes: Scenes = { 'tunings ranked': sheetScene(TuningsSheet) };
