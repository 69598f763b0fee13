import { type LogFile, logFileSchema } from '#contract/practice';
import { type ReadinessJson, readinessJsonSchema } from '#contract/readiness';
import { DEFAULT_SETTINGS } from '#contract/settings';
import {
  asDemands,
  bestFigures,
  demandsOf,
  missingSkills,
  shownIn,
  SKILL_DRILLS,
  skillFigures,
  skillOf,
  steppingStones,
} from '#core/readiness';
import { reportTune, type TuneReport } from '#core/report';
import { counted } from '#words/plural';
import { skillFigureWords, skillWords } from '#words/readiness';
import { readJson, readTunes } from './readInput';
import { UsageError } from './usage';

interface ReadinessOptions {
  readonly log?: string;
  readonly tune?: string;
  readonly json?: boolean;
}

/** `readiness FILE --log LOG [--book FILE…]`: what the tune needs that the log does not show, and the tunes that lead there. */
export function readiness(
  file: string,
  books: readonly string[],
  options: ReadinessOptions,
  leftOut: string[],
): string {
  if (options.log === undefined) throw new UsageError('readiness: expected --log LOG');
  const log = readJson(options.log, logFileSchema);
  const wanted = reportTune(readTunes(file, options.tune, leftOut)[0]!.tune);
  const book = books.flatMap((own) => readTunes(own, undefined, leftOut).map(({ tune }) => reportTune(tune)));
  const known = new Map([...book, wanted].map((report) => [report.tune.title, report]));
  const shown = bestFigures([...known.values()].map((report) => shownIn(report, cleanOf(log, report))));
  const unknown = log.attempts.filter(({ tune, clean, pain }) => clean && !pain && !known.has(tune)).length;
  if (unknown > 0)
    leftOut.push(`${options.log}: ${counted(unknown, 'clean attempt')} left out: give their tunes with --book`);
  const demands = demandsOf(wanted);
  const needs = skillFigures(demands);
  const stones = steppingStones(
    needs,
    shown,
    book.flatMap((report) =>
      report.tune.title === wanted.tune.title ? [] : { id: report.tune.title, needs: skillFigures(demandsOf(report)) },
    ),
  );
  const made: ReadinessJson = readinessJsonSchema.parse({
    demands,
    shown: asDemands(shown, demands.beat),
    missing: missingSkills(needs, shown).map(({ name, ...figures }) => ({
      skill: skillOf(name),
      needs: aPass(skillFigureWords(name, figures.needs)),
      shown: aPass(skillFigureWords(name, figures.shown)),
      drill: SKILL_DRILLS[skillOf(name)],
    })),
    steppingStones: stones ?? [],
    isReachable: stones !== null,
  });
  return options.json ? `${JSON.stringify(made, null, 2)}\n` : inWords(wanted, made);
}

const cleanOf = ({ attempts }: LogFile, { tune }: TuneReport) =>
  attempts.filter((attempt) => attempt.tune === tune.title && attempt.clean && !attempt.pain);

/** As the file has it: once through the tune is a pass of it. */
const aPass = (words: string) => words.replace('each time through', 'a pass');

function inWords({ tune }: TuneReport, { missing, steppingStones: stones, isReachable }: ReadinessJson): string {
  if (missing.length === 0) return `${tune.title}: nothing in it is new to you\n`;
  const skills = missing.map(
    ({ skill, needs, shown }) => `  ${skillWords(skill, DEFAULT_SETTINGS.words)}: needs ${needs}, shown ${shown}\n`,
  );
  const way = !isReachable
    ? 'No tunes given lead there one skill at a time.\n'
    : stones.length === 0
      ? ''
      : `Learn first: ${stones.join(', then ')}\n`;
  return `${tune.title}: ${counted(missing.length, 'skill')} missing\n${skills.join('')}${way}`;
}
