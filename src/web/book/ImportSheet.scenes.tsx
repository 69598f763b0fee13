import { nothing, type Scenes } from '../testing/scene';
import { ImportSheet } from './ImportSheet';

export const scenes: Scenes = {
  'nothing brought yet': { show: () => <ImportSheet input={null} onClose={nothing} /> },
};
