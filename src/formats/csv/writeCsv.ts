import { stringify } from 'csv-stringify/sync';

/**
 * Rows as comma-separated values (RFC 4180). Cells that a spreadsheet would take for a formula are told as text by an
 * apostrophe before them: a title may begin with any sign.
 */
export function writeCsv(rows: readonly (readonly (string | number | null)[])[]): string {
  return stringify(rows as (string | number | null)[][], { escape_formulas: true, record_delimiter: '\r\n' });
}
