import { createHash } from 'node:crypto';
import { kindCeilings } from '#core/ability';
import { techniquesOf } from '#core/drills';
import { demandsOf, skillFigures } from '#core/readiness';
import { type PlayerSettings, reportTune, type TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { handShapes } from '#core/twins';

/**
 * By which rules plans are judged: the print of what they give for known tunes. Where the rules change, a test asks for the
 * new print; the figures of every book are then counted anew in the background at the next start.
 */
export const RULES_PRINT = '712db4c84fae';

/** Room of a tune that nothing limits: what no ceiling over wish comes near. */
const NO_LIMIT = 1000;

/** Columns of a tune's figures with their types. */
const FIGURE_COLUMNS = {
  comes_round: 'boolean',
  flipped_parts: 'text[]',
  ceiling_bpm: 'double precision',
  problems: 'integer',
  cares: 'integer',
  room: 'double precision',
  techniques: 'text[]',
  technique_parts: 'jsonb',
  hand_shapes: 'integer[]',
  hand_places: 'text[]',
  kind_ceilings: 'jsonb',
  skills: 'jsonb',
} as const satisfies Partial<Record<keyof TuneFigures, string>>;

/** `comes_round, flipped_parts, …` */
export const FIGURE_NAMES = Object.keys(FIGURE_COLUMNS).join(', ');

/** `comes_round boolean, …`: how `jsonb_to_record` reads figures. */
export const FIGURE_RECORD = Object.entries(FIGURE_COLUMNS)
  .map(([name, type]) => `${name} ${type}`)
  .join(', ');

/** What the book shows of a report, and how its practice is found; names are those of the columns. */
export interface TuneFigures {
  readonly comes_round: boolean;
  readonly flipped_parts: readonly string[];
  readonly ceiling_bpm: number | null;
  readonly wish_bpm: number;
  readonly problems: number;
  readonly cares: number;
  readonly room: number;
  readonly techniques: readonly string[];
  /** By technique the parts that use it. */
  readonly technique_parts: Readonly<Record<string, readonly string[]>>;
  readonly hand_shapes: readonly number[];
  readonly hand_places: readonly string[];
  /** By kind of event the lowest tempo without room, and by skill what the tune asks for. */
  readonly kind_ceilings: Readonly<Record<string, number>>;
  readonly skills: Readonly<Record<string, number>>;
}

/** What is kept of a tune whose plan is not counted yet: it is not among those that are short of room. */
export const UNCOUNTED: Readonly<Record<keyof typeof FIGURE_COLUMNS, unknown>> = {
  comes_round: null,
  flipped_parts: [],
  ceiling_bpm: null,
  problems: null,
  cares: null,
  room: NO_LIMIT,
  techniques: [],
  technique_parts: {},
  hand_shapes: [],
  hand_places: [],
  kind_ceilings: {},
  skills: {},
};

export function figuresOf(report: TuneReport): TuneFigures {
  const { figures, findings, settings } = report;
  const ceiling = figures.check.ceiling?.ceilingBpm ?? null;
  const techniques = techniquesOf(report);
  const { shapes, places } = handShapes(report.tune, report.fingers);
  return {
    comes_round: figures.ledger.comesRound,
    flipped_parts: [...figures.ledger.flippedParts],
    ceiling_bpm: ceiling,
    wish_bpm: settings.bpm,
    problems: findings.filter(({ severity }) => severity === 'problem').length,
    cares: findings.filter(({ severity }) => severity === 'care').length,
    room: ceiling === null ? NO_LIMIT : Math.min(NO_LIMIT, ceiling / settings.bpm),
    techniques: [...techniques.keys()],
    technique_parts: Object.fromEntries(techniques),
    hand_shapes: shapes,
    hand_places: places,
    kind_ceilings: rounded(kindCeilings(report)),
    skills: rounded(skillFigures(demandsOf(report))),
  };
}

/** Figures to the fourth decimal: machines may differ in the last digits. */
const rounded = (figures: Readonly<Record<string, number>>): Record<string, number> =>
  Object.fromEntries(Object.entries(figures).map(([name, figure]) => [name, Math.round(1e4 * figure) / 1e4]));

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
