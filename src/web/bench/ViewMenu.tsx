import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';
import { MENU_BUTTON } from './CommandMenu';
import { type View, ZOOMS } from './view';

const BARS_A_LINE = [
  { value: null, name: 'automatic' },
  ...Array.from({ length: 8 }, (_, i) => ({ value: i + 1, name: String(i + 1) })),
];

const LANES = {
  fingers: 'fingers',
  calls: 'calls: what the finger does',
  letters: 'letters: what sounds',
  bow: 'bow: from frog to tip',
  arm: 'arm: its angle, string by string',
  room: 'room to spare: time left at each note',
  otherPasses: 'other passes’ bow signs',
} as const;

interface ViewMenuProps {
  readonly view: View;
  readonly onView: (view: View) => void;
  /** Lists all findings beside the score. */
  readonly onFindings: () => void;
}

/** What is shown of the score, how large, and how many bars stand on a line. */
export function ViewMenu({ view, onView, onFindings }: ViewMenuProps) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button type="button" className={MENU_BUTTON} title="Lanes, size and lines">
          Look <ChevronDown size={14} aria-hidden />
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          align="end"
          aria-label="Lanes, size and lines"
          className="z-30 flex max-h-(--radix-popover-content-available-height) flex-col gap-2 overflow-y-auto rounded-lg border border-line bg-surface px-4 py-3 shadow-lg"
        >
          <div>
            {(Object.keys(LANES) as (keyof typeof LANES)[]).map((name) => (
              <label key={name} className="flex items-center gap-2 py-0.5">
                <input
                  type="checkbox"
                  className="accent-woad"
                  checked={view[name]}
                  onChange={({ target }) => onView({ ...view, [name]: target.checked })}
                />
                {LANES[name]}
              </label>
            ))}
          </div>
          <label className="flex items-center justify-between gap-3">
            size
            <Select
              value={view.zoom}
              options={ZOOMS.map((zoom) => ({ value: zoom as number, name: `${zoom} %` }))}
              onChange={(zoom) => onView({ ...view, zoom })}
            />
          </label>
          <label className="flex items-center justify-between gap-3">
            bars a line
            <Select
              value={view.barsPerLine}
              options={BARS_A_LINE}
              onChange={(barsPerLine) => onView({ ...view, barsPerLine })}
            />
          </label>
          <Popover.Close asChild>
            <Button look="link" className="self-start" onClick={onFindings}>
              All findings beside the score
            </Button>
          </Popover.Close>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
