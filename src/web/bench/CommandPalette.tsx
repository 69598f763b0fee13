import { Command as Palette } from 'cmdk';
import { type Bench, COMMAND_GROUPS, type CommandGroup, runCommand } from '../commands/command';
import { COMMANDS, menuLabel } from '../commands/commands';
import { keysShown } from '../commands/keys';
import { INPUT } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { focusScore } from './focus';

interface CommandPaletteProps {
  readonly bench: Bench;
  readonly onClose: () => void;
}

/** What one comes for first: moving about has its keys. */
const GROUPS: readonly CommandGroup[] = [
  ...(Object.keys(COMMAND_GROUPS) as CommandGroup[]).filter((group) => group !== 'go'),
  'go',
];

/** By how much a command is meant: every word that was typed begins a word of its label, or of what it is for. */
export function meant(label: string, typed: string, more: readonly string[] = []): number {
  const begins = (text: string, word: string) => text.split(/[^\p{L}\d]+/u).some((one) => one.startsWith(word));
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const [own, help] = [label.toLowerCase(), more.join(' ').toLowerCase()];
  if (own.startsWith(typed.toLowerCase().trim())) return 1;
  if (words.every((word) => begins(own, word))) return 0.8;
  return words.every((word) => begins(`${own} ${help}`, word)) ? 0.4 : 0;
}

/** Everything that can be done here now, found by its name. */
export function CommandPalette({ bench, onClose }: CommandPaletteProps) {
  const offered = COMMANDS.filter((command) => command.id !== 'palette' && command.applies(bench));
  return (
    <Sheet open onOpenChange={onClose} title="What do you want to do?">
      <Palette label="Commands" filter={meant} className="flex min-h-0 flex-col gap-2">
        <Palette.Input autoFocus placeholder="slur, drone, tempo …" className={INPUT} />
        <Palette.List className="max-h-[50dvh] overflow-y-auto">
          <Palette.Empty className="px-2 py-1 text-muted">
            No command of that name works here. Some need notes to be selected first.
          </Palette.Empty>
          {GROUPS.map((group) => (
            <Palette.Group
              key={group}
              heading={COMMAND_GROUPS[group]}
              className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-hint [&_[cmdk-group-heading]]:text-muted"
            >
              {offered
                .filter((command) => command.group === group)
                .map((command) => (
                  <Palette.Item
                    key={command.id}
                    value={command.label}
                    keywords={[command.help ?? '', command.id]}
                    onSelect={() => {
                      onClose();
                      runCommand(command, bench);
                      returnKeys();
                    }}
                    className="flex cursor-pointer items-center justify-between gap-6 rounded px-2 py-1 data-[selected=true]:bg-band"
                  >
                    <span>
                      {menuLabel(command, bench.tune)}
                      {command.help && <span className="text-hint text-muted"> {command.help}</span>}
                    </span>
                    <span className="text-hint whitespace-nowrap text-muted">
                      {command.keys[0] && keysShown(command.keys[0])}
                    </span>
                  </Palette.Item>
                ))}
            </Palette.Group>
          ))}
        </Palette.List>
      </Palette>
    </Sheet>
  );
}

/** Where what was done drew the score anew, the note that had the keys is gone: they go to the one that is chosen. */
function returnKeys(): void {
  setTimeout(() => {
    if (document.activeElement === document.body) focusScore();
  }, 50);
}
