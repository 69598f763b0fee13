import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { createApi, fakeBaseQuery } from '@reduxjs/toolkit/query/react';
import type {
  BookCount,
  BookFacets,
  BookFilter,
  BookQuery,
  BookView,
  BulkChange,
  BulkDone,
  Counting,
} from '#contract/book';
import type { BookSize } from '#contract/bookSize';
import type { KeptCopies, Restored } from '#contract/exports';
import type { RevisionList, TuneRevision } from '#contract/revisions';
import type { PartLikenesses } from '#contract/imports';
import type { CreateTunes, TuneList } from '#contract/tunes';
import { type Pegs, type PegsRecord, type SavedPegs, DEFAULT_PEGS } from '#contract/pegs';
import type { ChangeVersion, NameVersion, TuneVersion } from '#contract/versions';
import { type SavedSettings, type SettingsRecord, type StoredSettings, DEFAULT_SETTINGS } from '#contract/settings';
import type { Answer, Failure } from './answer';
import {
  changeTunes,
  changeVersion,
  countBook,
  createTunes,
  deleteRemoved,
  findBookSize,
  findCounting,
  findPartLikenesses,
  findPegs,
  findRevision,
  findSettings,
  keepView,
  listFacets,
  listRevisions,
  listTunes,
  listCopies,
  listVersions,
  listViews,
  loadDemo,
  nameVersion,
  newerPegs,
  newerSettings,
  removeVersion,
  removeView,
  restoreBackup,
  savePegs,
  saveSettings,
  takeBackChange,
} from './client';
import { type Change, RevisedQueue } from './revisedRecord';

// The store’s state holds this API’s own, so its type is not known before the API’s.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type PagesDispatch = ThunkDispatch<any, any, UnknownAction>;

interface Queues {
  readonly settings: RevisedQueue<StoredSettings, SavedSettings>;
  readonly pegs: RevisedQueue<Pegs, SavedPegs>;
}
/** The queues of a store, by its dispatch. */
const queues = new WeakMap<PagesDispatch, Queues>();

function queuesOf(dispatch: PagesDispatch, getState: () => unknown): Queues {
  let own = queues.get(dispatch);
  if (!own) queues.set(dispatch, (own = makeQueues(dispatch, getState)));
  return own;
}

/** One queue for each record that is saved as a whole. */
function makeQueues(dispatch: PagesDispatch, getState: () => unknown): Queues {
  type State = Parameters<ReturnType<typeof tunesApi.endpoints.settings.select>>[0];
  return {
    settings: new RevisedQueue<StoredSettings, SavedSettings>({
      shown: () => {
        const record = tunesApi.endpoints.settings.select()(getState() as State).data;
        return { revision: record?.revision ?? 0, value: record?.settings ?? DEFAULT_SETTINGS };
      },
      show: ({ revision, value }) =>
        void dispatch(tunesApi.util.updateQueryData('settings', undefined, () => ({ revision, settings: value }))),
      save: saveSettings,
      newer: newerSettings,
    }),
    pegs: new RevisedQueue<Pegs, SavedPegs>({
      shown: () => {
        const record = tunesApi.endpoints.pegs.select()(getState() as State).data;
        return { revision: record?.revision ?? 0, value: record?.pegs ?? DEFAULT_PEGS };
      },
      show: ({ revision, value }) =>
        void dispatch(tunesApi.util.updateQueryData('pegs', undefined, () => ({ revision, pegs: value }))),
      save: savePegs,
      newer: newerPegs,
    }),
  };
}

function toResult<T, R>(answer: Answer<T>, pick: (value: T) => R) {
  return answer.ok ? { data: pick(answer.value) } : { error: answer.failure };
}

/** The book as the server has it. */
export const tunesApi = createApi({
  reducerPath: 'tunesApi',
  baseQuery: fakeBaseQuery<Failure>(),
  tagTypes: ['Book', 'Views', 'Versions', 'Settings', 'Pegs', 'Copies'],
  endpoints: (build) => ({
    /** The book page by page; each page tells where the next begins. */
    book: build.infiniteQuery<TuneList, BookQuery, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: ({ next }) => next ?? undefined },
      queryFn: async ({ queryArg, pageParam }) =>
        toResult(await listTunes({ ...queryArg, ...(pageParam === null ? {} : { after: pageParam }) }), (page) => page),
      providesTags: ['Book'],
    }),
    bookCount: build.query<BookCount, BookFilter>({
      queryFn: async (filter) => toResult(await countBook(filter), (count) => count),
      providesTags: ['Book'],
    }),
    facets: build.query<BookFacets, void>({
      queryFn: async () => toResult(await listFacets(), (facets) => facets),
      providesTags: ['Book'],
    }),
    counting: build.query<Counting, void>({
      queryFn: async () => toResult(await findCounting(), (counting) => counting),
      providesTags: ['Book'],
    }),
    changeTunes: build.mutation<BulkDone, BulkChange>({
      queryFn: async (change) => toResult(await changeTunes(change), (done) => done),
      invalidatesTags: ['Book'],
    }),
    takeBackChange: build.mutation<number, string>({
      queryFn: async (id) => toResult(await takeBackChange(id), ({ changed }) => changed),
      invalidatesTags: ['Book'],
    }),
    deleteRemoved: build.mutation<number, string>({
      queryFn: async (by) => toResult(await deleteRemoved(by), ({ changed }) => changed),
      invalidatesTags: ['Book'],
    }),
    loadDemo: build.mutation<number, void>({
      queryFn: async () => toResult(await loadDemo(), ({ tunes }) => tunes),
      invalidatesTags: ['Book', 'Pegs'],
    }),
    views: build.query<BookView[], void>({
      queryFn: async () => toResult(await listViews(), ({ views }) => views),
      providesTags: ['Views'],
    }),
    keepView: build.mutation<BookView, Omit<BookView, 'id'>>({
      queryFn: async (view) => toResult(await keepView(view), (kept) => kept),
      invalidatesTags: ['Views'],
    }),
    removeView: build.mutation<null, string>({
      queryFn: async (id) => toResult(await removeView(id), () => null),
      invalidatesTags: ['Views'],
    }),
    partLikenesses: build.query<PartLikenesses, string>({
      queryFn: async (id) => toResult(await findPartLikenesses(id), (found) => found),
      providesTags: ['Book'],
    }),
    revisions: build.query<RevisionList['revisions'], string>({
      queryFn: async (id) => toResult(await listRevisions(id), ({ revisions }) => revisions),
      // Every save makes one.
      keepUnusedDataFor: 0,
    }),
    revision: build.query<TuneRevision, { id: string; revision: number }>({
      queryFn: async ({ id, revision }) => toResult(await findRevision(id, revision), (found) => found),
    }),
    bookSize: build.query<BookSize, void>({
      queryFn: async () => toResult(await findBookSize(), (size) => size),
      providesTags: ['Book'],
    }),
    copies: build.query<KeptCopies['copies'], void>({
      queryFn: async () => toResult(await listCopies(), ({ copies }) => copies),
      providesTags: ['Copies'],
    }),
    restoreBackup: build.mutation<Restored, Blob>({
      queryFn: async (file) => toResult(await restoreBackup(file), (restored) => restored),
      invalidatesTags: ['Book', 'Views', 'Versions', 'Settings', 'Pegs', 'Copies'],
    }),
    addTunes: build.mutation<{ id: string; title: string }[], CreateTunes>({
      queryFn: async (body) => toResult(await createTunes(body), ({ tunes }) => tunes),
      invalidatesTags: ['Book'],
    }),
    settings: build.query<SettingsRecord, void>({
      queryFn: async () => toResult(await findSettings(), (record) => record),
      providesTags: ['Settings'],
    }),
    saveSettings: build.mutation<SavedSettings, Change<StoredSettings>>({
      queryFn: async (change, { dispatch, getState }) =>
        toResult(await queuesOf(dispatch, getState).settings.change(change), (saved) => saved),
      invalidatesTags: ['Book'],
    }),
    pegs: build.query<PegsRecord, void>({
      queryFn: async () => toResult(await findPegs(), (record) => record),
      providesTags: ['Pegs'],
    }),
    savePegs: build.mutation<SavedPegs, Change<Pegs>>({
      queryFn: async (change, { dispatch, getState }) =>
        toResult(await queuesOf(dispatch, getState).pegs.change(change), (saved) => saved),
    }),
    versions: build.query<TuneVersion[], string>({
      queryFn: async (id) => toResult(await listVersions(id), ({ versions }) => versions),
      providesTags: (_result, _error, id) => [{ type: 'Versions', id }],
    }),
    nameVersion: build.mutation<TuneVersion, { id: string } & NameVersion>({
      queryFn: async ({ id, ...version }) => toResult(await nameVersion(id, version), (kept) => kept),
      invalidatesTags: (_result, _error, { id }) => [{ type: 'Versions', id }],
    }),
    changeVersion: build.mutation<TuneVersion, { id: string; versionId: string; change: ChangeVersion }>({
      queryFn: async ({ id, versionId, change }) =>
        toResult(await changeVersion(id, versionId, change), (version) => version),
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
  useBookInfiniteQuery,
  useBookCountQuery,
  useFacetsQuery,
  useCountingQuery,
  useChangeTunesMutation,
  useTakeBackChangeMutation,
  useDeleteRemovedMutation,
  useLoadDemoMutation,
  useViewsQuery,
  useKeepViewMutation,
  useRemoveViewMutation,
  usePartLikenessesQuery,
  useBookSizeQuery,
  useCopiesQuery,
  useRevisionQuery,
  useRevisionsQuery,
  useRestoreBackupMutation,
  useChangeVersionMutation,
  useAddTunesMutation,
  useVersionsQuery,
  useNameVersionMutation,
  useRemoveVersionMutation,
} = tunesApi;
