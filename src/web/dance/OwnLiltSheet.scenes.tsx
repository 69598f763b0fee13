import { LILTS } from '#core/tempo';
import { nothing, type Scenes } from '../testing/scene';
import { OwnLiltSheet } from './OwnLiltSheet';

const common = { taken: [], onKeep: nothing, onClose: nothing };

export const scenes: Scenes = {
  'a new one': { show: () => <OwnLiltSheet {...common} lilt={null} onRemove={null} /> },
  'one of their own': {
    show: () => <OwnLiltSheet {...common} lilt={{ ...LILTS[0]!, name: 'slipway' }} onRemove={nothing} />,
  },
};
