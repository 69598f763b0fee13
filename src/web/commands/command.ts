import type { ExportFormat } from '#contract/exports';
import type { Gesture } from '#core/bowing';
import type { Fragment } from '#core/editing';
import type { Direction, NoteEvent } from '#core/tune';
import type { OpenTune, Selection } from '../openTune/openTuneSlice';
import type { SheetProps } from '../openTune/sheetProps';
import type { Goal } from '../openTune/useGoal';
import type { SheetName } from './sheetList';

/** The bench as it stands, and what can be done on it: what every command is asked about and acts on. */
export interface Bench extends Pick<SheetProps, 'tune' | 'report' | 'states' | 'ids' | 'barIds' | 'where' | 'part'> {
  readonly open: OpenTune;
  readonly notes: readonly NoteEvent[];
  readonly clipboard: Fragment;
  /** How often the part of the selection is played. */
  readonly passes: number;
  readonly thisPassOnly: boolean;
  /** The mark that was made last, to be made again elsewhere. */
  readonly lastMark: Command | null;
  readonly remember: (mark: Command) => void;
  readonly edit: (tune: SheetProps['tune'], label: string) => void;
  readonly select: (selection: Selection | null) => void;
  readonly copy: (fragment: Fragment) => void;
  readonly gesture: (gesture: Gesture) => void;
  readonly lock: (direction: Direction | null) => void;
  readonly startOnOther: () => void;
  readonly setThisPassOnly: (only: boolean) => void;
  readonly showPass: (part: string, pass: number) => void;
  readonly beginEntry: () => void;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Opens a window, or a tool beside the score; a tool that is open is closed. */
  readonly showSheet: (sheet: SheetName) => void;
  readonly showFindings: () => void;
  readonly showPalette: () => void;
  readonly keepFile: (format: ExportFormat) => void;
  readonly goTo: (path: string) => void;
  readonly play: () => void;
  readonly toggleLoop: () => void;
  /** The tempo wanted, part of the plan. */
  readonly goal: Goal;
  /** Slower or faster by so many steps in the ear alone. */
  readonly stepPractice: (steps: number) => void;
  readonly tapTempo: () => void;
}

/** Groups of commands, in the order in which they are listed. */
export const COMMAND_GROUPS = {
  go: 'Where you are',
  bow: 'Bow',
  listen: 'Listening',
  look: 'Sheets about the tune',
  copies: 'Notes',
  pitch: 'Pitch',
  length: 'Length',
  marks: 'Marks',
  stroke: 'Stroke and drone',
  string: 'String',
  bars: 'Bars',
  tune: 'The tune as a whole',
  files: 'Save as a file',
} as const;
export type CommandGroup = keyof typeof COMMAND_GROUPS;

/**
 * Something that one can do at the bench. Menus, tooltips, keys, the key sheet and the palette all come from it, and ask
 * `applies` before they offer it: what is offered and what is done cannot disagree.
 */
export interface Command {
  readonly id: string;
  readonly label: string;
  /** Its label with the tune in sight: strings tuned otherwise are named by pitch, too. */
  readonly labelIn?: (tune: SheetProps['tune']) => string;
  readonly group: CommandGroup;
  /** Combinations as `comboOf` names them; the first is the one that is shown. */
  readonly keys: readonly string[];
  /** The key works while notes are entered, too. */
  readonly isPageWide?: boolean;
  /** It goes from note to note. */
  readonly isWalk?: boolean;
  /** It can be made again on other notes by one key. */
  readonly repeats?: boolean;
  /** It asks for more before it does anything. */
  readonly asks?: boolean;
  /** What it does together with others that differ by their key alone: one line of the key sheet. */
  readonly family?: string;
  /** What the key sheet adds. */
  readonly help?: string;
  readonly applies: (bench: Bench) => boolean;
  readonly run: (bench: Bench) => void;
  /** Where it leads, for a command that is a link. */
  readonly path?: (bench: Pick<Bench, 'open'>) => string;
}

/** Does a command; a mark is remembered, to be repeated. */
export function runCommand(command: Command, bench: Bench): void {
  if (command.repeats) bench.remember(command);
  command.run(bench);
}

export const always = () => true;
export const isChosen = ({ ids }: Pick<Bench, 'ids'>) => ids.length > 0;
