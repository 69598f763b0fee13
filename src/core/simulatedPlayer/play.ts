import type { Seconds } from '#core/base';
import { PLAIN_WISH, type Playing, playNotes } from '#core/performance';
import { hertzOf, midiOf } from '#core/pitch';
import type { TuneReport } from '#core/report';
import type { SoundPlan } from '#core/sound';
import { PLACES } from '#core/tune';
import type { Lists, StepTime } from './lists';
import { makeInPlan, placeOf } from './planMistakes';
import type { Step } from './steps';

/** Steps as sound, from `lead` seconds on. */
export function playSteps(
  report: TuneReport,
  steps: readonly Step[],
  lead: Seconds,
  levelOf: () => number,
): { readonly plan: SoundPlan; readonly times: readonly StepTime[] } {
  const times = timesOf(steps, lead);
  const all: Lists = {
    strokes: [],
    contacts: empty(),
    pitches: empty(),
    vibrato: empty(),
    swells: [],
    accents: [],
    touches: empty(),
  };
  for (let first = 0, end = 0; first < times.length; first = end) {
    end = first + 1;
    while (end < times.length && follows(times[end - 1]!.step, times[end]!.step)) end += 1;
    const run = times.slice(first, end);
    const played = playRun(report, run);
    append(all, played);
  }
  all.strokes = all.strokes.map((stroke) => ({
    ...stroke,
    speed: Math.min(0.8, Math.max(0.15, stroke.speed * 10 ** (levelOf() / 20))),
  }));
  for (const time of times)
    for (const { kind, size } of time.step.mistakes)
      makeInPlan(kind, { report, all, time, place: placeOf(report, time.step.index) }, size);
  const end = times.length > 0 ? times[times.length - 1]!.next : lead;
  const open = report.tune.tuning.map((pitch) => hertzOf(midiOf(pitch))) as [number, number, number, number];
  return {
    plan: { ...all, seconds: end, openHertz: open, plucks: [], clicks: [], toneHertz: null },
    times,
  };
}

function empty<T>(): T[][] {
  return PLACES.map((): T[] => []);
}

function follows(one: Step, next: Step): boolean {
  return (
    next.index === one.index + 1 && next.loop === one.loop && !one.mistakes.some(({ kind }) => kind === 'started-again')
  );
}

function timesOf(steps: readonly Step[], lead: Seconds): StepTime[] {
  const times: StepTime[] = [];
  let at = lead;
  let from = lead;
  for (const [i, step] of steps.entries()) {
    at += step.seconds;
    const next = at + (steps[i + 1]?.uneven ?? 0);
    const rests = step.seconds - step.sounding > 0.02;
    times.push({ step, from, to: rests ? Math.min(next, from + step.sounding) : next, next });
    from = next;
  }
  return times;
}

/** Notes that follow each other in the plan, played at times of the player's own. */
function playRun(report: TuneReport, run: readonly StepTime[]): Playing {
  const first = run[0]!.step.index;
  const end = first + run.length;
  const onsets = report.timing.onsets.slice();
  const durations = report.timing.durations.slice();
  for (const { step, from, to } of run) {
    onsets[step.index] = from;
    durations[step.index] = to - from;
  }
  const { tune, unrolled, settings, timing, fingers, figures, sharedStrokes } = report;
  const own = { tune, unrolled, settings, timing: { ...timing, onsets, durations }, fingers, figures, sharedStrokes };
  const playing = playNotes(own, PLAIN_WISH, { first, end }, (index) => onsets[index]!);
  // Each finger a little off, and each string.
  const pitches = playing.pitches.map((list, place) =>
    list.map((move) => {
      const time = run.find(({ from, next }) => move.at >= from - 1e-9 && move.at < next - 1e-9);
      return time && placeOf(report, time.step.index) === place
        ? { ...move, hertz: move.hertz * 2 ** (time.step.cents / 1200) }
        : move;
    }),
  );
  return { ...playing, pitches };
}

function append(all: Lists, more: Playing): void {
  all.strokes.push(...more.strokes);
  all.swells.push(...more.swells);
  all.accents.push(...more.accents);
  for (const [place] of PLACES.entries()) {
    all.contacts[place]!.push(...more.contacts[place]!);
    all.pitches[place]!.push(...more.pitches[place]!);
    all.vibrato[place]!.push(...more.vibrato[place]!);
    all.touches[place]!.push(...more.touches[place]!);
  }
}
