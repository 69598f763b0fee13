import { Command as Palette } from 'cmdk';
import { Sheet } from '../ui/Sheet';
import { type Bench, COMMAND_GROUPS, type CommandGroup } from '../commands/command';
import { COMMANDS, menuLabel } from '../commands/commands';
import { keysShown } from '../commands/keys';

interface CommandPaletteProps {
  readonly bench: Bench;
  readonly onClose: () => void;
}

/** Everything that can be done here now, found by its name. */
export function CommandPalette({ bench, onClose }: CommandPaletteProps) {
  const offered = COMMANDS.filter((command) => command.id !== 'palette' && command.applies(bench));
  return (
    <Sheet open onOpenChange={onClose} title="What do you want to do?">
      <Palette label="Commands" className="flex min-h-0 flex-col gap-2">
        <Palette.Input
          autoFocus
          placeholder="slur, drone, tempo …"
          className="rounded-md border border-soft bg-surface px-2 py-1.5"
        />
        <Palette.List className="max-h-[50dvh] overflow-y-auto">
          <Palette.Empty className="px-2 py-1 text-muted">
            Nothing of that name can be done here. Some things need notes to be chosen first.
          </Palette.Empty>
          {(Object.keys(COMMAND_GROUPS) as CommandGroup[]).map((group) => (
            <Palette.Group
              key={group}
              heading={COMMAND_GROUPS[group]}
              className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[13.5px] [&_[cmdk-group-heading]]:text-muted"
            >
              {offered
                .filter((command) => command.group === group)
                .map((command) => (
                  <Palette.Item
                    key={command.id}
                    value={`${command.label} ${command.help ?? ''} ${command.id}`}
                    onSelect={() => {
                      onClose();
                      command.run(bench);
                    }}
                    className="flex cursor-pointer items-center justify-between gap-6 rounded px-2 py-1 data-[selected=true]:bg-band"
                  >
                    <span>
                      {menuLabel(command)}
                      {command.help && <span className="text-[13.5px] text-muted"> {command.help}</span>}
                    </span>
                    <span className="text-[13.5px] text-muted">{command.keys[0] && keysShown(command.keys[0])}</span>
                  </Palette.Item>
                ))}
            </Palette.Group>
          ))}
        </Palette.List>
      </Palette>
    </Sheet>
  );
}
