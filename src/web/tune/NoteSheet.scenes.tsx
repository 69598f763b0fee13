import { type Scenes, sheetScene } from '../testing/scene';
import { NoteSheet } from './NoteSheet';

export const scenes: Scenes = {
  'one note': sheetScene(NoteSheet),
  'several notes': sheetScene(NoteSheet, { chosen: [5, 12] }),
};
