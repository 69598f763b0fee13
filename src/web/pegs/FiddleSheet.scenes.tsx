import { DEFAULT_PEGS } from '#contract/pegs';
import { nothing, type Scenes } from '../testing/scene';
import { FiddleSheet } from './FiddleSheet';

const [fiddle] = DEFAULT_PEGS.fiddles;
const played = [{ day: '2026-06-01', minutes: 90 }];
const common = { pegs: DEFAULT_PEGS, played, isCounted: true, onPegs: nothing, onCount: nothing, onClose: nothing };

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
          rosinedOn: '2026-05-30',
          rehairedOn: '2025-11-02',
          hairGaps: [
            { date: '2026-05-02', mm: 7, bpm: 96 },
            { date: '2026-06-14', mm: 8.5, bpm: null },
          ],
        }}
      />
    ),
  },
};
