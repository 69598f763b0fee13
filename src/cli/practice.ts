import { type LogFile, logFileSchema, type PracticeJson, practiceSchema, type PracticeSpan } from '#contract/practice';
import { type Ability, abilityOf, learnAbility, marginsOf } from '#core/ability';
import { drillsFor } from '#core/drills';
import {
  AIR_START,
  bestLearningArea,
  BITE_ORDERS,
  type BiteOrder,
  candidatesOf,
  LADDER_GUESSES,
  ladderStart,
  ladderSteps,
  learningArea,
  learningOrder,
  NO_HISTORY,
  NOTES_A_BITE,
  type PracticeHistory,
  type PracticePlan,
  practicePlan,
  sessionOf,
} from '#core/practice';
import { reportTune, type TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { candidateWords, itemWords } from '#words/practice';
import { causeWords, STAGE_WORDS } from '#words/tuneDrill';
import { judgedLog } from './judgedLog';
import { numberOption, readJson, readTunes } from './readInput';
import { UsageError } from './usage';

interface PracticeOptions {
  readonly tempo?: string;
  readonly bite?: string;
  readonly order?: string;
  readonly log?: string;
  readonly minutes?: string;
  readonly tune?: string;
  readonly json?: boolean;
}

const USUAL_MINUTES = 30;

/** `practice FILE`: the tune in bites, in which order, with its ladder, its drills and a session. */
export function practice(file: string, options: PracticeOptions, leftOut: string[]): string {
  const { order = 'start' } = options;
  if (!BITE_ORDERS.includes(order as BiteOrder))
    throw new UsageError(`--order: expected ${BITE_ORDERS.join(', ')}, got ${order}`);
  const bpm = numberOption('tempo', options.tempo, 20, 400);
  const notesABite = numberOption('bite', options.bite, 1, 64) ?? NOTES_A_BITE;
  const minutes = numberOption('minutes', options.minutes, 1, 240) ?? USUAL_MINUTES;
  const log = options.log === undefined ? null : readJson(options.log, logFileSchema);
  const made = readTunes(file, options.tune, leftOut).map(({ tune }) =>
    practiceOf(tune, { bpm, notesABite, minutes, order: order as BiteOrder, log }),
  );
  if (options.json) return `${JSON.stringify(made.length === 1 ? made[0] : made, null, 2)}\n`;
  return made
    .map(
      ({ title, bites, order: places, coverage, session }) =>
        `${title}: ${bites.length} bites, learnt ${places.join(' ')}\n` +
        coverage.map(({ bite, total }) => `  ${bite}: ${Math.round(100 * total)} % of the tune\n`).join('') +
        session.items.map((item) => `  ${item.minutes} min ${item.what}: ${item.why}\n`).join(''),
    )
    .join('');
}

interface Wish {
  readonly bpm: number | undefined;
  readonly notesABite: number;
  readonly minutes: number;
  readonly order: BiteOrder;
  readonly log: LogFile | null;
}

function practiceOf(tune: Tune, { bpm, notesABite, minutes, order, log }: Wish): PracticeJson {
  const report = reportTune(tune, bpm === undefined ? {} : { bpm });
  const plan = practicePlan(report, { notesABite });
  const learnt = learningOrder(plan, report, order);
  const best = bestLearningArea(plan, report);
  const history = log ? historyOf(log, report, plan) : NO_HISTORY;
  const session = sessionOf(candidatesOf(plan, report, learnt.order, history), minutes);
  const spanOf = (id: string | undefined): PracticeSpan | null => {
    const bite = plan.bites.find((own) => own.id === id);
    return bite ? { part: bite.part, from: bite.from, to: bite.to } : null;
  };
  return practiceSchema.parse({
    title: tune.title,
    bites: plan.bites,
    cuts: plan.cuts,
    isNew: isNewOf(tune, plan),
    objective: plan.objective,
    order: learnt.order,
    coverage: learnt.coverage,
    gap: { area: learningArea(learnt.coverage), best: best.area, isExact: best.isExact },
    joins: plan.joins,
    ladder: ladderOf(report, log ? history.ability : null),
    drills: drillsFor(report).map(({ kind, because, stages }) => ({
      kind,
      because: { ...because, words: causeWords(because, kind, report) },
      stages: stages.map((stage) => ({
        label: STAGE_WORDS[stage.code],
        way: stage.way,
        bpm: stage.bpm,
        pass: { clean: stage.clean },
        minutes: stage.minutes,
        plan: stage.tune,
      })),
    })),
    session: {
      minutes: session.minutes,
      items: session.items.map((item) => ({
        what: item.what === 'weakest' ? 'ladder' : item.what,
        span: spanOf(item.candidate?.bite),
        minutes: item.minutes,
        value: item.candidate?.value ?? 0,
        why: itemWords(item),
        bodyCheckBefore: item.checksBefore,
      })),
      left: session.left.map((candidate) => ({
        what: candidate.what === 'weakest' ? 'ladder' : candidate.what,
        span: spanOf(candidate.bite),
        value: candidate.value,
        why: candidateWords(candidate),
      })),
    },
  });
}

/** Every written note: whether it is met for the first time. A note that another is tied to counts with it. */
function isNewOf(tune: Tune, { learnt }: PracticePlan): Record<string, boolean> {
  const notes = tune.parts.flatMap(({ events }) => events.filter((event) => event.kind === 'note'));
  return Object.fromEntries(notes.map(({ id }) => [id, learnt.isNew.get(id) ?? false]));
}

function ladderOf(report: TuneReport, ability: Ability | null): PracticeJson['ladder'] {
  const { settings, figures, tune } = report;
  const isAir = tune.danceType === 'air';
  const known = ability && !isAir ? { margins: marginsOf(report, 0, report.unrolled.notes.length - 1), ability } : null;
  const startBpm = isAir
    ? AIR_START * settings.bpm
    : ladderStart(settings.bpm, figures.check.ceiling?.ceilingBpm ?? null, known);
  const wish = { ...LADDER_GUESSES, wishBpm: settings.bpm, startBpm, known };
  return { fromBpm: startBpm, steps: ladderSteps(wish), toBpm: settings.bpm };
}

/** Bites of which the log has an attempt that touches them, and what its attempts at this tune say of the player. */
function historyOf(log: LogFile, report: TuneReport, { bites }: PracticePlan): PracticeHistory {
  const own = log.attempts.filter((attempt) => attempt.tune === report.tune.title && !attempt.pain);
  const met = bites.filter((bite) =>
    own.some(({ span }) => span.part === bite.part && (span.from === bite.from || span.to === bite.to)),
  );
  const { judged } = judgedLog({ ...log, attempts: own }, [report]);
  return {
    ...NO_HISTORY,
    met: new Set(met.map(({ id }) => id)),
    ability: abilityOf(learnAbility(judged)),
  };
}
