import {
  type Attempt,
  logRoutes,
  type LogSum,
  type SpanDay,
  type TunePractice,
  type TunePracticeRecord,
  tunePracticeRecordSchema,
  USUAL_PRACTICE,
} from '#contract/log';
import type { PlayedDay } from '#core/upkeep';
import type { Failure } from './answer';
import { ask, asked } from './ask';
import { type PagesDispatch, queueOf } from './queues';
import type { Change, Revised, RevisedQueue } from './revisedRecord';
import { serverApi } from './serverApi';

type SavedPractice = Pick<TunePracticeRecord, 'revision'>;

/** Attempts by which a player is judged: older ones count little. */
export const RECENT = 500;

/** The log of practice by stretch and day, and how each tune is practised. */
const logApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    history: build.query<SpanDay[], { readonly tune?: string; readonly since: string }>({
      query: ({ tune, since }) =>
        asked(logRoutes.findHistory, { query: { ...(tune === undefined ? {} : { tune }), since, zone: ownZone() } }),
      transformResponse: ({ days }: { days: SpanDay[] }) => days,
      providesTags: ['Log'],
    }),
    /** What was logged of a tune last. */
    attempts: build.query<Attempt[], string>({
      query: (tune) => asked(logRoutes.listAttempts, { query: { tune, limit: RECENT } }),
      transformResponse: ({ attempts }: { attempts: Attempt[] }) => attempts,
      providesTags: ['Log'],
    }),
    /** What was logged of a tune on one day, or of any tune. */
    attemptsOfDay: build.query<Attempt[], { readonly day: string; readonly tune: string; readonly words?: string }>({
      query: ({ day, tune, words }) =>
        asked(logRoutes.listAttempts, {
          query: { day, tune, zone: ownZone(), limit: RECENT, ...(words ? { words } : {}) },
        }),
      transformResponse: ({ attempts }: { attempts: Attempt[] }) => attempts,
      providesTags: ['Log'],
    }),
    /** What was played day by day, the newest day first. */
    logSums: build.query<LogSum[], { readonly tune?: string; readonly since: string; readonly words?: string }>({
      query: ({ tune, since, words }) =>
        asked(logRoutes.findSums, {
          query: { since, zone: ownZone(), ...(tune === undefined ? {} : { tune }), ...(words ? { words } : {}) },
        }),
      transformResponse: ({ sums }: { sums: LogSum[] }) => sums,
      providesTags: ['Log'],
    }),
    /** Minutes played on each day. */
    playedDays: build.query<PlayedDay[], string>({
      query: (since) => asked(logRoutes.findMinutes, { query: { since, zone: ownZone() } }),
      transformResponse: ({ days }: { days: PlayedDay[] }) => days,
      providesTags: ['Log'],
    }),
    tunePractice: build.query<TunePracticeRecord, string>({
      query: (id) => asked(logRoutes.findTunePractice, { params: { id } }),
      providesTags: (_result, _error, id) => [{ type: 'Practice', id }],
    }),
    saveTunePractice: build.mutation<SavedPractice, { readonly id: string; readonly change: Change<TunePractice> }>({
      queryFn: async ({ id, change }, { dispatch, getState }) => {
        const answer = await practiceQueue(id, dispatch, getState).change(change);
        return answer.ok ? { data: answer.value } : { error: answer.failure };
      },
    }),
  }),
});

/** The zone in which a day is the player's day. */
const ownZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC';

function practiceQueue(
  id: string,
  dispatch: PagesDispatch,
  getState: () => unknown,
): RevisedQueue<TunePractice, SavedPractice> {
  return queueOf(`practice ${id}`, dispatch, {
    shown: () => {
      const record = logApi.endpoints.tunePractice.select(id)(getState() as PagesState).data;
      return { revision: record?.revision ?? 0, value: record?.practice ?? USUAL_PRACTICE };
    },
    show: ({ revision, value }) =>
      void dispatch(logApi.util.updateQueryData('tunePractice', id, () => ({ revision, practice: value }))),
    save: (baseRevision, practice) =>
      ask(logRoutes.saveTunePractice, { params: { id }, body: { baseRevision, practice } }),
    newer: newerPractice,
  });
}

type PagesState = Parameters<ReturnType<typeof logApi.endpoints.tunePractice.select>>[0];

/** The newer choices that a refused save tells of. */
function newerPractice({ code, details }: Failure): Revised<TunePractice> | null {
  const parsed = tunePracticeRecordSchema.safeParse(details);
  return code === 'stale-save' && parsed.success
    ? { revision: parsed.data.revision, value: parsed.data.practice }
    : null;
}

export const {
  useAttemptsQuery,
  useAttemptsOfDayQuery,
  useHistoryQuery,
  useLogSumsQuery,
  usePlayedDaysQuery,
  useTunePracticeQuery,
  useSaveTunePracticeMutation,
} = logApi;
