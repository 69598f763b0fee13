import { type RevisionList, revisionRoutes, type TuneRevision } from '#contract/revisions';
import { type ChangeVersion, type NameVersion, type TuneVersion, versionRoutes } from '#contract/versions';
import { asked } from './ask';
import { serverApi } from './serverApi';

/** Versions of a tune under names, and how it stood after earlier saves. */
const versionsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    versions: build.query<TuneVersion[], string>({
      query: (id) => asked(versionRoutes.listVersions, { params: { id } }),
      transformResponse: ({ versions }: { versions: TuneVersion[] }) => versions,
      providesTags: (_result, _error, id) => [{ type: 'Versions', id }],
    }),
    nameVersion: build.mutation<TuneVersion, { id: string } & NameVersion>({
      query: ({ id, ...body }) => asked(versionRoutes.nameVersion, { params: { id }, body }),
      invalidatesTags: (_result, _error, { id }) => [{ type: 'Versions', id }],
    }),
    changeVersion: build.mutation<TuneVersion, { id: string; versionId: string; change: ChangeVersion }>({
      query: ({ id, versionId, change }) =>
        asked(versionRoutes.changeVersion, { params: { id, versionId }, body: change }),
      invalidatesTags: (_result, _error, { id }) => [{ type: 'Versions', id }],
    }),
    removeVersion: build.mutation<undefined, { id: string; versionId: string }>({
      query: (params) => asked(versionRoutes.removeVersion, { params }),
      invalidatesTags: (_result, _error, { id }) => [{ type: 'Versions', id }],
    }),
    revisions: build.query<RevisionList['revisions'], string>({
      query: (id) => asked(revisionRoutes.listRevisions, { params: { id } }),
      transformResponse: ({ revisions }: RevisionList) => revisions,
      // Every save makes one.
      keepUnusedDataFor: 0,
    }),
    revision: build.query<TuneRevision, { id: string; revision: number }>({
      query: (params) => asked(revisionRoutes.findRevision, { params }),
    }),
  }),
});

export const {
  useVersionsQuery,
  useNameVersionMutation,
  useChangeVersionMutation,
  useRemoveVersionMutation,
  useRevisionsQuery,
  useRevisionQuery,
} = versionsApi;
