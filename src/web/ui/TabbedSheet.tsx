import { Tabs } from 'radix-ui';
import type { ReactNode } from 'react';
import { Sheet } from './Sheet';

interface TabbedSheetProps {
  readonly title: string;
  /** What the tabs are, for those who do not see them. */
  readonly label: string;
  readonly first: string;
  readonly tabs: readonly { readonly name: string; readonly words: string; readonly content: ReactNode }[];
  readonly onClose: () => void;
}

/** A wide sheet with several leaves. */
export function TabbedSheet({ title, label, first, tabs, onClose }: TabbedSheetProps) {
  return (
    <Sheet open onOpenChange={onClose} title={title} wide>
      <Tabs.Root defaultValue={first}>
        <Tabs.List aria-label={label} className="mb-3 flex flex-wrap gap-x-1 border-b border-line">
          {tabs.map(({ name, words }) => (
            <Tabs.Trigger
              key={name}
              value={name}
              data-autofocus={name === first || undefined}
              className="-mb-px border-b-2 border-transparent px-3 py-1.5 text-muted hover:text-ink data-[state=active]:border-woad data-[state=active]:font-bold data-[state=active]:text-ink"
            >
              {words}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {tabs.map(({ name, content }) => (
          <Tabs.Content key={name} value={name} tabIndex={-1}>
            {content}
          </Tabs.Content>
        ))}
      </Tabs.Root>
    </Sheet>
  );
}
