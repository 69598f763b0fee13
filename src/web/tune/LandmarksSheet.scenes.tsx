import { logRoutes, USUAL_PRACTICE } from '#contract/log';
import { writtenNotes } from '#core/tune';
import { SCENE_TUNE, type Scenes, sheetScene } from '../testing/scene';
import { LandmarksSheet } from './LandmarksSheet';

const notes = writtenNotes(SCENE_TUNE);
const landmark = (id: string, name: string, from: string, to: string) => ({ id, name, part: 'A', from, to });

export const scenes: Scenes = {
  'two names, one of which has lost its notes': sheetScene(LandmarksSheet, {
    chosen: [5, 9],
    answers: (server) =>
      server.answer(logRoutes.findTunePractice, {
        revision: 1,
        practice: {
          ...USUAL_PRACTICE,
          landmarks: [
            landmark('00000000-0000-4000-8000-000000000001', 'the climb', notes[0]!.id, notes[3]!.id),
            landmark('00000000-0000-4000-8000-000000000002', 'the old ending', 'gone', 'gone too'),
          ],
        },
      }),
  }),
  'no name yet, and nothing selected': sheetScene(LandmarksSheet, {
    chosen: [0, 0],
    answers: (server) => server.answer(logRoutes.findTunePractice, { revision: 0, practice: USUAL_PRACTICE }),
  }),
};
