/** Tables that hold what a player has, each after those it refers to. What is on its way or can be counted again is left out. */
export const BACKUP_TABLES = [
  'player_settings',
  'pegs',
  'sets',
  'book_views',
  'imports',
  'tunes',
  'tune_revisions',
  'tune_versions',
  'tune_sources',
  'tune_prints',
  'bulk_changes',
  'attempts',
  'tune_practice',
] as const;
export type BackupTable = (typeof BACKUP_TABLES)[number];

/** Rows that are left out: imports that are not finished are nothing yet. */
export const KEPT_ROWS: Partial<Record<BackupTable, string>> = { imports: 'finished_at IS NOT NULL' };

/** Tables whose rows carry a revision that a save names: after a backup is back no tab of before may name one of them. */
export const REVISED_TABLES = [
  'tunes',
  'tune_revisions',
  'tune_versions',
  'player_settings',
  'pegs',
  'sets',
  'tune_practice',
] as const satisfies readonly BackupTable[];

export const BACKUP_FORMAT = 'morrin-backup';
/**
 * 1: a head, rows, and an end with their counts. 2: changes of many tunes that can be taken back are in it, and after each
 * table stands how many rows it has and their SHA-256. 3: sets, the log and how tunes are practised are in it.
 */
export const BACKUP_VERSION = 3;

/** From which version on a table is in a backup, where it was not always. */
export const IN_IT_SINCE: Partial<Record<BackupTable, number>> = {
  sets: 3,
  attempts: 3,
  tune_practice: 3,
};

/** What turns a row of a version into one of the next; a version that is not named has rows as the next one has. */
export const UPGRADES: Readonly<
  Record<number, (table: BackupTable, row: Record<string, unknown>) => Record<string, unknown>>
> = {};
