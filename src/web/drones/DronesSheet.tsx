import type { EarWeights } from '#core/drones';
import type { TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { TabbedSheet } from '../ui/TabbedSheet';
import { BesideNote } from './BesideNote';
import { DroneLineForm } from './DroneLineForm';
import { EarTest } from './EarTest';

export interface DronesProps {
  readonly report: TuneReport;
  readonly ids: readonly string[];
  readonly where: string;
  readonly part: string;
  readonly ear: EarWeights;
  readonly onApply: (tune: Tune, label: string) => void;
}

/** What may sound beside the melody: at one note, for a line, and how the player's ear weighs it. */
export function DronesSheet({ onClose, ...props }: DronesProps & { readonly onClose: () => void }) {
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
