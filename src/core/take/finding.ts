import type { Seconds } from '#core/base';
import type { DrillKind } from '#core/drills';
import type { HeardNote } from './heard';
import type { FigureUnit, MistakeKind, Threshold, Thresholds } from './mistakes';

/** Something that went wrong, with its figure. */
export interface TakeFinding {
  readonly code: MistakeKind;
  /** Played notes by index; the first is where it is. */
  readonly notes: readonly number[];
  readonly loop: number;
  /** When, in the take. */
  readonly seconds: Seconds;
  readonly figure: number;
  readonly unit: FigureUnit;
  /** Half of an 80 % interval about the figure. */
  readonly uncertainty: number;
  readonly threshold: number;
  /** The drill it leads to; null: slower, in the ladder. */
  readonly drill: DrillKind | null;
}

/** How much of its uncertainty a figure must lie beyond the threshold. A trial: half keeps false alarms rare. */
const BEYOND = 0.5;

const DRILL_OF: Readonly<Record<MistakeKind, DrillKind | null>> = {
  sharp: 'tone-match',
  flat: 'tone-match',
  'wrong-note': null,
  'left-out': null,
  'added-note': null,
  'started-again': null,
  'wrong-pass': null,
  'late-finger': 'finger-before-bow',
  'bumped-drone': 'no-bump',
  'dropped-second': 'pair-plane',
  'skipped-string-sounds': 'skipped-string',
  'rushed-turn': 'turn-in-silence',
  scratch: 'start-place',
  'flick-became-note': 'flick',
  'uneven-triplet': 'bowed-triplet',
  'pulse-stayed': 'pulse',
  rushing: null,
  dragging: null,
  'late-entry': null,
  'hold-cut-short': null,
  'silence-cut-short': null,
  'staccato-runs-together': 'staccato',
  'narrow-vibrato': 'vibrato',
  'cloudy-low-string': 'tone-match',
};

/** Whether a figure is told, with its uncertainty. */
export function isTold(figure: number, uncertainty: number, { value, isLeast }: Threshold): boolean {
  return isLeast ? figure + BEYOND * uncertainty <= value : figure - BEYOND * uncertainty >= value;
}

/** A finding at a note where its figure is beyond the threshold; nothing where it is not. */
export function findingAt(
  code: MistakeKind,
  { note: { index, loop }, onset }: Pick<HeardNote, 'note' | 'onset'>,
  {
    figure,
    uncertainty,
    seconds = onset,
    notes = [index],
  }: { figure: number; uncertainty: number; seconds?: Seconds; notes?: readonly number[] },
  thresholds: Thresholds,
): TakeFinding[] {
  const threshold = thresholds[code];
  if (!Number.isFinite(figure) || !isTold(figure, uncertainty, threshold)) return [];
  const { value, unit } = threshold;
  return [{ code, notes, loop, seconds, figure, unit, uncertainty, threshold: value, drill: DRILL_OF[code] }];
}
