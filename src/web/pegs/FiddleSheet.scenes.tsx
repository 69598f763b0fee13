import { DEFAULT_PEGS } from '#contract/pegs';
import { nothing, type Scenes } from '../testing/scene';
import { FiddleSheet } from './FiddleSheet';

const [fiddle] = DEFAULT_PEGS.fiddles;
const common = { pegs: DEFAULT_PEGS, isCounted: true, onPegs: nothing, onCount: nothing, onClose: nothing };

export const scenes: Scenes = {
  'as it comes': { show: () => <FiddleSheet {...common} fiddle={fiddle!} /> },
  'with gaps measured': {
    show: () => (
      <FiddleSheet
        {...common}
        isCounted={false}
        fiddle={{
          ...fiddle!,
          name: 'The one from the boathouse',
          hairGaps: [
            { date: '2026-05-02', mm: 7 },
            { date: '2026-06-14', mm: 8.5 },
          ],
        }}
      />
    ),
  },
};
