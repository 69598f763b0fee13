import { createApi, fakeBaseQuery } from '@reduxjs/toolkit/query/react';
import type { CreateTunes, TuneSummary } from '#contract/tunes';
import type { Pegs, PegsRecord, SavedPegs } from '#contract/pegs';
import type { TuneVersion } from '#contract/versions';
import type { Tune } from '#core/tune';
import type { SavedSettings, SettingsRecord, StoredSettings } from '#contract/settings';
import {
  type Answer,
  type Failure,
  createTunes,
  findPegs,
  findSettings,
  listTunes,
  listVersions,
  nameVersion,
  removeVersion,
  savePegs,
  saveSettings,
} from './client';

function toResult<T, R>(answer: Answer<T>, pick: (value: T) => R) {
  return answer.ok ? { data: pick(answer.value) } : { error: answer.failure };
}

/** The book as the server has it. */
export const tunesApi = createApi({
  reducerPath: 'tunesApi',
  baseQuery: fakeBaseQuery<Failure>(),
  tagTypes: ['Book', 'Versions', 'Settings', 'Pegs'],
  endpoints: (build) => ({
    book: build.query<TuneSummary[], void>({
      queryFn: async () => toResult(await listTunes(), ({ tunes }) => tunes),
      providesTags: ['Book'],
    }),
    addTunes: build.mutation<{ id: string; title: string }[], CreateTunes>({
      queryFn: async (body) => toResult(await createTunes(body), ({ tunes }) => tunes),
      invalidatesTags: ['Book'],
    }),
    settings: build.query<SettingsRecord, void>({
      queryFn: async () => toResult(await findSettings(), (record) => record),
      providesTags: ['Settings'],
    }),
    saveSettings: build.mutation<SavedSettings, { baseRevision: number; settings: StoredSettings }>({
      queryFn: async ({ baseRevision, settings }) =>
        toResult(await saveSettings(baseRevision, settings), (saved) => saved),
      // Shown at once, taken back where the server refuses.
      onQueryStarted: async ({ settings }, { dispatch, queryFulfilled }) => {
        const show = (change: Partial<SettingsRecord>) =>
          dispatch(tunesApi.util.updateQueryData('settings', undefined, (shown) => ({ ...shown, ...change })));
        const shown = show({ settings });
        await queryFulfilled.then(({ data }) => show({ revision: data.revision }), shown.undo);
      },
      // Also where it was refused: what is kept elsewhere is shown then.
      invalidatesTags: ['Settings', 'Book'],
    }),
    pegs: build.query<PegsRecord, void>({
      queryFn: async () => toResult(await findPegs(), (record) => record),
      providesTags: ['Pegs'],
    }),
    savePegs: build.mutation<SavedPegs, { baseRevision: number; pegs: Pegs }>({
      queryFn: async ({ baseRevision, pegs }) => toResult(await savePegs(baseRevision, pegs), (saved) => saved),
      // Shown at once, taken back where the server refuses.
      onQueryStarted: async ({ pegs }, { dispatch, queryFulfilled }) => {
        const show = (change: Partial<PegsRecord>) =>
          dispatch(tunesApi.util.updateQueryData('pegs', undefined, (shown) => ({ ...shown, ...change })));
        const shown = show({ pegs });
        await queryFulfilled.then(
          ({ data }) => show({ revision: data.revision }),
          () => {
            shown.undo();
            dispatch(tunesApi.util.invalidateTags(['Pegs']));
          },
        );
      },
    }),
    versions: build.query<TuneVersion[], string>({
      queryFn: async (id) => toResult(await listVersions(id), ({ versions }) => versions),
      providesTags: (_result, _error, id) => [{ type: 'Versions', id }],
    }),
    nameVersion: build.mutation<TuneVersion, { id: string; name: string; tune: Tune }>({
      queryFn: async ({ id, name, tune }) => toResult(await nameVersion(id, name, tune), (version) => version),
      invalidatesTags: (_result, _error, { id }) => [{ type: 'Versions', id }],
    }),
    removeVersion: build.mutation<null, { id: string; versionId: string }>({
      queryFn: async ({ id, versionId }) => toResult(await removeVersion(id, versionId), () => null),
      invalidatesTags: (_result, _error, { id }) => [{ type: 'Versions', id }],
    }),
  }),
});

export const {
  useSettingsQuery,
  useSaveSettingsMutation,
  usePegsQuery,
  useSavePegsMutation,
  useBookQuery,
  useAddTunesMutation,
  useVersionsQuery,
  useNameVersionMutation,
  useRemoveVersionMutation,
} = tunesApi;
