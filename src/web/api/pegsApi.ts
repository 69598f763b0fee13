import { DEFAULT_PEGS, type Pegs, type PegsRecord, pegsRecordSchema, pegsRoutes, type SavedPegs } from '#contract/pegs';
import type { Failure } from './answer';
import { ask, asked } from './ask';
import { type PagesDispatch, queueOf } from './queues';
import type { Change, Revised, RevisedQueue } from './revisedRecord';
import { serverApi } from './serverApi';

/** Fiddles, their strings and checks, and the player's own tunings. */
const pegsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    pegs: build.query<PegsRecord, void>({
      query: () => asked(pegsRoutes.findPegs, {}),
      providesTags: ['Pegs'],
    }),
    savePegs: build.mutation<SavedPegs, Change<Pegs>>({
      queryFn: async (change, { dispatch, getState }) => {
        const answer = await pegsQueue(dispatch, getState).change(change);
        return answer.ok ? { data: answer.value } : { error: answer.failure };
      },
    }),
  }),
});

/** Choices come quickly: each is shown at once and kept after the one before it. */
function pegsQueue(dispatch: PagesDispatch, getState: () => unknown): RevisedQueue<Pegs, SavedPegs> {
  return queueOf('pegs', dispatch, {
    shown: () => {
      const record = pegsApi.endpoints.pegs.select()(getState() as PagesState).data;
      return { revision: record?.revision ?? 0, value: record?.pegs ?? DEFAULT_PEGS };
    },
    show: ({ revision, value }) =>
      void dispatch(pegsApi.util.updateQueryData('pegs', undefined, () => ({ revision, pegs: value }))),
    save: (baseRevision, pegs) => ask(pegsRoutes.savePegs, { body: { baseRevision, pegs } }),
    newer: newerPegs,
  });
}

type PagesState = Parameters<ReturnType<typeof pegsApi.endpoints.pegs.select>>[0];

/** The newer fiddles that a refused save tells of. */
function newerPegs({ code, details }: Failure): Revised<Pegs> | null {
  const parsed = pegsRecordSchema.safeParse(details);
  return code === 'stale-save' && parsed.success ? { revision: parsed.data.revision, value: parsed.data.pegs } : null;
}

export const { usePegsQuery, useSavePegsMutation } = pegsApi;
