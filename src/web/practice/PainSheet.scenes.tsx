import { reportTune } from '#core/report';
import { nothing, SCENE_TUNE, type Scenes } from '../testing/scene';
import { PainSheet } from './PainSheet';

const report = reportTune(SCENE_TUNE);

export const scenes: Scenes = {
  'of a bite': {
    show: () => <PainSheet report={report} stretch={{ first: 0, last: 7 }} onClose={nothing} onHurts={nothing} />,
  },
};
