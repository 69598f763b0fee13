import { DropdownMenu } from 'radix-ui';
import type { Bench, CommandGroup } from '../commands/command';
import { commandOf, COMMANDS } from '../commands/commands';
import { CommandMenu, MENU_BUTTON, MENU_ITEM, type MenuSection } from './CommandMenu';
import type { View } from './view';
import { ViewMenu } from './ViewMenu';

const commands = (...names: readonly string[]) => names.map(commandOf);
const group = (name: CommandGroup) => COMMANDS.filter((command) => command.group === name);

const MARK: readonly MenuSection[] = [
  commands('ornaments', 'mark-cut', 'mark-roll', 'mark-flick', 'mark-bowed-triplet', 'mark-slide', 'pulse'),
  commands('accent', 'staccato', 'tenuto', 'fermata'),
  commands('repeat-mark'),
  commands('note'),
  { label: 'Notes', commands: group('copies') },
  { label: 'Pitch', commands: group('pitch') },
  { label: 'Length', commands: group('length') },
  { label: 'Bars', commands: group('bars') },
];
const BOW: readonly MenuSection[] = [
  commands('slur', 'change', 'hook', 'retake', 'lock-down', 'lock-up', 'this-pass-only'),
  commands('patterns', 'bowings', 'twins', 'bow'),
  commands('bow-longer', 'bow-shorter', 'bow-own'),
  commands('other-start'),
];
const HAND: readonly MenuSection[] = [
  commands('fingering', 'drones', 'tunings'),
  commands('drone', 'drone-upper', 'drone-lower', 'no-drone'),
  { label: 'String', commands: group('string') },
];
const MORE: readonly MenuSection[] = [
  commands('tune', 'form', 'landmarks', 'versions'),
  commands('practise', 'dance', 'ground', 'handout', 'side-by-side'),
  { label: 'Save as a file', commands: group('files') },
  commands('palette', 'keys'),
];

interface BenchMenusProps {
  readonly bench: Bench;
  readonly view: View;
  readonly onView: (view: View) => void;
  readonly onEndEntry: () => void;
}

/** What can be done at the bench, in six named groups. */
export function BenchMenus({ bench, view, onView, onEndEntry }: BenchMenusProps) {
  const { id, hasSource, entry } = bench.open;
  return (
    <div className="flex items-center max-sm:w-full max-sm:justify-between" role="toolbar" aria-label="Tools">
      <button
        type="button"
        aria-pressed={entry !== null}
        title={entry ? 'Entering notes: done (Esc)' : 'Enter notes (Enter)'}
        aria-keyshortcuts="Enter"
        className={MENU_BUTTON}
        onClick={() => (entry ? onEndEntry() : bench.beginEntry())}
      >
        Enter
      </button>
      <CommandMenu label="Mark" bench={bench} sections={MARK} />
      <CommandMenu label="Bow" bench={bench} sections={BOW} />
      <CommandMenu label="Hand" bench={bench} sections={HAND} />
      <ViewMenu view={view} onView={onView} onFindings={bench.showFindings} />
      <CommandMenu label="More" bench={bench} sections={MORE}>
        {hasSource && (
          <DropdownMenu.Item className={`${MENU_ITEM} mt-1 border-t border-line`} asChild>
            <a href={`/api/tunes/${id}/source`}>The file it was read from</a>
          </DropdownMenu.Item>
        )}
      </CommandMenu>
    </div>
  );
}
