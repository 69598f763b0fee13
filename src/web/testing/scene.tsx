import { type ComponentType, type ReactElement, useState } from 'react';
import { Provider } from 'react-redux';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { DEFAULT_SETTINGS } from '#contract/settings';
import { noteStates } from '#core/noteStates';
import { reportTune } from '#core/report';
import { type Tune, writtenNotes } from '#core/tune';
import { TUNINGS } from '#core/tuning';
import { readAbc } from '#formats/abc';
import { joinOpenTune } from '../openTune/joinOpenTune';
import type { SheetProps } from '../openTune/sheetProps';
import { createStore } from '../store/store';
import type { FakeServer } from './fakeServer';
import { TIDE_REEL } from './tideReel';

/** A state in which a part of a page is looked at: on the gallery, in pictures, and by tests. */
export interface Scene {
  /** What the server answers in it. */
  readonly answers?: (server: FakeServer) => void;
  readonly show: () => ReactElement;
}

/** The scenes of a part, by what is to be seen in each. They stand beside it, in a file that ends in `.scenes.tsx`. */
export type Scenes = Readonly<Record<string, Scene>>;

export const SCENE_TUNE: Tune = readAbc(TIDE_REEL).tunes[0]!.tune;
export const SCENE_ID = '7c5e2f5e-0000-4000-8000-000000000001';
export const nothing = (): void => undefined;

interface SheetState {
  readonly tune?: Tune;
  /** Numbers of the chosen notes, from the first up to but not including the second. */
  readonly chosen?: readonly [from: number, end: number];
  readonly answers?: Scene['answers'];
}

/** A sheet of the bench about a made-up tune, with some of its notes chosen. */
export function sheetScene(Sheet: ComponentType<SheetProps>, state: SheetState = {}): Scene {
  const { tune = SCENE_TUNE, chosen = [5, 6], answers } = state;
  return { ...(answers && { answers }), show: () => <Sheet {...sheetProps(tune, chosen)} /> };
}

function sheetProps(tune: Tune, [from, end]: readonly [number, number]): SheetProps {
  const report = reportTune(tune);
  const ids = writtenNotes(tune)
    .slice(from, end)
    .map(({ id }) => id);
  const bars = tune.parts[0]!.events.filter(({ kind }) => kind === 'bar');
  return {
    id: SCENE_ID,
    tune,
    report,
    states: noteStates(report, {}),
    ids,
    barIds: bars.slice(1, 2).map(({ id }) => id),
    where: 'bar 1 of A',
    part: tune.parts[0]!.name,
    settings: DEFAULT_SETTINGS,
    tunings: TUNINGS,
    onEdit: nothing,
    onApply: nothing,
    onPreview: nothing,
    onHear: nothing,
    onShow: nothing,
    onClose: nothing,
  };
}

/** A scene as it is mounted: with a store and an address of its own. */
export function Stage({ scene }: { readonly scene: Scene }) {
  const [{ store, router }] = useState(() => {
    const own = createStore();
    joinOpenTune(own);
    return { store: own, router: createMemoryRouter([{ path: '*', element: scene.show() }]) };
  });
  return (
    <Provider store={store}>
      <RouterProvider router={router} />
    </Provider>
  );
}
