import type { SheetProps } from '../openTune/sheetProps';
import { TabbedSheet } from '../ui/TabbedSheet';
import { AcrossBook } from './AcrossBook';
import { EqualFigures } from './EqualFigures';
import { PassesCompared } from './PassesCompared';
import { PhraseList } from './PhraseList';
import { SameHand } from './SameHand';

/** Repeated figures in a tune: figures, hands, phrases, passes. */
export function TwinsSheet({
  onClose,
  ...props
}: Pick<SheetProps, 'id' | 'report' | 'onShow' | 'onEdit' | 'onPreview' | 'onHear' | 'onClose'>) {
  return (
    <TabbedSheet
      title="Repeated figures"
      label="Repeated figures"
      first="figures"
      tabs={[
        { name: 'figures', words: 'Equal figures', content: <EqualFigures {...props} /> },
        { name: 'hand', words: 'Same hand', content: <SameHand {...props} /> },
        { name: 'phrases', words: 'Phrases', content: <PhraseList {...props} /> },
        { name: 'passes', words: 'Passes', content: <PassesCompared {...props} /> },
        { name: 'book', words: 'Across the book', content: <AcrossBook id={props.id} /> },
      ]}
      onClose={onClose}
    />
  );
}
