import { blankTune } from '#core/editing';
import type { Tune } from '#core/tune';
import { TuneSheet } from '../tune/TuneSheet';

/** The head of a tune that is begun from nothing. */
export function BeginSheet({
  onClose,
  onDone,
}: {
  readonly onClose: () => void;
  readonly onDone: (tune: Tune) => void;
}) {
  return (
    <TuneSheet
      tune={blankTune()}
      heading="Begin a tune"
      deed="Begin"
      hasNotes={false}
      onClose={onClose}
      onDone={onDone}
    />
  );
}
