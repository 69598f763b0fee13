import { drillFor } from '#core/drills';
import { defaultSettings } from '#core/report';
import { nothing, type Scenes } from '../testing/scene';
import { MeasureSheet } from './MeasureSheet';

const common = { player: defaultSettings(), onMeasured: nothing, onClose: nothing };

export const scenes: Scenes = {
  'a drill that climbs': {
    show: () => <MeasureSheet {...common} limit="crossingMs" drill={drillFor('crossingMs')} />,
  },
  'one slow bow': { show: () => <MeasureSheet {...common} limit="slowestBowCmPerSecond" drill={null} /> },
};
