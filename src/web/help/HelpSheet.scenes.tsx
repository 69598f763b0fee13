import { nothing, type Scenes } from '../testing/scene';
import { HelpSheet } from './HelpSheet';

export const scenes: Scenes = {
  'of the book': { show: () => <HelpSheet path="/" onClose={nothing} /> },
  'of the bench': { show: () => <HelpSheet path="/tunes/7c5e" onClose={nothing} /> },
};
