import { normalOf, type Seconds } from '#core/base';
import type { TuneReport } from '#core/report';
import type { MistakeKind } from '#core/take';
import { PLACES } from '#core/tune';
import type { PlayerTraits } from './players';

/** A mistake to be made at a played note. */
export interface Mistake {
  readonly kind: MistakeKind;
  /** Of the played note, in `unrolled.notes`. */
  readonly index: number;
  /** In the unit of its threshold; twice the threshold where left out. */
  readonly size: number;
  /** Which time round, from 0. */
  readonly loop?: number;
}

/** A note as it comes in the take: notes may come twice, or not at all. */
export interface Step {
  readonly index: number;
  readonly loop: number;
  /** Until the next one begins, and how long of it the note lasts. */
  seconds: Seconds;
  sounding: Seconds;
  /** How much earlier or later it begins than by the player's own time. */
  uneven: Seconds;
  cents: number;
  readonly mistakes: Mistake[];
}

/** A new finger comes down in the wrong place, a beginning is never more than this share of a note off. */
const MOST_UNEVEN = 0.2;
/** Before a place is begun again. */
const PAUSE: Seconds = 0.45;
/** How long a rush lasts at least. */
const RUSH = { seconds: 3.2, notes: 12 } as const;
/** A stretch that is rushed is so much quicker, at a size in per cent. */
const FINGERS_CENTS_SPREAD = 1;

/** The notes of a span as a player comes to them, mistakes of order and time made; pitches by finger and string. */
export function stepsOf(
  report: TuneReport,
  span: { readonly from: number; readonly to: number },
  {
    loops,
    traits,
    mistakes,
    driftPercent,
    random,
  }: {
    readonly loops: number;
    readonly traits: PlayerTraits;
    readonly mistakes: readonly Mistake[];
    /** How much slower the tempo is at the end than at the beginning. */
    readonly driftPercent: number;
    readonly random: () => number;
  },
): Step[] {
  const { timing, fingers, unrolled } = report;
  const normal = normalOf(random);
  const strings = PLACES.map(() => traits.stringCents * normal());
  const fingerCents = new Map<string, number>();
  const steps: Step[] = [];
  const total = (timing.onsets[span.to] ?? timing.total) - timing.onsets[span.from]!;
  let wander = 0;
  let played = 0;
  for (let loop = 0; loop < loops; loop++)
    for (let index = span.from; index < span.to; index++) {
      const plain = (timing.onsets[index + 1] ?? timing.total) - timing.onsets[index]!;
      // The tempo goes back to its own, so that it wanders and does not leave.
      wander += -0.15 * plain * wander + normal() * Math.sqrt(0.3 * plain);
      const slower =
        (1 + (traits.wanderPercent / 100) * wander) * (1 + ((driftPercent / 100) * played) / (loops * total));
      played += plain;
      const fingering = fingers.get(unrolled.notes[index]!.note.id);
      const place = fingering?.reachable ? PLACES.indexOf(fingering.place) : 3;
      const key = `${place} ${fingering?.semitones}`;
      if (!fingerCents.has(key)) fingerCents.set(key, FINGERS_CENTS_SPREAD * traits.fingerCents * normal());
      const isOpen = fingering?.semitones === 0;
      steps.push({
        index,
        loop,
        seconds: plain * slower,
        sounding: Math.min(plain, timing.durations[index]!) * slower,
        uneven: (traits.unevenMs / 1000) * normal(),
        cents: strings[place]! + (isOpen ? 0 : fingerCents.get(key)! + traits.noteCents * normal()),
        mistakes: mistakes.filter((mistake) => mistake.index === index && (mistake.loop ?? 0) === loop),
      });
    }
  for (let i = 0; i < steps.length; i++) {
    const shortest = Math.min(steps[i]!.seconds, steps[i - 1]?.seconds ?? Infinity);
    steps[i]!.uneven = Math.max(-MOST_UNEVEN * shortest, Math.min(MOST_UNEVEN * shortest, steps[i]!.uneven));
  }
  for (const mistake of mistakes) makeInTime(report, steps, mistake);
  // A note out of tune is so many cents off in all, however true the hand is otherwise.
  for (const step of steps) if (step.mistakes.some(({ kind }) => kind === 'sharp' || kind === 'flat')) step.cents = 0;
  return steps;
}

/** Mistakes that change which notes come, and when. */
function makeInTime({ unrolled }: TuneReport, steps: Step[], mistake: Mistake): void {
  const { kind, index, size } = mistake;
  const at = steps.findLastIndex((step) => step.index === index && step.loop === (mistake.loop ?? 0));
  if (at < 0) return;
  const step = steps[at]!;
  const before = steps[at - 1];
  if (kind === 'left-out' && before) {
    // The note before is held over it.
    before.sounding += before.seconds - before.sounding + step.sounding;
    before.seconds += step.seconds;
    steps.splice(at, 1);
  } else if (kind === 'added-note') {
    step.sounding += size / 1000;
    step.seconds += size / 1000;
  } else if (kind === 'started-again') {
    const again = steps.slice(Math.max(0, at - size + 1), at + 1);
    step.seconds += PAUSE;
    steps.splice(
      at + 1,
      0,
      ...again.map((one) => ({ ...one, seconds: one === step ? one.seconds - PAUSE : one.seconds, mistakes: [] })),
    );
  } else if (kind === 'wrong-pass') {
    const pass = unrolled.passes.find(({ firstNote }) => firstNote === index)!;
    steps.splice(at, pass.endNote - pass.firstNote);
  } else if (kind === 'rushing' || kind === 'dragging') {
    const factor = kind === 'rushing' ? 1 / (1 + size / 100) : 1 + size / 100;
    let gone = 0;
    for (let i = at; i < steps.length && (gone < RUSH.seconds || i - at < RUSH.notes); i++) {
      gone += steps[i]!.seconds;
      steps[i]!.seconds *= factor;
      steps[i]!.sounding *= factor;
    }
  } else if (kind === 'late-entry' && before) {
    before.seconds += size / 1000;
    step.uneven = 0;
  } else if (kind === 'hold-cut-short') {
    step.seconds *= 1 - size / 100;
    step.sounding *= 1 - size / 100;
  } else if ((kind === 'silence-cut-short' || kind === 'rushed-turn') && before) {
    before.seconds -= ((before.seconds - before.sounding) * size) / 100;
    step.uneven = 0;
  }
}
