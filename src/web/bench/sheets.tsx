import { type ComponentType, Suspense, lazy } from 'react';
import { writtenNotes } from '#core/tune';
import { TuningsSheet } from '../crossTuning/TuningsSheet';
import { DronesSheet } from '../drones/DronesSheet';
import { FingeringSheet } from '../fingering/FingeringSheet';
import type { SheetProps } from '../openTune/sheetProps';
import { OrnamentsSheet } from '../ornaments/OrnamentsSheet';
import { BowingsSheet } from '../search/BowingsSheet';
import { BarSheet } from '../tune/BarSheet';
import { FormSheet } from '../tune/FormSheet';
import { NoteSheet } from '../tune/NoteSheet';
import { TuneSheet } from '../tune/TuneSheet';
import { TwinsSheet } from '../twins/TwinsSheet';
import { Sheet } from '../ui/Sheet';
import { VersionsSheet } from '../versions/VersionsSheet';
import { KeysSheet } from './KeysSheet';
import { PatternSheet } from './PatternSheet';

/** A sheet of the bench: what it shows, and when there is anything to show. */
interface BenchSheet {
  readonly label: string;
  readonly component: ComponentType<SheetProps>;
  readonly applies: (props: Pick<SheetProps, 'tune' | 'ids' | 'barIds'>) => boolean;
}

const always = () => true;
const hasNotes = ({ tune }: Pick<SheetProps, 'tune'>) => writtenNotes(tune).length > 0;
const isChosen = ({ ids }: Pick<SheetProps, 'ids'>) => ids.length > 0;

/** Charts are fetched when they are first asked for. */
const BowSheet = lazy(() => import('./BowSheet').catch(() => ({ default: BowSheetAway })));

export type SheetName =
  | 'tune'
  | 'form'
  | 'bar'
  | 'note'
  | 'patterns'
  | 'bowings'
  | 'bow'
  | 'twins'
  | 'fingering'
  | 'drones'
  | 'ornaments'
  | 'tunings'
  | 'versions'
  | 'keys';

/** All sheets of the bench: another is one line here, and its command follows from it. */
export const SHEETS: Readonly<Record<SheetName, BenchSheet>> = {
  tune: { label: 'Title, meter, key, tuning', component: HeadSheet, applies: always },
  form: { label: 'Form', component: FormSheet, applies: always },
  bar: { label: 'Meter, key and ending', component: BarSheet, applies: ({ barIds }) => barIds.length > 0 },
  note: { label: 'Chord name, grace notes', component: NoteSheet, applies: isChosen },
  patterns: { label: 'Bowing patterns', component: PatternSheet, applies: always },
  bowings: { label: 'Other bowings', component: BowingsSheet, applies: hasNotes },
  bow: { label: 'Bow amount and tone', component: BowSheet, applies: hasNotes },
  twins: { label: 'Figures that come again', component: TwinsSheet, applies: always },
  fingering: { label: 'Fingering hand', component: FingeringSheet, applies: hasNotes },
  drones: { label: 'Drones and double stops', component: DronesSheet, applies: hasNotes },
  ornaments: { label: 'Ornaments', component: OrnamentsSheet, applies: hasNotes },
  tunings: { label: 'Tunings for this tune', component: TuningsSheet, applies: hasNotes },
  versions: { label: 'Named versions', component: VersionsSheet, applies: always },
  keys: { label: 'Keys and signs', component: KeysSheet, applies: always },
};

export function OpenSheet({ sheet, ...props }: SheetProps & { readonly sheet: SheetName }) {
  const { component: Shown } = SHEETS[sheet];
  return (
    <Suspense>
      <Shown {...props} />
    </Suspense>
  );
}

/** The head of the tune, as the book asks for it when a tune is begun. */
function HeadSheet({ tune, onApply, onClose }: SheetProps) {
  return (
    <TuneSheet
      tune={tune}
      heading="This tune"
      deed="Keep"
      hasNotes={hasNotes({ tune })}
      onClose={onClose}
      onDone={(next) => onApply(next, 'title, meter, key, tuning')}
    />
  );
}

/** In place of the charts where they cannot be fetched: the bench goes on without them. */
function BowSheetAway({ onClose }: Pick<SheetProps, 'onClose'>) {
  return (
    <Sheet open onOpenChange={onClose} title="Bow amount and tone">
      <p role="alert">
        This sheet could not be fetched: the server does not answer. Your edits are kept in this browser; load the page
        again when it is back.
      </p>
    </Sheet>
  );
}
