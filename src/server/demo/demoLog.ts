import { createHash } from 'node:crypto';
import { addMinutes, subDays } from 'date-fns';
import type { Attempt, AttemptKind, TunePractice, Wrong } from '#contract/log';
import { USUAL_PRACTICE } from '#contract/log';
import { type Ability, cleanChance, cleanTempo, marginsAt, marginsOf } from '#core/ability';
import type { DrillKind } from '#core/drills';
import { type BiteOrder, learningOrder, practicePlan } from '#core/practice';
import { reportTune } from '#core/report';
import type { Tune } from '#core/tune';

/** A tune that the player of the demo has practised, from which week on. */
interface Practised {
  readonly file: string;
  readonly fromWeek: number;
  readonly order: BiteOrder;
}

const WEEKS = 8;
/** Days of a week on which they play. */
const DAYS = [0, 2, 4, 5];
const TUNES: readonly Practised[] = [
  { file: 'lanterns.abc', fromWeek: 0, order: 'most' },
  { file: 'heron.abc', fromWeek: 2, order: 'hardest' },
  { file: 'marsh-lamps.abc', fromWeek: 4, order: 'most' },
];
const WRONGS: readonly Wrong[] = ['crossing', 'bow', 'finger', 'memory'];
/** How quick their hands are against the limits that are guessed, as natural logarithms. */
const PLAYER: Ability = { stroke: 0.08, crossing: -0.2, flick: 0.1, cut: -0.1, barre: 0.05 };
/** What comes out clean so often is what they work towards, up to the tempo wanted. */
const AIM = 0.8;
const AIM_WHOLE = 0.65;
/** Where they begin, as a share of that, and after how many minutes most of the way is gone. */
const BEGINS = 0.6;
const MINUTES_TO_LEARN = 25;
/** Notes that are new are forgotten: so often at first, and for how many minutes. */
const FORGETS = { share: 0.1, minutes: 8 } as const;
const REPETITION_MINUTES = 1.2;
const DRILL_MINUTES = 4;
const DRILLS: readonly DrillKind[] = ['early-arm', 'pair-plane', 'hop'];
const NOTES = ['late over to the A', 'third finger flat', 'rushed after the turn', 'lost the bow on the way back'];

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
 * Eight weeks of a made-up player: some bites of a few tunes a day, each quicker by the week: what comes out clean, and what
 * is missed, is a matter of how much room the hands have there, and of notes that are new.
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
    const { order } = learningOrder(plan, report, practised.order);
    const wishBpm = report.settings.bpm;
    const { notes } = report.unrolled;
    const stretch = (first: number, last: number, aim: number) => {
      const margins = marginsOf(report, first, last);
      const span = { part: notes[first]!.part, from: notes[first]!.note.id, to: notes[last]!.note.id };
      const works = Math.min(wishBpm, cleanTempo(margins, wishBpm, PLAYER, aim) ?? wishBpm);
      return { ...span, margins, aim: works, drill: null, minutes: REPETITION_MINUTES };
    };
    const bites = order.map((id) => {
      const { first, last } = plan.bites.find((one) => one.id === id)!;
      return { ...stretch(first, last, AIM), what: 'bite' as const };
    });
    const whole = { ...stretch(0, notes.length - 1, AIM_WHOLE), what: 'run-through' as const };
    return [{ ...practised, ...own, wishBpm, bites, whole }];
  });
  for (let week = 0; week < WEEKS; week++)
    for (const day of DAYS) {
      let at = subDays(now, 7 * (WEEKS - week) - day);
      const put = (stretch: Stretch, played: Pick<Told, 'id' | 'tune' | 'wishBpm' | 'bpm' | 'isClean'>) => {
        const wrong = WRONGS[Math.floor(random() * WRONGS.length)]!;
        const note = played.isClean ? '' : (NOTES[Math.floor(random() * 12 * NOTES.length)] ?? '');
        attempts.push(attempt(stretch, { ...played, at, wrong, note, number: attempts.length }));
        at = addMinutes(at, stretch.minutes);
      };
      for (const { id, tune, fromWeek, wishBpm, bites, whole } of plans) {
        if (week < fromWeek) continue;
        // A new bite every other day, and two of those met before; later the whole tune, too.
        const met = Math.min(bites.length, 1 + 2 * (week - fromWeek) + (day > 2 ? 1 : 0));
        const today: (typeof whole | (typeof bites)[number])[] = [bites[met - 1]!, bites[Math.floor(random() * met)]!];
        if (week >= fromWeek + 2) today.push(whole);
        for (const stretch of today) {
          const key = `${id} ${stretch.from} ${stretch.to}`;
          const spent = minutes.get(key) ?? 0;
          const works = stretch.aim * (1 - (1 - BEGINS) * Math.exp(-spent / MINUTES_TO_LEARN));
          const knows = 1 - FORGETS.share * Math.exp(-spent / FORGETS.minutes);
          const repetitions = 3 + Math.floor(4 * random());
          for (let i = 0; i < repetitions; i++) {
            const bpm = Math.round(works * (0.92 + 0.04 * i));
            const isClean = random() < knows * cleanChance(marginsAt(stretch.margins, wishBpm, bpm), PLAYER);
            put(stretch, { id, tune, wishBpm, bpm, isClean });
          }
          minutes.set(key, spent + repetitions * stretch.minutes);
        }
      }
      const [first] = plans;
      if (first)
        put(
          { ...first.bites[0]!, what: 'drill', drill: DRILLS[week % DRILLS.length]!, minutes: DRILL_MINUTES },
          { ...first, bpm: Math.round(60 + 4 * week), isClean: random() < 0.8 },
        );
    }
  return attempts;
}

/** A stretch of a tune as it is practised. */
interface Stretch {
  readonly part: string;
  readonly from: string;
  readonly to: string;
  readonly what: AttemptKind;
  readonly drill: DrillKind | null;
  readonly minutes: number;
}

interface Told {
  readonly id: string;
  readonly tune: Tune;
  readonly at: Date;
  readonly bpm: number;
  readonly wishBpm: number;
  readonly isClean: boolean;
  readonly wrong: Wrong;
  readonly note: string;
  readonly number: number;
}

function attempt(stretch: Stretch, told: Told): Attempt {
  const { id, tune, at, bpm, wishBpm, isClean, wrong, note, number } = told;
  const { part, from, to, what, drill, minutes } = stretch;
  const hex = createHash('sha256').update(`attempt ${number}`).digest('hex');
  return {
    id: `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`,
    at: at.toISOString(),
    tuneId: id,
    title: tune.title,
    revision: 1,
    span: { part, from, to },
    what,
    drill,
    layer: 'tempo',
    way: 'bowed',
    bpm,
    wishBpm,
    clean: isClean,
    wrong: isClean ? null : wrong,
    minutes,
    note,
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
