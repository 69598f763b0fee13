/** Tables that hold what a player has, each after those it refers to. What is on its way or can be counted again is left out. */
export const BACKUP_TABLES = [
  'player_settings',
  'pegs',
  'book_views',
  'imports',
  'tunes',
  'tune_revisions',
  'tune_versions',
  'tune_sources',
  'tune_prints',
] as const;
export type BackupTable = (typeof BACKUP_TABLES)[number];

/** Rows that are left out: imports that are not finished are nothing yet. */
export const KEPT_ROWS: Partial<Record<BackupTable, string>> = { imports: 'finished_at IS NOT NULL' };

export const BACKUP_FORMAT = 'morrin-backup';
export const BACKUP_VERSION = 1;
