import { reportTune } from '#core/report';
import { nothing, SCENE_TUNE, type Scenes } from '../testing/scene';
import { readListenSettings } from './listenSettings';
import { SoundFilesSheet } from './SoundFilesSheet';

export const scenes: Scenes = {
  'the whole tune': {
    show: () => (
      <SoundFilesSheet report={reportTune(SCENE_TUNE)} settings={readListenSettings()} span={null} onClose={nothing} />
    ),
  },
};
