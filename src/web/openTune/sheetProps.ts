import type { StoredSettings } from '#contract/settings';
import type { NamedTuning } from '#core/crossTuning';
import type { NoteState } from '#core/noteStates';
import type { TuneReport } from '#core/report';
import type { Tune } from '#core/tune';

/** What a sheet about the open tune may be given; each names what it takes of it. */
export interface SheetProps {
  /** The tune's own address in the book. */
  readonly id: string;
  readonly tune: Tune;
  readonly report: TuneReport;
  readonly states: ReadonlyMap<string, NoteState>;
  /** The chosen notes, and the bars that they touch, in written order. */
  readonly ids: readonly string[];
  readonly barIds: readonly string[];
  /** Where they stand: `bar 6 of A`. */
  readonly where: string;
  /** Part in which they lie, or the first. */
  readonly part: string;
  readonly settings: StoredSettings;
  /** The library's tunings and the player's own. */
  readonly tunings: readonly NamedTuning[];
  /** Puts a changed tune in place of the open one, as one step of undo; the sheet stays. */
  readonly onEdit: (tune: Tune, label: string) => void;
  /** The same; a window closes, a panel stays. */
  readonly onApply: (tune: Tune, label: string) => void;
  /** Shows in the score and the verdict what a change would come to, before it is taken; null: no more. */
  readonly onPreview: (tune: Tune | null) => void;
  /** Plays the bars at hand of a tune as it would be; null: the tune as it is. */
  readonly onHear: (tune: Tune | null, byTurns?: boolean) => void;
  /** Selects notes in the score; a window closes, a panel stays. */
  readonly onShow: (ids: readonly string[]) => void;
  readonly onClose: () => void;
}
