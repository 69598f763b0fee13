import { DEFAULT_SETTINGS, type SettingsRecord, type StoredSettings } from '#contract/settings';
import type { Queryable } from '../db';

interface SettingsRow {
  revision: number;
  document: StoredSettings;
}

/** The settings kept, or the usual ones where none are. */
export async function findSettings(db: Queryable): Promise<SettingsRecord> {
  const { rows } = await db.query<SettingsRow>('SELECT revision, document FROM player_settings');
  const row = rows[0];
  if (!row) return { revision: 0, settings: DEFAULT_SETTINGS };
  // Choices that came after they were kept are the usual ones.
  const { schools, words, ...figures } = row.document;
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
export async function saveSettings(
  db: Queryable,
  baseRevision: number,
  settings: StoredSettings,
): Promise<number | null> {
  const document = JSON.stringify(settings);
  const { rows } = await db.query<{ revision: number }>(
    baseRevision === 0
      ? `INSERT INTO player_settings (document) VALUES ($1) ON CONFLICT DO NOTHING RETURNING revision`
      : `UPDATE player_settings SET revision = revision + 1, document = $1, updated_at = now()
          WHERE revision = $2 RETURNING revision`,
    baseRevision === 0 ? [document] : [document, baseRevision],
  );
  return rows[0]?.revision ?? null;
}
