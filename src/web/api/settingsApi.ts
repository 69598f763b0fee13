import {
  DEFAULT_SETTINGS,
  type SavedSettings,
  type SettingsRecord,
  settingsRecordSchema,
  settingsRoutes,
  type StoredSettings,
} from '#contract/settings';
import type { Failure } from './answer';
import { ask, asked } from './ask';
import { type PagesDispatch, queueOf } from './queues';
import type { Change, Revised, RevisedQueue } from './revisedRecord';
import { serverApi } from './serverApi';

/** The player's settings. */
export const settingsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    settings: build.query<SettingsRecord, void>({
      query: () => asked(settingsRoutes.findSettings, {}),
      providesTags: ['Settings'],
    }),
    saveSettings: build.mutation<SavedSettings, Change<StoredSettings>>({
      queryFn: async (change, { dispatch, getState }) => {
        const answer = await settingsQueue(dispatch, getState).change(change);
        return answer.ok ? { data: answer.value } : { error: answer.failure };
      },
      invalidatesTags: ['Book'],
    }),
  }),
});

/** Choices come quickly: each is shown at once and kept after the one before it. */
function settingsQueue(dispatch: PagesDispatch, getState: () => unknown): RevisedQueue<StoredSettings, SavedSettings> {
  return queueOf('settings', dispatch, {
    shown: () => {
      const record = settingsApi.endpoints.settings.select()(getState() as PagesState).data;
      return { revision: record?.revision ?? 0, value: record?.settings ?? DEFAULT_SETTINGS };
    },
    show: ({ revision, value }) =>
      void dispatch(settingsApi.util.updateQueryData('settings', undefined, () => ({ revision, settings: value }))),
    save: (baseRevision, settings) => ask(settingsRoutes.saveSettings, { body: { baseRevision, settings } }),
    newer: newerSettings,
  });
}

type PagesState = Parameters<ReturnType<typeof settingsApi.endpoints.settings.select>>[0];

/** The newer settings that a refused save tells of. */
function newerSettings({ code, details }: Failure): Revised<StoredSettings> | null {
  const parsed = settingsRecordSchema.safeParse(details);
  return code === 'stale-save' && parsed.success
    ? { revision: parsed.data.revision, value: parsed.data.settings }
    : null;
}

export const { useSettingsQuery, useSaveSettingsMutation } = settingsApi;
