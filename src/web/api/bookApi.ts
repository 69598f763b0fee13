import {
  type BookCount,
  type BookFacets,
  type BookFilter,
  type BookQuery,
  bookRoutes,
  type BookView,
  type BulkChange,
  type BulkDone,
  type Counting,
} from '#contract/book';
import type { BookSize } from '#contract/bookSize';
import { type KnownHand, likenessRoutes, type PartLikenesses } from '#contract/imports';
import type { AnswerOf } from '#contract/route';
import { type CreateTunes, type TuneList, tuneRoutes, type TuneSummary } from '#contract/tunes';
import { asked } from './ask';
import { serverApi } from './serverApi';

/** Tunes that are offered where one is picked. */
const FOUND = 40;

/** The book: its pages, what there is to filter by, changes of many tunes, views. */
export const bookApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    /** The book page by page; each page tells where the next begins. */
    book: build.infiniteQuery<TuneList, BookQuery, string | null>({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: ({ next }) => next ?? undefined },
      query: ({ queryArg, pageParam }) =>
        asked(bookRoutes.listTunes, { query: { ...queryArg, ...(pageParam === null ? {} : { after: pageParam }) } }),
      providesTags: ['Book', 'Own'],
    }),
    bookCount: build.query<BookCount, BookFilter>({
      query: (filter) => asked(bookRoutes.countBook, { query: filter }),
      providesTags: ['Book', 'Own'],
    }),
    /** A few tunes by their words, the nearest first; without words by title. */
    foundTunes: build.query<TuneSummary[], string>({
      query: (words) =>
        asked(bookRoutes.listTunes, { query: { ...(words === '' ? { sort: 'title' } : { words }), limit: FOUND } }),
      transformResponse: ({ tunes }: TuneList) => tunes,
      providesTags: ['Book'],
    }),
    /** A few tunes that use a technique; null: of any. */
    tunesOfTechnique: build.query<TuneSummary[], string | null>({
      query: (technique) =>
        asked(bookRoutes.listTunes, {
          query: { ...(technique === null ? {} : { technique }), sort: 'title', limit: FOUND },
        }),
      transformResponse: ({ tunes }: TuneList) => tunes,
      providesTags: ['Book'],
    }),
    facets: build.query<BookFacets, void>({
      query: () => asked(bookRoutes.listFacets, {}),
      providesTags: ['Book'],
    }),
    counting: build.query<Counting, void>({
      query: () => asked(bookRoutes.findCounting, {}),
      providesTags: ['Book'],
    }),
    bookSize: build.query<BookSize, void>({
      query: () => asked(bookRoutes.findBookSize, {}),
      providesTags: ['Book'],
    }),
    changeTunes: build.mutation<BulkDone, BulkChange>({
      query: (body) => asked(bookRoutes.changeTunes, { body }),
      invalidatesTags: ['Book'],
    }),
    takeBackChange: build.mutation<number, string>({
      query: (id) => asked(bookRoutes.takeBackChange, { params: { id } }),
      transformResponse: ({ changed }: AnswerOf<typeof bookRoutes.takeBackChange>) => changed,
      invalidatesTags: ['Book'],
    }),
    deleteRemoved: build.mutation<number, string>({
      query: (by) => asked(bookRoutes.deleteRemoved, { query: { by } }),
      transformResponse: ({ changed }: AnswerOf<typeof bookRoutes.deleteRemoved>) => changed,
      invalidatesTags: ['Book'],
    }),
    loadDemo: build.mutation<number, void>({
      query: () => asked(bookRoutes.loadDemo, {}),
      transformResponse: ({ tunes }: AnswerOf<typeof bookRoutes.loadDemo>) => tunes,
      invalidatesTags: ['Book', 'Pegs'],
    }),
    addTunes: build.mutation<{ id: string; title: string }[], CreateTunes>({
      query: (body) => asked(tuneRoutes.createTunes, { body }),
      transformResponse: ({ tunes }: AnswerOf<typeof tuneRoutes.createTunes>) => tunes,
      invalidatesTags: ['Book'],
    }),
    views: build.query<BookView[], void>({
      query: () => asked(bookRoutes.listViews, {}),
      transformResponse: ({ views }: AnswerOf<typeof bookRoutes.listViews>) => views,
      providesTags: ['Views'],
    }),
    keepView: build.mutation<BookView, Omit<BookView, 'id'>>({
      query: (body) => asked(bookRoutes.keepView, { body }),
      invalidatesTags: ['Views'],
    }),
    removeView: build.mutation<undefined, string>({
      query: (id) => asked(bookRoutes.removeView, { params: { id } }),
      invalidatesTags: ['Views'],
    }),
    partLikenesses: build.query<PartLikenesses, string>({
      query: (id) => asked(likenessRoutes.findPartLikenesses, { params: { id } }),
      providesTags: ['Book'],
    }),
    /** What of a tune its player knows from another one, hand and bowing. */
    knownHands: build.query<KnownHand[], string>({
      query: (id) => asked(likenessRoutes.findKnownHands, { params: { id } }),
      transformResponse: ({ hands }: { hands: KnownHand[] }) => hands,
      providesTags: ['Book', 'Log'],
    }),
  }),
});

export const {
  useBookInfiniteQuery,
  useBookCountQuery,
  useFoundTunesQuery,
  useTunesOfTechniqueQuery,
  useFacetsQuery,
  useCountingQuery,
  useBookSizeQuery,
  useChangeTunesMutation,
  useTakeBackChangeMutation,
  useDeleteRemovedMutation,
  useLoadDemoMutation,
  useAddTunesMutation,
  useViewsQuery,
  useKeepViewMutation,
  useRemoveViewMutation,
  usePartLikenessesQuery,
  useKnownHandsQuery,
} = bookApi;
