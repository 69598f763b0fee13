import { backupRoutes, type KeptCopies, type Restored } from '#contract/exports';
import { asked } from './ask';
import { serverApi } from './serverApi';

/** Backups taken back, and the copies that the server made by itself. */
const backupApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    copies: build.query<KeptCopies['copies'], void>({
      query: () => asked(backupRoutes.listCopies, {}),
      transformResponse: ({ copies }: KeptCopies) => copies,
      providesTags: ['Copies'],
    }),
    restoreBackup: build.mutation<Restored, Blob>({
      query: (file) => asked(backupRoutes.restoreBackup, { body: new Blob([file], { type: 'application/gzip' }) }),
      invalidatesTags: ['Book', 'Views', 'Versions', 'Settings', 'Pegs', 'Copies'],
    }),
  }),
});

export const { useCopiesQuery, useRestoreBackupMutation } = backupApi;
