import { type Fraction, toNumber } from '#core/base';
import { isBanned } from '#core/fingering';
import { scaleOnString, type ScaleStop } from '#core/ground';
import type { Pitch } from '#core/pitch';
import { reportTune, type TuneReport } from '#core/report';
import { isCompound, occurrencesOf, PLACES, type Tune } from '#core/tune';
import { excerpt, type SmallGround, type SmallNote, smallTune, wholeCycles } from './smallTune';
import type { DrillScene, DrillStage, StageCode, StageOptions } from './tuneDrill';

/** Clean repetitions before the next stage, and minutes of one. Guesses. */
const CLEAN = 3;
const MINUTES = 2;
/** Presses, barres, the fourth finger and odd holds come in short doses. */
export const SHORT_MINUTES = 1;
/** Quarters a minute of what is done slowly. A guess. */
export const SLOW = 60;

export function stopped(stop: ScaleStop, eighths: number, more: Partial<SmallNote> = {}): SmallNote {
  return { pitch: stop.pitch, eighths, place: stop.place, finger: stop.finger, ...more };
}

export const silence = (eighths: number): SmallNote => ({ pitch: null, eighths });

export function drillScene(report: TuneReport): DrillScene {
  const { tune, settings, unrolled } = report;
  const { hand, instrument } = settings;
  const quarters = settings.bpm * quartersIn(settings.beat);
  const { bpm: _bpm, lilt: _lilt, start: _start, ...player } = settings;
  const ground = (own: StageOptions = {}): SmallGround => ({
    title: tune.title,
    key: tune.key,
    tuning: tune.tuning,
    bpm: own.bpm ?? SLOW,
    ...(own.meter ? { meter: own.meter } : {}),
    ...(own.start ? { start: own.start } : {}),
  });
  const write = (notes: readonly SmallNote[], own: StageOptions = {}) =>
    own.asIs ? smallTune(notes, ground(own)) : wholeCycles(notes, ground(own), player);
  const made = (code: StageCode, small: Tune, own: StageOptions): DrillStage => ({
    code,
    way: own.way ?? 'bowed',
    bpm: small.tempoBpm ?? reportTune(small, player).settings.bpm,
    clean: CLEAN,
    minutes: own.minutes ?? MINUTES,
    tune: small,
  });
  return {
    report,
    quarters,
    open: (place) =>
      isBanned(hand, { place, finger: 0 })
        ? null
        : { pitch: tune.tuning[PLACES.indexOf(place)] as Pitch, eighths: 1, place, finger: 0 },
    scale: (place) =>
      scaleOnString(tune.key, place, tune.tuning, instrument).filter(
        (stop) => !isBanned(hand, stop) && stop.extension !== 'high',
      ),
    stage: (code, notes, own = {}) => {
      const whole = notes.filter((note) => note !== null);
      if (whole.length < notes.length || !whole.some(({ pitch }) => pitch !== null)) return null;
      return made(code, write(whole, own), own);
    },
    inTune: (id, own = {}) => {
      const at = (id === undefined ? 0 : occurrencesOf(unrolled).get(id)?.[0]) ?? 0;
      const here = unrolled.notes[at];
      if (!here) return null;
      const bars = unrolled.notes.filter(
        ({ passIndex, bar }) => passIndex === here.passIndex && Math.abs(bar - here.bar) <= 1,
      );
      return made('in-the-tune', excerpt(report, bars[0]!.index, bars[bars.length - 1]!.index, tune.title), own);
    },
  };
}

/** How many quarters are in a beat: a dotted quarter is one and a half. */
export function quartersIn(beat: Fraction): number {
  return 4 * toNumber(beat);
}

/** Beats of a drill's own meter a minute, of quarters a minute. */
export function beatsOf(quarters: number, meter: { readonly num: number; readonly den: number } | undefined): number {
  return meter && isCompound(meter) ? quarters / 1.5 : quarters;
}

/** Stages that can be done. */
export function those(stages: readonly (DrillStage | null)[]): DrillStage[] {
  return stages.filter((stage) => stage !== null);
}
