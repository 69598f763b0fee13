import { Tabs } from 'radix-ui';
import type { TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { Sheet } from '../ui/Sheet';
import { EqualFigures } from './EqualFigures';
import { PassesCompared } from './PassesCompared';
import { PhraseList } from './PhraseList';
import { SameHand } from './SameHand';

export interface TwinsProps {
  readonly report: TuneReport;
  readonly onShow: (ids: readonly string[]) => void;
  readonly onApply: (tune: Tune, label: string) => void;
}

const TABS = [
  ['figures', 'Equal figures', EqualFigures],
  ['hand', 'Same hand', SameHand],
  ['phrases', 'Phrases', PhraseList],
  ['passes', 'Passes', PassesCompared],
] as const;

/** What comes again in a tune: figures, hands, phrases, passes. */
export function TwinsSheet({ onClose, ...props }: TwinsProps & { readonly onClose: () => void }) {
  return (
    <Sheet open onOpenChange={onClose} title="Figures that come again" wide>
      <Tabs.Root defaultValue="figures">
        <Tabs.List aria-label="What comes again" className="mb-3 flex flex-wrap gap-x-1 border-b border-line">
          {TABS.map(([name, words]) => (
            <Tabs.Trigger
              key={name}
              value={name}
              data-autofocus={name === 'figures' || undefined}
              className="-mb-px border-b-2 border-transparent px-3 py-1.5 text-muted hover:text-ink data-[state=active]:border-woad data-[state=active]:font-bold data-[state=active]:text-ink"
            >
              {words}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {TABS.map(([name, , Content]) => (
          <Tabs.Content key={name} value={name} tabIndex={-1}>
            <Content {...props} />
          </Tabs.Content>
        ))}
      </Tabs.Root>
    </Sheet>
  );
}
