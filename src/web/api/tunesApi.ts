import { createApi, fakeBaseQuery } from '@reduxjs/toolkit/query/react';
import type { CreateTunes, TuneSummary } from '#contract/tunes';
import type { TuneVersion } from '#contract/versions';
import type { Tune } from '#core/tune';
import { type Answer, type Failure, createTunes, listTunes, listVersions, nameVersion, removeVersion } from './client';

function toResult<T, R>(answer: Answer<T>, pick: (value: T) => R) {
  return answer.ok ? { data: pick(answer.value) } : { error: answer.failure };
}

/** The book as the server has it. */
export const tunesApi = createApi({
  reducerPath: 'tunesApi',
  baseQuery: fakeBaseQuery<Failure>(),
  tagTypes: ['Book', 'Versions'],
  endpoints: (build) => ({
    book: build.query<TuneSummary[], void>({
      queryFn: async () => toResult(await listTunes(), ({ tunes }) => tunes),
      providesTags: ['Book'],
    }),
    addTunes: build.mutation<{ id: string; title: string }[], CreateTunes>({
      queryFn: async (body) => toResult(await createTunes(body), ({ tunes }) => tunes),
      invalidatesTags: ['Book'],
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

export const { useBookQuery, useAddTunesMutation, useVersionsQuery, useNameVersionMutation, useRemoveVersionMutation } =
  tunesApi;
