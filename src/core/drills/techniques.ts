import { recognisePatterns } from '#core/bowing';
import type { TuneReport } from '#core/report';
import { arpeggioParts } from './arpeggios';
import { DRILL_KINDS, type DrillKind } from './tuneDrill';
import { partsAsking } from './tuneDrills';

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

/** A chord broken into its notes: it has no drill of its own, and is found in the book. */
export const ARPEGGIO = 'arpeggio';

/** A bowing pattern among the techniques: `pattern:pairs`. */
export const patternTechnique = (name: string): string => `pattern:${name}`;

/**
 * What a checked tune asks for, and which of its parts do: the kinds of drills, and the bowing patterns that it follows for
 * two bars or more.
 */
export function techniquesOf(report: TuneReport): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const kind of DRILL_KINDS) {
    const parts = isTechnique(kind) ? partsAsking(report, kind) : [];
    if (parts.length > 0) found.set(kind, parts);
  }
  const broken = arpeggioParts(report.unrolled);
  if (broken.length > 0) found.set(ARPEGGIO, broken);
  const patterns = new Map<string, Set<string>>();
  for (const { part, pattern, barIds } of recognisePatterns(report.tune))
    if (pattern !== null && pattern !== 'saw' && barIds.length > 1)
      patterns.set(pattern, (patterns.get(pattern) ?? new Set()).add(part));
  for (const [name, parts] of [...patterns].sort(([a], [b]) => (a < b ? -1 : 1)))
    found.set(patternTechnique(name), [...parts]);
  return found;
}
