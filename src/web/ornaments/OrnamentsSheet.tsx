import type { SheetProps } from '../openTune/sheetProps';
import { TabbedSheet } from '../ui/TabbedSheet';
import { LayerList } from './LayerList';
import { NoteOrnaments } from './NoteOrnaments';
import { RuleForm } from './RuleForm';

/** Ornaments: at one note, by rule for the tune, and taken off layer by layer. */
export function OrnamentsSheet({
  onClose,
  ...props
}: Pick<SheetProps, 'id' | 'report' | 'ids' | 'where' | 'settings' | 'onApply' | 'onPreview' | 'onHear' | 'onClose'>) {
  return (
    <TabbedSheet
      title="Ornaments"
      label="Ornaments"
      first={props.ids.length > 0 ? 'note' : 'rule'}
      tabs={[
        { name: 'note', words: 'On this note', content: <NoteOrnaments {...props} /> },
        { name: 'rule', words: 'By rule', content: <RuleForm {...props} /> },
        { name: 'easier', words: 'Easier, fuller', content: <LayerList {...props} /> },
      ]}
      onClose={onClose}
    />
  );
}
