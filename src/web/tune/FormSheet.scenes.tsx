import { SCENE_TUNE, type Scenes, sheetScene } from '../testing/scene';
import { FormSheet } from './FormSheet';

export const scenes: Scenes = {
  'two parts, each twice': sheetScene(FormSheet),
  'a long form': sheetScene(FormSheet, {
    tune: { ...SCENE_TUNE, form: Array.from({ length: 24 }, (_, i) => (i % 4 < 2 ? 'A' : 'B')) },
  }),
};
