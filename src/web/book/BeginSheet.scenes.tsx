import { nothing, type Scenes } from '../testing/scene';
import { BeginSheet } from './BeginSheet';

export const scenes: Scenes = { 'a new tune': { show: () => <BeginSheet onClose={nothing} onDone={nothing} /> } };
