import { createApi, fakeBaseQuery } from '@reduxjs/toolkit/query/react';
import type { CreateTunes, TuneSummary } from '#contract/tunes';
import { type Answer, type Failure, createTunes, listTunes } from './client';

function toResult<T, R>(answer: Answer<T>, pick: (value: T) => R) {
  return answer.ok ? { data: pick(answer.value) } : { error: answer.failure };
}

/** The book as the server has it. */
export const tunesApi = createApi({
  reducerPath: 'tunesApi',
  baseQuery: fakeBaseQuery<Failure>(),
  tagTypes: ['Book'],
  endpoints: (build) => ({
    book: build.query<TuneSummary[], void>({
      queryFn: async () => toResult(await listTunes(), ({ tunes }) => tunes),
      providesTags: ['Book'],
    }),
    addTunes: build.mutation<{ id: string; title: string }[], CreateTunes>({
      queryFn: async (body) => toResult(await createTunes(body), ({ tunes }) => tunes),
      invalidatesTags: ['Book'],
    }),
  }),
});

export const { useBookQuery, useAddTunesMutation } = tunesApi;
