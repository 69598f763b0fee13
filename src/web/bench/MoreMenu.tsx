import { ChevronRight, Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { Link } from 'react-router';
import type { Bench, Command } from '../commands/command';
import { commandOf, COMMANDS, menuLabel } from '../commands/commands';
import { keysShown } from '../commands/keys';

/** What the menu lists, in its order. */
const LISTED = [
  'tune',
  'form',
  'bowings',
  'bow',
  'twins',
  'fingering',
  'drones',
  'ornaments',
  'tunings',
  'versions',
  'dance',
  'handout',
  'side-by-side',
].map(commandOf);
const FILES = COMMANDS.filter(({ group }) => group === 'files');

const PANEL = 'z-40 rounded-lg border border-line bg-surface p-1.5 shadow-lg';
const ITEM =
  'block cursor-pointer rounded px-2 py-1 text-ink no-underline outline-none data-disabled:cursor-default data-disabled:opacity-45 data-highlighted:bg-band';

/** What is done to the tune as a whole. */
export function MoreMenu({ bench }: { readonly bench: Bench }) {
  const { id, hasSource } = bench.open;
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label="The tune as a whole"
        title="The tune as a whole"
        className="grid size-9 place-items-center rounded-md text-muted hover:bg-band hover:text-ink"
      >
        <Ellipsis size={18} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content sideOffset={6} align="end" className={PANEL}>
          {LISTED.map((command) => (
            <Item key={command.id} command={command} bench={bench} />
          ))}
          <DropdownMenu.Sub>
            <DropdownMenu.SubTrigger className={`${ITEM} flex items-center justify-between`}>
              Save as a file <ChevronRight size={15} aria-hidden />
            </DropdownMenu.SubTrigger>
            <DropdownMenu.Portal>
              <DropdownMenu.SubContent className={PANEL}>
                {FILES.map((command) => (
                  <Item key={command.id} command={command} bench={bench} />
                ))}
              </DropdownMenu.SubContent>
            </DropdownMenu.Portal>
          </DropdownMenu.Sub>
          {hasSource && (
            <DropdownMenu.Item className={ITEM} asChild>
              <a href={`/api/tunes/${id}/source`}>What it was read from</a>
            </DropdownMenu.Item>
          )}
          <Item command={commandOf('palette')} bench={bench} />
          <Item command={commandOf('keys')} bench={bench} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Item({ command, bench }: { readonly command: Command; readonly bench: Bench }) {
  if (command.path)
    return (
      <DropdownMenu.Item className={ITEM} asChild>
        <Link to={command.path(bench)}>{command.label}</Link>
      </DropdownMenu.Item>
    );
  return (
    <DropdownMenu.Item className={ITEM} disabled={!command.applies(bench)} onSelect={() => command.run(bench)}>
      {menuLabel(command)} {command.keys[0] && `(${keysShown(command.keys[0])})`}
    </DropdownMenu.Item>
  );
}
