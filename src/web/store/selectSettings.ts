import { createSelector } from '@reduxjs/toolkit';
import { DEFAULT_SETTINGS, playerSettings, type SettingsRecord } from '#contract/settings';
import { settingsApi } from '../api/settingsApi';

type WithApi = Parameters<ReturnType<typeof settingsApi.endpoints.settings.select>>[0];

const selectResult = settingsApi.endpoints.settings.select();

/** The settings as last heard of from the server; the usual ones until then. */
export function selectSettings(state: object): SettingsRecord {
  const isThere = settingsApi.reducerPath in state;
  return (isThere ? selectResult(state as WithApi).data : undefined) ?? DEFAULT_RECORD;
}
const DEFAULT_RECORD: SettingsRecord = { revision: 0, settings: DEFAULT_SETTINGS };

/** What the core counts with. */
export const selectPlayer = createSelector([selectSettings], ({ settings }) => playerSettings(settings));

export const selectWords = (state: object) => selectSettings(state).settings.words;
