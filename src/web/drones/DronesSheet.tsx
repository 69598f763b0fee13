import type { SheetProps } from '../openTune/sheetProps';
import { TabbedSheet } from '../ui/TabbedSheet';
import { BesideNote } from './BesideNote';
import { DroneLineForm } from './DroneLineForm';
import { EarTest } from './EarTest';

/** What may sound beside the melody: at one note, for a line, and how the player's ear weighs it. */
export function DronesSheet({
  onClose,
  ...props
}: Pick<
  SheetProps,
  'report' | 'ids' | 'where' | 'part' | 'settings' | 'onApply' | 'onPreview' | 'onHear' | 'onClose'
>) {
  return (
    <TabbedSheet
      title="Drones and double stops"
      label="Drones"
      first={props.ids.length === 1 ? 'note' : 'line'}
      tabs={[
        { name: 'note', words: 'Beside this note', content: <BesideNote {...props} /> },
        { name: 'line', words: 'A whole line', content: <DroneLineForm {...props} /> },
        { name: 'ear', words: 'Your ear', content: <EarTest /> },
      ]}
      onClose={onClose}
    />
  );
}
