import { PencilLine } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { EDIT_ACTIONS, type EditAction, type EditContext } from './editActions';

const GROUPS: readonly [EditAction['group'], string][] = [
  ['copies', 'Notes'],
  ['pitch', 'Pitch'],
  ['length', 'Length'],
  ['marks', 'Marks'],
  ['bow', 'Bow'],
  ['string', 'String'],
  ['bars', 'Bars'],
];

const ITEM =
  'flex cursor-pointer items-center justify-between gap-6 rounded px-2 py-1 outline-none data-disabled:cursor-default data-disabled:opacity-45 data-highlighted:bg-band';
const PANEL = 'z-40 max-h-[80dvh] overflow-y-auto rounded-lg border border-line bg-surface p-1.5 text-ink shadow-lg';

interface EditMenuProps {
  readonly context: EditContext;
  readonly onAction: (action: EditAction) => void;
  /** Asks for the meter and key of the selection's first bar. */
  readonly onBar: () => void;
  /** Asks for chord name and grace notes. */
  readonly onNote: () => void;
}

/** All that can be done to the selected notes and their bars. */
export function EditMenu(props: EditMenuProps) {
  const { context } = props;
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
          {context.ids.length === 0 && (
            <DropdownMenu.Label className="px-2 py-1 text-muted">Choose notes in the score first.</DropdownMenu.Label>
          )}
          <EditItems {...props} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Made only while the menu is open: each item asks its edit whether it would do anything. */
function EditItems({ context, onAction, onBar, onNote }: EditMenuProps) {
  return (
    <>
      {GROUPS.map(([group, name]) => (
        <DropdownMenu.Sub key={group}>
          <DropdownMenu.SubTrigger className={ITEM}>
            {name} <span aria-hidden>›</span>
          </DropdownMenu.SubTrigger>
          <DropdownMenu.Portal>
            <DropdownMenu.SubContent sideOffset={4} className={PANEL}>
              {EDIT_ACTIONS.filter((action) => action.group === group).map((action) => (
                <DropdownMenu.Item
                  key={action.name}
                  disabled={action.run(context) === null}
                  onSelect={() => onAction(action)}
                  className={ITEM}
                >
                  {action.words} <span className="text-[13.5px] text-muted">{action.keys}</span>
                </DropdownMenu.Item>
              ))}
              {group === 'marks' && (
                <DropdownMenu.Item disabled={context.ids.length === 0} onSelect={onNote} className={ITEM}>
                  Chord name, grace notes … <span className="text-[13.5px] text-muted">N</span>
                </DropdownMenu.Item>
              )}
              {group === 'bars' && (
                <DropdownMenu.Item disabled={context.ids.length === 0} onSelect={onBar} className={ITEM}>
                  Meter, key and ending …
                </DropdownMenu.Item>
              )}
            </DropdownMenu.SubContent>
          </DropdownMenu.Portal>
        </DropdownMenu.Sub>
      ))}
    </>
  );
}
