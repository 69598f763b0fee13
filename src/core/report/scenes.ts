import { memoByIdentity } from '#core/base';
import { type DroneScene, droneScene } from '#core/drones';
import { type HandNote, handPlan } from '#core/fingering';
import type { OrnamentScene } from '#core/ornaments';
import { TRIPLET_TIME, wholeNoteSeconds } from '#core/tempo';
import type { TuneReport } from './report';

/** What the left hand does, note by note as played. */
export const handOf: (report: TuneReport) => readonly HandNote[] = memoByIdentity(
  ({ tune, unrolled, fingers, timing, settings }) =>
    handPlan(tune, unrolled.notes, fingers, { timing, instrument: settings.instrument, schools: settings.schools }),
);

/** What stands about each note where drones are weighed. */
export const droneSceneOf: (report: TuneReport) => DroneScene = memoByIdentity(
  ({ tune, unrolled, fingers, settings }) => droneScene(tune, unrolled, fingers, settings.beat, settings.hand),
);

/** What ornaments hang on. */
export const ornamentSceneOf: (report: TuneReport) => OrnamentScene = memoByIdentity((report) => ({
  drones: droneSceneOf(report),
  bowed: report.figures.bowed,
  durations: report.timing.durations,
  limits: report.settings.limits,
  tripletSeconds: TRIPLET_TIME * wholeNoteSeconds(report.settings.bpm, report.settings.beat),
}));
