import { type ComponentType, lazy, Suspense } from 'react';
import { writtenNotes } from '#core/tune';
import type { SheetName } from '../commands/sheetList';
import { TuningsSheet } from '../crossTuning/TuningsSheet';
import { DronesSheet } from '../drones/DronesSheet';
import { FingeringSheet } from '../fingering/FingeringSheet';
import type { SheetProps } from '../openTune/sheetProps';
import { OrnamentsSheet } from '../ornaments/OrnamentsSheet';
import { BowingsSheet } from '../search/BowingsSheet';
import { BarSheet } from '../tune/BarSheet';
import { FormSheet } from '../tune/FormSheet';
import { LandmarksSheet } from '../tune/LandmarksSheet';
import { NoteSheet } from '../tune/NoteSheet';
import { TuneSheet } from '../tune/TuneSheet';
import { TwinsSheet } from '../twins/TwinsSheet';
import { Sheet } from '../ui/Sheet';
import { VersionsSheet } from '../versions/VersionsSheet';
import { KeysSheet } from './KeysSheet';
import { PatternSheet } from './PatternSheet';

/** Charts are fetched when they are first asked for. */
const BowSheet = lazy(() => import('./BowSheet').catch(() => ({ default: BowSheetUnavailable })));

/** Listening is fetched when it is first asked for. */
const TakeSheet = lazy(() => import('../takes/TakeSheet').catch(() => ({ default: TakeSheetUnavailable })));

const COMPONENTS: Readonly<Record<SheetName, ComponentType<SheetProps>>> = {
  tune: HeadSheet,
  form: FormSheet,
  bar: BarSheet,
  note: NoteSheet,
  patterns: PatternSheet,
  bowings: BowingsSheet,
  bow: BowSheet,
  twins: TwinsSheet,
  fingering: FingeringSheet,
  drones: DronesSheet,
  ornaments: OrnamentsSheet,
  tunings: TuningsSheet,
  landmarks: LandmarksSheet,
  take: TakeSheet,
  versions: VersionsSheet,
  keys: KeysSheet,
};

export function OpenSheet({ sheet, ...props }: SheetProps & { readonly sheet: SheetName }) {
  const Shown = COMPONENTS[sheet];
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
      deed="Save"
      hasNotes={writtenNotes(tune).length > 0}
      onClose={onClose}
      onDone={(next) => onApply(next, 'title, meter, key, tuning')}
    />
  );
}

/** In place of the take check where it cannot be fetched. */
function TakeSheetUnavailable({ onClose }: Pick<SheetProps, 'onClose'>) {
  return (
    <Sheet open onOpenChange={onClose} title="Take check">
      <p role="alert">
        The take check could not be loaded: the server does not answer. Reload the page when it is back.
      </p>
    </Sheet>
  );
}

/** In place of the charts where they cannot be fetched: the bench goes on without them. */
function BowSheetUnavailable({ onClose }: Pick<SheetProps, 'onClose'>) {
  return (
    <Sheet open onOpenChange={onClose} title="Bow amount and tone">
      <p role="alert">
        The charts could not be loaded: the server does not answer. Your edits are saved in this browser; reload the
        page when it is back.
      </p>
    </Sheet>
  );
}
