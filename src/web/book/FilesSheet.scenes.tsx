import { bookRoutes } from '#contract/book';
import { backupRoutes } from '#contract/exports';
import type { FakeServer } from '../testing/fakeServer';
import { nothing, type Scenes } from '../testing/scene';
import { FilesSheet } from './FilesSheet';

const sizes = (server: FakeServer) =>
  server.answer(bookRoutes.findBookSize, { tunes: 4e6, revisions: 12e6, originals: 2e6, whole: 24e6 });

const all = { choice: null, chosen: 0, filter: null, shown: 214, total: 214, onClose: nothing };

export const scenes: Scenes = {
  'the whole book': {
    answers: (server) => {
      sizes(server);
      server.answer(backupRoutes.listCopies, {
        copies: [
          { name: 'daily-2026-06-29.jsonl.gz', kind: 'daily', madeAt: '2026-06-29T03:00:00.000Z', bytes: 1_400_000 },
        ],
      });
    },
    show: () => <FilesSheet {...all} />,
  },
  'seven chosen, and no copies yet': {
    answers: (server) => {
      sizes(server);
      server.answer(backupRoutes.listCopies, { copies: [] });
    },
    show: () => <FilesSheet {...all} choice={{ ids: [] }} chosen={7} />,
  },
  'the server does not answer': {
    answers: (server) => {
      server.refuse(bookRoutes.findBookSize, 'database-away');
      server.refuse(backupRoutes.listCopies, 'database-away');
    },
    show: () => <FilesSheet {...all} />,
  },
};
