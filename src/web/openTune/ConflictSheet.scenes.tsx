import { nothing, SCENE_ID, SCENE_TUNE, type Scenes } from '../testing/scene';
import { ConflictSheet } from './ConflictSheet';

const newer = {
  id: SCENE_ID,
  revision: 4,
  updatedAt: '2026-06-30T12:00:00.000Z',
  hasSource: false,
  tune: SCENE_TUNE,
};

export const scenes: Scenes = { 'two versions': { show: () => <ConflictSheet newer={newer} onSettle={nothing} /> } };
