import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { PRACTICE_LAYERS } from '#core/practice';
import { LAYER_WORDS } from '#words/practice';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';
import { CAP_MINUTES, CLEAN_IN_A_ROW, type RunChoices, STEP_PERCENTS } from './runChoices';

interface RunMenuProps {
  readonly choices: RunChoices;
  /** A drill has stages, ways and tempos of its own. */
  readonly isDrill: boolean;
  readonly onChoose: (choices: RunChoices) => void;
}

/** In which layer it is played, and how the tempo climbs. */
export function RunMenu({ choices, isDrill, onChoose }: RunMenuProps) {
  if (isDrill) return null;
  const with_ = (more: Partial<RunChoices>) => onChoose({ ...choices, ...more });
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button look="small" className="flex items-center gap-1">
          How it is played <ChevronDown size={14} aria-hidden />
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="start"
          sideOffset={6}
          collisionPadding={8}
          aria-label="How it is played"
          className="z-30 flex max-h-(--radix-popover-content-available-height) max-w-[94vw] flex-col gap-2 overflow-y-auto rounded-lg border border-line bg-surface px-4 py-3 text-ink shadow-lg"
        >
          <label className="flex items-center justify-between gap-4">
            layer
            <Select
              value={choices.layer}
              options={PRACTICE_LAYERS.map((value) => ({ value, name: LAYER_WORDS[value] }))}
              onChange={(layer) => with_({ layer })}
            />
          </label>
          <label className="flex items-center justify-between gap-4">
            clean in a row
            <Select
              value={choices.cleanInARow}
              options={CLEAN_IN_A_ROW.map((value) => ({ value, name: String(value) }))}
              onChange={(cleanInARow) => with_({ cleanInARow })}
            />
          </label>
          <label className="flex items-center justify-between gap-4">
            then quicker by
            <Select
              value={choices.stepPercent}
              options={STEP_PERCENTS.map((value) => ({ value, name: `${value} %` }))}
              onChange={(stepPercent) => with_({ stepPercent })}
            />
          </label>
          <label className="flex items-center justify-between gap-4">
            at most
            <Select
              value={choices.capMinutes}
              options={CAP_MINUTES.map((value) => ({ value, name: `${value} minutes` }))}
              onChange={(capMinutes) => with_({ capMinutes })}
            />
          </label>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
