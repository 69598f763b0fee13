import { DEFAULT_SETTINGS, type SettingsRecord, type StoredSettings } from '#contract/settings';
import type { Queryable } from '../db';
import { findRevised, saveRevised } from '../revisedDocument';

/** The settings kept, or the usual ones where none are. */
export async function findSettings(db: Queryable): Promise<SettingsRecord> {
  const row = await findRevised(db, 'player_settings');
  if (!row) return { revision: 0, settings: DEFAULT_SETTINGS };
  // Choices that came after they were kept are the usual ones.
  const { schools, words, ...figures } = row.document as StoredSettings;
  return {
    revision: row.revision,
    settings: {
      ...DEFAULT_SETTINGS,
      ...figures,
      schools: { ...DEFAULT_SETTINGS.schools, ...schools },
      words: { ...DEFAULT_SETTINGS.words, ...words },
    },
  };
}

/** Replaces the settings if they still are at `baseRevision`; null when they are not. */
export function saveSettings(db: Queryable, baseRevision: number, settings: StoredSettings): Promise<number | null> {
  return saveRevised(db, 'player_settings', baseRevision, settings);
}
