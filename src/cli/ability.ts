import { type AbilityJson, abilityJsonSchema, type ForecastJson, forecastJsonSchema } from '#contract/ability';
import { type LogFile, logFileSchema } from '#contract/practice';
import { kindByKind, kindCeilings, learntLimit, learntTogether, type OwnCeiling, ownCeiling } from '#core/ability';
import { type BestOfDay, forecastOf, MIN_DAYS } from '#core/forecast';
import { reportTune, type TuneReport } from '#core/report';
import { EVENT_KINDS, limitsWith } from '#core/tempo';
import { counted } from '#words/plural';
import { judgedLog } from './judgedLog';
import { numberOption, readJson, readTunes } from './readInput';
import { InputError, UsageError } from './usage';

interface AbilityOptions {
  readonly log?: string;
  readonly json?: boolean;
}

/** `ability --log LOG [FILE…]`: what the log says of the player, and up to which tempo each tune holds for him. */
export function ability(files: readonly string[], options: AbilityOptions, leftOut: string[]): string {
  const log = logOf(options.log, 'ability');
  const reports = files.flatMap((file) => readTunes(file, undefined, leftOut).map(({ tune }) => reportTune(tune)));
  const { judged, unknown } = judgedLog(log, reports);
  if (unknown > 0)
    leftOut.push(
      `${options.log}: ${counted(unknown, 'attempt')} left out: no margins, and no tune or stretch to count them from`,
    );
  const together = learntTogether(judged);
  const kinds = kindByKind(judged, together);
  const limits = limitsWith();
  const made: AbilityJson = abilityJsonSchema.parse({
    kinds: Object.fromEntries(
      EVENT_KINDS.flatMap((kind) => {
        const own = kinds[kind];
        return own ? [[kind, { ...own, limitMs: learntLimit(kind, own.mean, limits) }]] : [];
      }),
    ),
    tunes: reports.map((report) => {
      const own = ownCeiling(kindCeilings(report), together);
      return { title: report.tune.title, ceiling: own && rangeOf(own), binds: own?.binds ?? {} };
    }),
  });
  if (options.json) return `${JSON.stringify(made, null, 2)}\n`;
  const lines = Object.entries(made.kinds).map(
    ([kind, { mean, low, high, attempts, limitMs }]) =>
      `${kind}: ${percent(mean)} (${percent(low)} to ${percent(high)}) against the limit, ${limitMs.toFixed(0)} ms, from ${counted(attempts, 'attempt')}\n`,
  );
  const tunes = made.tunes.map(({ title, ceiling }) =>
    ceiling
      ? `${title}: holds up to ${ceiling.median.toFixed(0)} (${ceiling.low.toFixed(0)} to ${ceiling.high.toFixed(0)})\n`
      : `${title}: holds at any tempo\n`,
  );
  return lines.length + tunes.length > 0
    ? [...lines, ...tunes].join('')
    : 'Nothing in the log says what the player can do.\n';
}

const rangeOf = ({ median, low, high }: OwnCeiling) => ({ median, low, high });
const percent = (better: number) => `${better >= 0 ? '+' : '−'}${Math.abs(100 * (Math.exp(better) - 1)).toFixed(0)} %`;

interface ForecastOptions extends AbilityOptions {
  readonly wish?: string;
  readonly 'a-day'?: string;
  readonly tune?: string;
}

/** Words for what an answer cannot be given from. */
const TOO_LITTLE = {
  'few-days': `fewer than ${MIN_DAYS} days with a clean tempo`,
  wide: 'the days say too little: the late end is more than 8 times the early one',
} as const;

/** `forecast --log LOG FILE --wish N --a-day M`: in how many days of M minutes the tempo will be clean. */
export function forecast(file: string, options: ForecastOptions, leftOut: string[]): string {
  const log = logOf(options.log, 'forecast');
  const bpm = numberOption('wish', options.wish, 10, 600);
  const minutesADay = numberOption('a-day', options['a-day'], 0.1, 600);
  if (bpm === undefined || minutesADay === undefined) throw new UsageError('forecast: expected --wish N and --a-day M');
  const report = reportTune(readTunes(file, options.tune, leftOut)[0]!.tune);
  const best = log.best ?? bestOfDays(log, report);
  const { judged } = judgedLog(log, [report]);
  const own = ownCeiling(kindCeilings(report), learntTogether(judged));
  if (!own) throw new InputError(`${file}: nothing in this tune needs time: it holds at any tempo`);
  const answer = forecastOf(best, { bpm, minutesADay, ownCeilingBpm: own.median });
  const minutes = Math.max(0, ...best.map((day) => day.minutes));
  const made: ForecastJson = forecastJsonSchema.parse(
    'tooLittle' in answer
      ? { tooLittle: TOO_LITTLE[answer.tooLittle] }
      : {
          days: Number.isFinite(answer.days.p50) ? answer.days : null,
          never: answer.never,
          from: { days: best.length, minutes },
        },
  );
  if (options.json) return `${JSON.stringify(made, null, 2)}\n`;
  if ('tooLittle' in made) return `Too little to say: ${made.tooLittle}.\n`;
  const never = `${Math.round(100 * made.never)} %`;
  return made.days === null
    ? `Not on this path: ${never}.\n`
    : `${made.days.p50.toFixed(0)} days (${made.days.p10.toFixed(0)} to ${made.days.p90.toFixed(0)}); not on this path: ${never}\n`;
}

/** The quickest clean tempo of each day, with the minutes spent on the tune until its end. Days are those of Greenwich. */
function bestOfDays({ attempts }: LogFile, { tune }: TuneReport): BestOfDay[] {
  const days = new Map<string, { minutes: number; bpm: number | null }>();
  let minutes = 0;
  const own = attempts.filter((attempt) => attempt.tune === tune.title && !attempt.pain);
  for (const attempt of [...own].sort((a, b) => Date.parse(a.at) - Date.parse(b.at))) {
    minutes += attempt.minutes ?? 0;
    const day = new Date(attempt.at).toISOString().slice(0, 10);
    const before = days.get(day)?.bpm ?? null;
    days.set(day, { minutes, bpm: attempt.clean ? Math.max(before ?? 0, attempt.bpm) : before });
  }
  return [...days.values()].flatMap((day) => (day.bpm === null ? [] : { minutes: day.minutes, bpm: day.bpm }));
}

function logOf(file: string | undefined, command: string): LogFile {
  if (file === undefined) throw new UsageError(`${command}: expected --log LOG`);
  return readJson(file, logFileSchema);
}
