import { PencilLine } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { type Bench, COMMAND_GROUPS, type CommandGroup } from '../commands/command';
import { COMMANDS, menuLabel } from '../commands/commands';
import { keysShown } from '../commands/keys';

const GROUPS: readonly CommandGroup[] = ['copies', 'pitch', 'length', 'marks', 'stroke', 'string', 'bars'];

const ITEM =
  'flex cursor-pointer items-center justify-between gap-6 rounded px-2 py-1 outline-none data-disabled:cursor-default data-disabled:opacity-45 data-highlighted:bg-band';
const PANEL = 'z-40 max-h-[80dvh] overflow-y-auto rounded-lg border border-line bg-surface p-1.5 text-ink shadow-lg';

/** All that can be done to the selected notes and their bars. */
export function EditMenu({ bench }: { readonly bench: Bench }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label="Edit the selected notes"
        title="Edit the selected notes"
        className="grid size-9 place-items-center rounded-md text-muted hover:bg-band hover:text-ink"
      >
        <PencilLine size={18} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content sideOffset={6} align="end" className={PANEL}>
          {bench.ids.length === 0 && (
            <DropdownMenu.Label className="px-2 py-1 text-muted">Select notes in the score first.</DropdownMenu.Label>
          )}
          <EditItems bench={bench} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Made only while the menu is open: each item asks its command whether it would do anything. */
function EditItems({ bench }: { readonly bench: Bench }) {
  return GROUPS.map((group) => (
    <DropdownMenu.Sub key={group}>
      <DropdownMenu.SubTrigger className={ITEM}>
        {COMMAND_GROUPS[group]} <span aria-hidden>›</span>
      </DropdownMenu.SubTrigger>
      <DropdownMenu.Portal>
        <DropdownMenu.SubContent sideOffset={4} className={PANEL}>
          {COMMANDS.filter((command) => command.group === group).map((command) => (
            <DropdownMenu.Item
              key={command.id}
              disabled={!command.applies(bench)}
              onSelect={() => command.run(bench)}
              className={ITEM}
            >
              {menuLabel(command)}{' '}
              <span className="text-hint text-muted">{command.keys[0] && keysShown(command.keys[0])}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.SubContent>
      </DropdownMenu.Portal>
    </DropdownMenu.Sub>
  ));
}
