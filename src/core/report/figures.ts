import { type BeatsPerMinute, type Fraction, type Seconds, toNumber } from '#core/base';
import { type BowedNote, type Ledger, type Start, bowNotes, bowingLedger, startOf } from '#core/bowing';
import { type ArmPlan, type Plane, armPlan } from '#core/crossing';
import { type FingerRule, type Fingering, fingerNote } from '#core/fingering';
import type { Instrument } from '#core/instrument';
import { type DanceCheck, type Limits, danceCheck, wholeNoteSeconds } from '#core/tempo';
import { type NoteTravel, bowSpeed, rawTravel } from '#core/travel';
import { type Direction, PLACES, type Tune, type Unrolled, type UnrolledNote } from '#core/tune';

/** What the figures are taken with. */
export interface ReportSettings {
  readonly bpm: BeatsPerMinute;
  readonly beat: Fraction;
  readonly start: Direction | null;
  readonly fingerRule: FingerRule;
  readonly limits: Limits;
  readonly instrument: Instrument;
}

/** Everything counted about an unrolled tune; `x[i]` belongs to `unrolled.notes[i]`. */
export interface Figures {
  readonly start: Start;
  readonly bowed: readonly BowedNote[];
  readonly ledger: Ledger;
  readonly arm: ArmPlan;
  readonly travel: readonly NoteTravel[];
  readonly check: DanceCheck;
}

export interface Timing {
  readonly onsets: readonly Seconds[];
  readonly durations: readonly Seconds[];
  readonly rests: readonly Seconds[];
  readonly total: Seconds;
}

/** Even timing at a tempo. */
export function timing(unrolled: Unrolled, { bpm, beat }: Pick<ReportSettings, 'bpm' | 'beat'>): Timing {
  const whole = wholeNoteSeconds(bpm, beat);
  return {
    onsets: unrolled.notes.map(({ onset }) => whole * toNumber(onset)),
    durations: unrolled.notes.map(({ duration }) => whole * toNumber(duration)),
    rests: unrolled.notes.map(({ restBefore }) => whole * toNumber(restBefore)),
    total: whole * toNumber(unrolled.duration),
  };
}

/** Fingering of every written note, by id. */
export function fingerings(tune: Tune, rule: FingerRule): Map<string, Fingering> {
  const found = new Map<string, Fingering>();
  for (const part of tune.parts)
    for (const event of part.events)
      if (event.kind === 'note') found.set(event.id, fingerNote(event, tune.tuning, rule));
  return found;
}

/**
 * The plane of each played note: its string, or the pair of a double stop. A chord of three or four strings is rolled
 * onto its top two.
 */
export function notePlanes(notes: readonly UnrolledNote[], fingers: ReadonlyMap<string, Fingering>): (Plane | null)[] {
  return notes.map(({ note }) => {
    const fingering = fingers.get(note.id);
    if (!fingering?.reachable) return null;
    const below = fingering.stops[0] && PLACES[PLACES.indexOf(fingering.place) - 1];
    return below ? [below, fingering.place] : [fingering.place];
  });
}

/** Counts everything that follows from the links; strings, fingers and times are given, since no link changes them. */
export function figuresOf(
  tune: Tune,
  unrolled: Unrolled,
  planes: readonly (Plane | null)[],
  times: Timing,
  settings: ReportSettings,
): Figures {
  const { instrument, limits, bpm } = settings;
  const start = startOf(tune, unrolled, settings.start);
  const bowed = bowNotes(unrolled.notes, start.direction);
  const arm = armPlan(unrolled.notes, bowed, planes, instrument);
  return {
    start,
    bowed,
    ledger: bowingLedger(unrolled, bowed),
    arm,
    travel: rawTravel(bowed, times.durations, bowSpeed(tune.danceType), instrument),
    check: danceCheck({
      bowed,
      crossings: arm.crossings,
      durations: times.durations,
      rests: times.rests,
      bpm,
      limits,
      hairCm: instrument.hairCm,
    }),
  };
}
