import { createHash } from 'node:crypto';
import { techniquesOf } from '#core/drills';
import { type PlayerSettings, reportTune, type TuneReport } from '#core/report';
import type { Tune } from '#core/tune';

/**
 * By which rules plans are judged: the print of what they give for known tunes. Where the rules change, a test asks for the
 * new print; the figures of every book are then counted anew in the background at the next start.
 */
export const RULES_PRINT = '7eba56c41461';

/** Room of a tune that nothing limits: what no ceiling over wish comes near. */
const NO_LIMIT = 1000;

/** What the book shows of a report; names are those of the columns. */
export interface TuneFigures {
  readonly comes_round: boolean;
  readonly flipped_parts: readonly string[];
  readonly ceiling_bpm: number | null;
  readonly wish_bpm: number;
  readonly problems: number;
  readonly cares: number;
  readonly room: number;
  readonly techniques: readonly string[];
}

export function figuresOf(report: TuneReport): TuneFigures {
  const { figures, findings, settings } = report;
  const ceiling = figures.check.ceiling?.ceilingBpm ?? null;
  return {
    comes_round: figures.ledger.comesRound,
    flipped_parts: [...figures.ledger.flippedParts],
    ceiling_bpm: ceiling,
    wish_bpm: settings.bpm,
    problems: findings.filter(({ severity }) => severity === 'problem').length,
    cares: findings.filter(({ severity }) => severity === 'care').length,
    room: ceiling === null ? NO_LIMIT : Math.min(NO_LIMIT, ceiling / settings.bpm),
    techniques: techniquesOf(report),
  };
}

export function countTune(tune: Tune, settings: PlayerSettings): TuneFigures {
  return figuresOf(reportTune(tune, settings));
}

/** By which rules and settings figures are counted: equal settings give equal keys. */
export function countingKey(settings: PlayerSettings): string {
  const sorted = (_name: string, value: unknown) =>
    value !== null && typeof value === 'object' && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value;
  const hash = createHash('sha256').update(JSON.stringify(settings, sorted)).digest('hex');
  return `${RULES_PRINT}:${hash.slice(0, 16)}`;
}
