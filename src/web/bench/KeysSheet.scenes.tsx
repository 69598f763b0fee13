import { type Scenes, sheetScene } from '../testing/scene';
import { KeysSheet } from './KeysSheet';

export const scenes: Scenes = { 'all keys': sheetScene(KeysSheet) };
