import type { Command, CommandGroup } from './command';
import { type SheetName, SHEETS } from './sheetList';

/** Sheets by group, with the keys that open them. */
const KEYS: readonly (readonly [SheetName, CommandGroup, string | null])[] = [
  ['patterns', 'look', 'p'],
  ['bowings', 'look', 'w'],
  ['bow', 'look', 'm'],
  ['twins', 'look', 'f'],
  ['fingering', 'look', 'g'],
  ['drones', 'look', 'c'],
  ['ornaments', 'look', 'a'],
  ['tunings', 'look', 'i'],
  ['landmarks', 'look', null],
  ['take', 'look', 'shift+k'],
  ['note', 'marks', 'n'],
  ['bar', 'bars', null],
  ['tune', 'tune', null],
  ['form', 'tune', null],
  ['versions', 'tune', null],
  ['keys', 'tune', '?'],
];

/** A sheet is opened by a command of its name. */
export const SHEET_COMMANDS: readonly Command[] = KEYS.map(([name, group, key]) => ({
  id: name,
  label: SHEETS[name].label,
  asks: true,
  group,
  keys: key === null ? [] : [key],
  applies: SHEETS[name].applies,
  run: ({ showSheet }) => showSheet(name),
}));
