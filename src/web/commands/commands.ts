import { BOW_COMMANDS } from './bowCommands';
import type { Bench, Command } from './command';
import { EDIT_COMMANDS } from './editCommands';
import { GO_COMMANDS } from './goCommands';
import { comboOf, keysShown, type PressedKey } from './keys';
import { LISTEN_COMMANDS } from './listenCommands';
import { MARK_COMMANDS } from './markCommands';
import { SHEET_COMMANDS } from './sheetCommands';
import { TUNE_COMMANDS } from './tuneCommands';

/** Everything that one can do at the bench. */
export const COMMANDS: readonly Command[] = [
  ...GO_COMMANDS,
  ...BOW_COMMANDS,
  ...LISTEN_COMMANDS,
  ...SHEET_COMMANDS,
  ...MARK_COMMANDS,
  ...EDIT_COMMANDS,
  ...TUNE_COMMANDS,
];

const BY_ID = new Map(COMMANDS.map((command) => [command.id, command]));
const BY_KEYS = new Map(COMMANDS.flatMap((command) => command.keys.map((combo) => [combo, command])));

/** @throws RangeError for a name that no command has */
export function commandOf(id: string): Command {
  const command = BY_ID.get(id);
  if (!command) throw new RangeError(`commandOf: no command is called ${id}`);
  return command;
}

/** The command of a pressed key; a letter is the same with caps on. */
export function commandOfKey(event: PressedKey): Command | null {
  const combo = comboOf(event);
  return BY_KEYS.get(combo) ?? BY_KEYS.get(combo.replace(/^shift\+(?=[a-z]$)/, '')) ?? null;
}

/** `Bowing patterns …`, in a menu. */
export function menuLabel({ label, labelIn, asks }: Command, tune: Bench['tune']): string {
  const words = labelIn?.(tune) ?? label;
  return asks ? `${words} …` : words;
}

/** `Bowing patterns (P)`, for a tooltip. */
export function titleOf({ label, keys }: Command): string {
  return keys.length === 0 ? label : `${label} (${keysShown(keys[0]!)})`;
}
