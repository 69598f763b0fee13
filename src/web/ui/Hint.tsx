import { Tooltip } from 'radix-ui';
import type { ReactElement } from 'react';

interface HintProps {
  readonly words: string;
  /** What can be pointed at and have the focus. */
  readonly children: ReactElement;
}

/** Says what a button does, when it is pointed at or has the focus. */
export function Hint({ words, children }: HintProps) {
  return (
    <Tooltip.Provider delayDuration={400}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content side="bottom" sideOffset={6} collisionPadding={8} className={HINT_LOOK}>
            {words}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}

/** How words look that lie over what they explain. */
export const HINT_LOOK =
  'z-50 max-w-72 rounded-md border border-line bg-surface px-3 py-2 font-sans text-small leading-snug font-normal text-ink shadow-lg';
