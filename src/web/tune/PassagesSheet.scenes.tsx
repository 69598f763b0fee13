import { logRoutes, USUAL_PRACTICE } from '#contract/log';
import { writtenNotes } from '#core/tune';
import { SCENE_TUNE, type Scenes, sheetScene } from '../testing/scene';
import { PassagesSheet } from './PassagesSheet';

const notes = writtenNotes(SCENE_TUNE);
const passage = (id: string, name: string, from: string, to: string) => ({ id, name, part: 'A', from, to });

export const scenes: Scenes = {
  'two names, one of which has lost its notes': sheetScene(PassagesSheet, {
    chosen: [5, 9],
    answers: (server) =>
      server.answer(logRoutes.findTunePractice, {
        revision: 1,
        practice: {
          ...USUAL_PRACTICE,
          landmarks: [
            passage('00000000-0000-4000-8000-000000000001', 'the climb', notes[0]!.id, notes[3]!.id),
            passage('00000000-0000-4000-8000-000000000002', 'the old ending', 'gone', 'gone too'),
          ],
        },
      }),
  }),
  'no name yet, and nothing selected': sheetScene(PassagesSheet, {
    chosen: [0, 0],
    answers: (server) => server.answer(logRoutes.findTunePractice, { revision: 0, practice: USUAL_PRACTICE }),
  }),
};
