import { NO_SETS, type SavedSets, type Sets, type SetsRecord, setsRecordSchema, setsRoutes } from '#contract/sets';
import type { Failure } from './answer';
import { ask, asked } from './ask';
import { type PagesDispatch, queueOf } from './queues';
import type { Change, Revised, RevisedQueue } from './revisedRecord';
import { serverApi } from './serverApi';

/** Sets of tunes. */
const setsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    sets: build.query<SetsRecord, void>({
      query: () => asked(setsRoutes.findSets, {}),
      providesTags: ['Sets'],
    }),
    saveSets: build.mutation<SavedSets, Change<Sets>>({
      queryFn: async (change, { dispatch, getState }) => {
        const answer = await setsQueue(dispatch, getState).change(change);
        return answer.ok ? { data: answer.value } : { error: answer.failure };
      },
    }),
  }),
});

function setsQueue(dispatch: PagesDispatch, getState: () => unknown): RevisedQueue<Sets, SavedSets> {
  return queueOf('sets', dispatch, {
    shown: () => {
      const record = setsApi.endpoints.sets.select()(getState() as PagesState).data;
      return { revision: record?.revision ?? 0, value: record?.sets ?? NO_SETS };
    },
    show: ({ revision, value }) =>
      void dispatch(setsApi.util.updateQueryData('sets', undefined, () => ({ revision, sets: value }))),
    save: (baseRevision, sets) => ask(setsRoutes.saveSets, { body: { baseRevision, sets } }),
    newer: newerSets,
  });
}

type PagesState = Parameters<ReturnType<typeof setsApi.endpoints.sets.select>>[0];

/** The newer sets that a refused save tells of. */
function newerSets({ code, details }: Failure): Revised<Sets> | null {
  const parsed = setsRecordSchema.safeParse(details);
  return code === 'stale-save' && parsed.success ? { revision: parsed.data.revision, value: parsed.data.sets } : null;
}

export const { useSetsQuery, useSaveSetsMutation } = setsApi;
