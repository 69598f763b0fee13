import { Tooltip } from 'radix-ui';
import { type ReactNode, useState } from 'react';
import { HINT_LOOK } from './Hint';

interface ExplainedProps {
  readonly children: ReactNode;
  readonly by: string;
}

/** A word that explains itself where it stands: when it is pointed at, has the focus, or is pressed. */
export function Explained({ children, by }: ExplainedProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <Tooltip.Provider delayDuration={250}>
      <Tooltip.Root open={isOpen} onOpenChange={setOpen}>
        <Tooltip.Trigger asChild>
          <button
            type="button"
            data-term
            className="cursor-help rounded-sm underline decoration-current/40 decoration-dotted decoration-1 underline-offset-4 hover:decoration-current"
            // On glass there is nothing to point with.
            onClick={() => setOpen(true)}
          >
            {children}
          </button>
        </Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content sideOffset={6} collisionPadding={8} className={HINT_LOOK}>
            {by}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
