import type { Words } from '#contract/settings';
import type { TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { TabbedSheet } from '../ui/TabbedSheet';
import { EasierList } from './EasierList';
import { NoteOrnaments } from './NoteOrnaments';
import { RuleForm } from './RuleForm';

export interface OrnamentsProps {
  readonly report: TuneReport;
  readonly ids: readonly string[];
  readonly where: string;
  readonly words: Words;
  readonly onApply: (tune: Tune, label: string) => void;
}

/** Ornaments: at one note, by rule for the tune, and taken off layer by layer. */
export function OrnamentsSheet({ onClose, ...props }: OrnamentsProps & { readonly onClose: () => void }) {
  return (
    <TabbedSheet
      title="Ornaments"
      label="Ornaments"
      first={props.ids.length > 0 ? 'note' : 'rule'}
      tabs={[
        { name: 'note', words: 'On this note', content: <NoteOrnaments {...props} /> },
        { name: 'rule', words: 'By rule', content: <RuleForm {...props} /> },
        { name: 'easier', words: 'An easier version', content: <EasierList {...props} /> },
      ]}
      onClose={onClose}
    />
  );
}
