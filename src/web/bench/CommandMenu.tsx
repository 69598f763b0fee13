import { ChevronDown, ChevronRight } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { type Bench, type Command, runCommand } from '../commands/command';
import { menuLabel } from '../commands/commands';
import { keysShown } from '../commands/keys';

/** A stretch of a menu: commands in a row, or more of them behind a name. */
export type MenuSection = readonly Command[] | { readonly label: string; readonly commands: readonly Command[] };

interface CommandMenuProps {
  readonly label: string;
  readonly bench: Bench;
  readonly sections: readonly MenuSection[];
  /** Items that are no commands, at the end. */
  readonly children?: ReactNode;
}

export const MENU_ITEM =
  'flex min-h-7 cursor-pointer items-center justify-between gap-6 rounded px-2 py-1 text-ink no-underline outline-none data-disabled:cursor-default data-disabled:opacity-45 data-highlighted:bg-band';
export const MENU_PANEL =
  'z-40 max-h-(--radix-dropdown-menu-content-available-height) min-w-56 overflow-y-auto rounded-lg border border-line bg-surface p-1.5 text-ink shadow-lg';
export const MENU_BUTTON =
  'flex h-9 items-center gap-0.5 rounded-md px-2 text-muted hover:bg-band hover:text-ink aria-expanded:bg-band aria-expanded:text-ink aria-pressed:bg-band aria-pressed:text-woad disabled:opacity-40';

/** A named group of commands; each says by which key it is done, too. */
export function CommandMenu({ label, bench, sections, children }: CommandMenuProps) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className={MENU_BUTTON}>
        {label} <ChevronDown size={14} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content sideOffset={6} align="end" collisionPadding={8} className={MENU_PANEL}>
          <Sections bench={bench} sections={sections} />
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Made only while the menu is open: each item asks its command whether it would do anything. */
function Sections({ bench, sections }: Pick<CommandMenuProps, 'bench' | 'sections'>) {
  return sections.map((section, at) => (
    <div key={at} className="border-line not-first:mt-1 not-first:border-t not-first:pt-1">
      {'label' in section ? (
        <DropdownMenu.Sub>
          <DropdownMenu.SubTrigger className={MENU_ITEM}>
            {section.label} <ChevronRight size={15} aria-hidden />
          </DropdownMenu.SubTrigger>
          <DropdownMenu.Portal>
            <DropdownMenu.SubContent sideOffset={4} collisionPadding={8} className={MENU_PANEL}>
              {section.commands.map((command) => (
                <Item key={command.id} command={command} bench={bench} />
              ))}
            </DropdownMenu.SubContent>
          </DropdownMenu.Portal>
        </DropdownMenu.Sub>
      ) : (
        section.map((command) => <Item key={command.id} command={command} bench={bench} />)
      )}
    </div>
  ));
}

function Item({ command, bench }: { readonly command: Command; readonly bench: Bench }) {
  const keys = command.keys[0] && <span className="text-hint text-muted">{keysShown(command.keys[0])}</span>;
  if (command.path)
    return (
      <DropdownMenu.Item className={MENU_ITEM} asChild>
        <Link to={command.path(bench)}>{command.label}</Link>
      </DropdownMenu.Item>
    );
  return (
    <DropdownMenu.Item
      className={MENU_ITEM}
      disabled={!command.applies(bench)}
      onSelect={() => runCommand(command, bench)}
    >
      {menuLabel(command, bench.tune)} {keys}
    </DropdownMenu.Item>
  );
}
