import { blankTune } from '#core/editing';
import { nothing, SCENE_TUNE, type Scenes } from '../testing/scene';
import { TuneSheet } from './TuneSheet';

const common = { heading: 'This tune', deed: 'Save', hasNotes: true, onDone: nothing, onClose: nothing };

export const scenes: Scenes = {
  'a tune with notes': { show: () => <TuneSheet {...common} tune={SCENE_TUNE} /> },
  'a tune that is begun': {
    show: () => <TuneSheet {...common} heading="Begin a tune" deed="Begin" hasNotes={false} tune={blankTune()} />,
  },
  'a long title': {
    show: () => (
      <TuneSheet
        {...common}
        tune={{
          ...SCENE_TUNE,
          title: 'The Ferryman’s Daughter Crossing the Sound at Low Water on the Last Night of the Year',
          composer: 'as Ansa Merrow’s grandmother had it, who had it from the ferryman himself',
        }}
      />
    ),
  },
};
