import { recognisePatterns } from '#core/bowing';
import type { TuneReport } from '#core/report';
import { DRILL_KINDS, type DrillKind } from './tuneDrill';
import { causeOf } from './tuneDrills';

/** Techniques that say something of a tune: what nearly every tune asks for is not among them. */
export const TECHNIQUES = [
  'pattern',
  'jig-accent',
  'skipped-string',
  'pair-plane',
  'no-bump',
  'doubling-approach',
  'one-finger-across',
  'stretch-pair',
  'shift',
  'hop',
  'bowed-triplet',
  'pulse',
  'flick',
  'closing-swell',
  'staccato',
  'fade',
  'vibrato',
] as const satisfies readonly DrillKind[];
export type Technique = (typeof TECHNIQUES)[number];

export const isTechnique = (kind: DrillKind): kind is Technique => (TECHNIQUES as readonly DrillKind[]).includes(kind);

/** A bowing pattern among the techniques: `pattern:pairs`. */
export const patternTechnique = (name: string): string => `pattern:${name}`;

/** What a checked tune asks for, with the bowing patterns that it follows for two bars or more. */
export function techniquesOf(report: TuneReport): string[] {
  const kinds = DRILL_KINDS.filter((kind) => isTechnique(kind) && causeOf(report, kind) !== null);
  const patterns = recognisePatterns(report.tune).filter(({ barIds }) => barIds.length > 1);
  const names = new Set(patterns.flatMap(({ pattern }) => (pattern === null || pattern === 'saw' ? [] : pattern)));
  return [...kinds, ...[...names].sort().map(patternTechnique)];
}
