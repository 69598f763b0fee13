import type { SheetProps } from '../openTune/sheetProps';
import { TabbedSheet } from '../ui/TabbedSheet';
import { EasierList } from './EasierList';
import { NoteOrnaments } from './NoteOrnaments';
import { RuleForm } from './RuleForm';

/** Ornaments: at one note, by rule for the tune, and taken off layer by layer. */
export function OrnamentsSheet({
  onClose,
  ...props
}: Pick<SheetProps, 'report' | 'ids' | 'where' | 'settings' | 'onApply' | 'onPreview' | 'onHear' | 'onClose'>) {
  return (
    <TabbedSheet
      title="Ornaments"
      label="Ornaments"
      first={props.ids.length > 0 ? 'note' : 'rule'}
      tabs={[
        { name: 'note', words: 'On this note', content: <NoteOrnaments {...props} /> },
        { name: 'rule', words: 'By rule', content: <RuleForm {...props} /> },
        { name: 'easier', words: 'Easier versions', content: <EasierList {...props} /> },
      ]}
      onClose={onClose}
    />
  );
}
