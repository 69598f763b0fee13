import { likenessRoutes } from '#contract/imports';
import { blankTune } from '#core/editing';
import { type Scenes, sheetScene } from '../testing/scene';
import { TwinsSheet } from './TwinsSheet';

export const scenes: Scenes = {
  'figures that come again': sheetScene(TwinsSheet, {
    answers: (server) => server.answer(likenessRoutes.findPartLikenesses, { tunes: [], parts: [] }),
  }),
  'an empty tune': sheetScene(TwinsSheet, {
    tune: blankTune(),
    chosen: [0, 0],
    answers: (server) => server.answer(likenessRoutes.findPartLikenesses, { tunes: [], parts: [] }),
  }),
};
