import { createHash } from 'node:crypto';
import { addMinutes, subDays } from 'date-fns';
import type { Attempt, TunePractice, Wrong } from '#contract/log';
import { USUAL_PRACTICE } from '#contract/log';
import { type Bite, learningOrder, practicePlan } from '#core/practice';
import { reportTune } from '#core/report';
import type { Tune } from '#core/tune';

/** A tune that the player of the demo has practised: from which week on, and how near its tempo they come. */
interface Practised {
  readonly file: string;
  readonly fromWeek: number;
  /** Of the tempo wanted, after eight weeks. */
  readonly reaches: number;
}

const WEEKS = 8;
/** Days of a week on which they play. */
const DAYS = [0, 2, 4, 5];
const TUNES: readonly Practised[] = [
  { file: 'lanterns.abc', fromWeek: 0, reaches: 0.97 },
  { file: 'heron.abc', fromWeek: 2, reaches: 0.84 },
  { file: 'marsh-lamps.abc', fromWeek: 4, reaches: 0.8 },
];
const WRONGS: readonly Wrong[] = ['crossing', 'bow', 'finger', 'memory'];
/** Where they begin, and after how many minutes most of the way is gone. */
const BEGINS = 0.55;
const MINUTES_TO_LEARN = 60;
const REPETITION_MINUTES = 0.4;

export interface DemoTune {
  readonly file: string;
  readonly id: string;
  readonly tune: Tune;
}

/** Numbers from 0 to 1 that are the same on every machine. */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}

/**
 * Eight weeks of a made-up player: some bites of a few tunes a day, each quicker by the week, with misses where it is tried at
 * the edge of what comes out clean.
 */
export function demoAttempts(tunes: readonly DemoTune[], now: Date): Attempt[] {
  const random = numbers(20_26);
  const attempts: Attempt[] = [];
  const minutes = new Map<string, number>();
  const plans = TUNES.flatMap(({ file, ...practised }) => {
    const own = tunes.find((tune) => tune.file === file);
    if (!own) return [];
    const report = reportTune(own.tune);
    const plan = practicePlan(report);
    const { order } = learningOrder(plan, report, 'most');
    return [
      {
        ...practised,
        ...own,
        wishBpm: report.settings.bpm,
        bites: order.map((id) => plan.bites.find((bite) => bite.id === id)!),
      },
    ];
  });
  for (let week = 0; week < WEEKS; week++)
    for (const day of DAYS) {
      let at = subDays(now, 7 * (WEEKS - week) - day);
      for (const { id, tune, fromWeek, reaches, wishBpm, bites } of plans) {
        if (week < fromWeek) continue;
        // A new bite every other day, and two of those met before.
        const met = Math.min(bites.length, 1 + 2 * (week - fromWeek) + (day > 2 ? 1 : 0));
        for (const bite of [bites[met - 1]!, bites[Math.floor(random() * met)]!]) {
          const key = `${id} ${bite.id}`;
          const spent = minutes.get(key) ?? 0;
          const clean = reaches - (reaches - BEGINS) * Math.exp(-spent / MINUTES_TO_LEARN);
          const repetitions = 3 + Math.floor(4 * random());
          for (let i = 0; i < repetitions; i++) {
            const share = clean * (0.9 + 0.04 * i);
            const isClean = random() < 1 / (1 + Math.exp(12 * (share - clean) - 2));
            attempts.push(
              attempt(bite, {
                id,
                tune,
                at,
                bpm: share * wishBpm,
                wishBpm,
                isClean,
                wrong: WRONGS[Math.floor(random() * WRONGS.length)]!,
                number: attempts.length,
              }),
            );
            at = addMinutes(at, 1);
          }
          minutes.set(key, spent + repetitions * REPETITION_MINUTES);
        }
      }
    }
  return attempts;
}

interface Told {
  readonly id: string;
  readonly tune: Tune;
  readonly at: Date;
  readonly bpm: number;
  readonly wishBpm: number;
  readonly isClean: boolean;
  readonly wrong: Wrong;
  readonly number: number;
}

function attempt(bite: Bite, { id, tune, at, bpm, wishBpm, isClean, wrong, number }: Told): Attempt {
  const hex = createHash('sha256').update(`attempt ${number}`).digest('hex');
  return {
    id: `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`,
    at: at.toISOString(),
    tuneId: id,
    title: tune.title,
    revision: 1,
    span: { part: bite.part, from: bite.from, to: bite.to },
    what: 'bite',
    drill: null,
    layer: 'tempo',
    way: 'bowed',
    bpm: Math.round(bpm),
    wishBpm,
    clean: isClean,
    wrong: isClean ? null : wrong,
    minutes: REPETITION_MINUTES,
    note: '',
    pain: null,
    corrects: null,
    isWithdrawn: false,
  };
}

/** The tag of the reel, named as the class calls it. */
export function demoPractice({ tune }: DemoTune): TunePractice {
  const bites = practicePlan(reportTune(tune)).bites;
  const last = bites.findLast(({ part }) => part === bites[0]!.part)!;
  return {
    ...USUAL_PRACTICE,
    order: 'most',
    landmarks: [
      { id: '2f6f0a52-3b7e-4c1d-9f60-2a8b4e5c7d11', name: 'the tag', part: last.part, from: last.from, to: last.to },
    ],
  };
}
