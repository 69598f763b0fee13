import { versionRoutes } from '#contract/versions';
import { SCENE_TUNE, type Scenes, sheetScene } from '../testing/scene';
import { VersionsSheet } from './VersionsSheet';

const AT = '2026-06-30T12:00:00.000Z';
const plan = { kind: 'plan' as const, taughtBy: '', learnedOn: null, note: '' };

export const scenes: Scenes = {
  'two versions': sheetScene(VersionsSheet, {
    answers: (server) =>
      server.answer(versionRoutes.listVersions, {
        versions: [
          {
            id: '7c5e2f5e-0000-4000-8000-00000000000a',
            name: 'plain',
            createdAt: AT,
            revision: 1,
            tune: SCENE_TUNE,
            ...plan,
          },
          {
            id: '7c5e2f5e-0000-4000-8000-00000000000b',
            name: 'with drones wherever they fit, for the dance on the slipway at midsummer',
            createdAt: AT,
            revision: 1,
            tune: { ...SCENE_TUNE, start: 'up' },
            ...plan,
          },
        ],
      }),
  }),
  'none yet': sheetScene(VersionsSheet, {
    answers: (server) => server.answer(versionRoutes.listVersions, { versions: [] }),
  }),
  'the server does not answer': sheetScene(VersionsSheet, {
    answers: (server) => server.refuse(versionRoutes.listVersions, 'database-away'),
  }),
};
