import type { TakeFinding } from './finding';
import type { MistakeKind } from './mistakes';

/** What follows of itself from a mistake on the same note or one beside it, and is not told beside it. */
const FOLLOWS_FROM: Partial<Record<MistakeKind, readonly MistakeKind[]>> = {
  'late-finger': ['hold-cut-short', 'bumped-drone', 'pulse-stayed', 'added-note', 'scratch', 'late-entry'],
  'left-out': ['hold-cut-short', 'late-entry', 'scratch', 'added-note', 'dropped-second'],
  'added-note': ['hold-cut-short', 'late-entry', 'scratch', 'flick-became-note', 'bumped-drone'],
  'wrong-note': [
    'flick-became-note',
    'added-note',
    'late-entry',
    'sharp',
    'flat',
    'scratch',
    'bumped-drone',
    'dropped-second',
    'skipped-string-sounds',
  ],
  'flick-became-note': ['hold-cut-short', 'bumped-drone', 'dropped-second', 'added-note', 'scratch'],
  'started-again': ['hold-cut-short', 'late-entry', 'rushed-turn', 'silence-cut-short', 'scratch'],
  'skipped-string-sounds': ['added-note', 'scratch'],
};
const BESIDE = 1;

/** Findings without those that follow from another: a teacher tells the cause. Time O(n²) for the few there are. */
export function withoutConsequences(findings: readonly TakeFinding[]): TakeFinding[] {
  const isBeside = (one: TakeFinding, other: TakeFinding) =>
    one.loop === other.loop && Math.abs(one.notes[0]! - other.notes[0]!) <= BESIDE;
  return findings.filter(
    (one) =>
      !findings.some((cause) => cause !== one && FOLLOWS_FROM[cause.code]?.includes(one.code) && isBeside(one, cause)),
  );
}
