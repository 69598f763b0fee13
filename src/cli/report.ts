import type { Report } from '#contract/report';
import { applyPattern, findPattern, PATTERNS } from '#core/bowing';
import { reportTune } from '#core/report';
import { DEFAULT_WISHES, proposeBowings } from '#core/search';
import { findLilt, type Lilt, LILTS } from '#core/tempo';
import type { Direction } from '#core/tune';
import { counted } from '#words/plural';
import { toReport } from '#words/reportJson';
import { numberOption, readInstrument, readLimits, readSchools, readTunes } from './readInput';
import { tuningOption } from './retune';
import { UsageError } from './usage';

export interface ReportFlags {
  readonly json?: boolean;
  readonly tune?: string;
  readonly tempo?: string;
  readonly pattern?: string;
  readonly start?: string;
  readonly tuning?: string;
  readonly lilt?: string;
  readonly fingers?: string;
  readonly limits?: string;
  readonly instrument?: string;
  readonly schools?: string;
  readonly optimise?: string;
}

/** Bowings that may be asked for at once. */
const MAX_CANDIDATES = 20;

/** `report FILE`: every figure of a plan. */
export function report(file: string, flags: ReportFlags, leftOut: string[]): string {
  const bpm = numberOption('tempo', flags.tempo, 1, 1000);
  const optimise = numberOption('optimise', flags.optimise, 1, MAX_CANDIDATES);
  if (optimise !== undefined && !Number.isInteger(optimise))
    throw new UsageError(`--optimise: expected a whole number, got ${flags.optimise}`);
  const pattern = flags.pattern === undefined ? null : findPattern(flags.pattern);
  if (flags.pattern !== undefined && !pattern)
    throw new UsageError(
      `--pattern: expected one of ${PATTERNS.map(({ name }) => name).join(', ')}, got ${flags.pattern}`,
    );
  const tuning = flags.tuning === undefined ? null : tuningOption('tuning', flags.tuning);
  const start = oneOf('start', flags.start, ['down', 'up']) as Direction | undefined;
  const fingers = oneOf('fingers', flags.fingers, ['open', 'fourth']) as 'open' | 'fourth' | undefined;
  const lilt = flags.lilt === undefined ? undefined : liltNamed(flags.lilt);
  const limits = readLimits(flags.limits);
  const instrument = readInstrument(flags.instrument);
  const schools = readSchools(flags.schools);

  const reports = readTunes(file, flags.tune, leftOut).map(({ tune, messages }) => {
    const tuned = tuning ? { ...tune, tuning } : tune;
    const bowed = pattern ? applyPattern(tuned, pattern) : tuned;
    const checked = reportTune(bowed, { bpm, start, fingerRule: fingers, limits, instrument, schools, lilt });
    const candidates = optimise === undefined ? null : proposeBowings(checked, DEFAULT_WISHES, optimise);
    return toReport(checked, messages, candidates);
  });
  if (flags.json) return `${JSON.stringify(reports.length === 1 ? reports[0] : reports, null, 2)}\n`;
  return reports.map(summary).join('\n');
}

/** A lilt by name, for every command that takes one. */
export function liltNamed(name: string): Lilt {
  const lilt = findLilt(name);
  if (!lilt) throw new UsageError(`--lilt: expected ${LILTS.map((known) => known.name).join(' or ')}, got ${name}`);
  return lilt;
}

function oneOf(name: string, value: string | undefined, allowed: readonly string[]): string | undefined {
  if (value !== undefined && !allowed.includes(value))
    throw new UsageError(`--${name}: expected ${allowed.join(' or ')}, got ${value}`);
  return value;
}

function summary(report: Report): string {
  const { title, danceType, key, tempo, bars, seconds, passes, ceiling, floor, findings, messages } = report;
  const { crossings, twins, candidates } = report;
  const lines = [
    `${title}: ${danceType ?? 'no dance type'}, ${report.meter}, ${key}, ${report.tuning.join(' ')}`,
    `  ${report.form.join('')}, ${counted(bars, 'bar')}, ${seconds.toFixed(1)} s at ${tempo.bpm} (beat ${tempo.beat}), ${report.square ? 'square' : 'crooked'}`,
    ...passes.map(
      ({ part, pass, pickup, entry, strokes, turns, exit, next }) =>
        `  ${part}${pass}: ${pickup ? `pickup ${pickup}, ` : ''}entered ${entry ?? '-'}, ${strokes} strokes, ${turns} turns, left ${exit ?? '-'}, then ${next ?? '-'}`,
    ),
    `  ${report.comesRound ? 'comes round' : 'does not come round'}; holds up to ${ceiling ? `${ceiling.bpm.toFixed(1)} (${ceiling.event} at ${ceiling.note.id})` : 'any tempo'}, down to ${floor ? floor.bpm.toFixed(1) : '-'}`,
    `  crossings: ${crossings.adjacent} to the next string, ${crossings.skip} over strings, ${crossings.inSlur} in slurs; ovals ${crossings.naturalOvals} natural, ${crossings.reverseOvals} reverse, ${crossings.free} free; arm ${crossings.armDegrees.toFixed(0)}° (through the middles ${crossings.armDegreesNaive.toFixed(0)}°)`,
    `  hair: ${hairWords(report)}`,
    `  hand: ${handWords(report)}`,
    ...colourLines(report),
    ...(twins.length > 0
      ? [
          `  ${counted(twins.length, 'figure')} come again, ${twins.filter(({ bowedAlike }) => !bowedAlike).length} bowed more than one way`,
        ]
      : []),
    ...findings.flatMap(({ severity, message, mends }) => [
      `  ${severity}: ${message}`,
      ...mends.map(({ label }) => `    ${label}`),
    ]),
    ...candidates.map(
      (candidate, i) =>
        `  bowing ${i + 1}: ${candidate.cost.toFixed(2)} points, starts ${candidate.start}, ${candidate.comesRound ? 'comes round' : 'does not come round'}, ${candidate.ceilingBpm === null ? 'holds at any tempo' : `holds up to ${candidate.ceilingBpm.toFixed(1)}`}, ${candidate.strokesPerSecond.toFixed(1)} strokes/s, ${candidate.slurCrossings} crossings in slurs, ${Math.round(100 * candidate.likeness)} % as it is now`,
    ),
    ...messages.map(({ line, column, message }) => `  line ${line}, column ${column}: ${message}`),
  ];
  return `${lines.join('\n')}\n`;
}

/** Between which points of the hair the raw travel runs. */
function hairWords({ notes, instrument }: Report): string {
  if (notes.length === 0) return 'nothing is bowed';
  // In a loop, since long tunes have more notes than a call may have arguments.
  let [least, most] = [Infinity, -Infinity];
  for (const { bowStartCm, bowEndCm } of notes) {
    least = Math.min(least, bowStartCm, bowEndCm);
    most = Math.max(most, bowStartCm, bowEndCm);
  }
  return `at even speed from ${least.toFixed(1)} to ${most.toFixed(1)} cm of ${instrument.hairCm}`;
}

/** What the left hand does, as played. */
function handWords({ notes }: Report): string {
  const count = (has: (note: Report['notes'][number]) => boolean) => notes.filter(has).length;
  let widest = 0;
  for (const { hand } of notes) widest = Math.max(widest, hand.spanMm ?? 0);
  return [
    `${count(({ hand }) => hand.shift !== null)} shifts, ${count(({ hand }) => hand.hop !== null)} hops, ${count(({ hand }) => hand.barre)} barres`,
    `widest span ${widest.toFixed(0)} mm`,
    `${count(({ position }) => position !== null && position !== 1)} notes outside first position, ${count(({ reachable }) => !reachable)} out of reach`,
  ].join('; ');
}

/** Strings that sound together, and ornaments by kind, where there are any. */
function colourLines({ doubleStops, doublings, notes }: Report): string[] {
  const ornaments = new Map<string, number>();
  for (const { ornaments: own } of notes) for (const name of own) ornaments.set(name, (ornaments.get(name) ?? 0) + 1);
  const sharp = doubleStops.filter((double) => double.class === 'sharp' && !double.resolves).length;
  return [
    ...(doubleStops.length > 0
      ? [`  double stops: ${doubleStops.length}, of them ${sharp} sharp that do not resolve`]
      : []),
    ...(doublings.length > 0 ? [`  ${doublings.length} open strings long enough to be doubled in unison`] : []),
    ...(ornaments.size > 0
      ? [`  ornaments as played: ${[...ornaments].map(([name, number]) => `${number} ${name}`).join(', ')}`]
      : []),
  ];
}
