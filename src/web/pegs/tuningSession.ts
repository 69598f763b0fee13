import type { Fiddle, PegCheck } from '#contract/pegs';
import { type CheckedDrift, type Creep, fitCreep, type Minutes, nextCheck, type Reading } from '#core/creep';
import { midiOf } from '#core/pitch';
import { type Place, PLACES } from '#core/tune';
import { parseTuning, type RetunePlan, type Tuning } from '#core/tuning';
import { dayBegins } from '#words/days';

/** Readings kept of one string, newest last: a quarter of an hour at the pace of the page. */
const MAX_READINGS = 2400;
/** The middle of this many readings is what is shown. */
export const SHOWN_READINGS = 8;
/** A string stands when the middle is this near its target. */
export const STANDS_CENTS = 2;
/** A string is new for so many days. A guess. */
const NEW_DAYS = 14;

/** What is known of one string while it is tuned and afterwards. */
export interface StringSession {
  /** When it was last brought to its pitch, in minutes of the source's clock; null: not yet. */
  readonly tunedAt: Minutes | null;
  /** Semitones of the change that it drifts back from, as far as it is known. */
  readonly change: number | null;
  readonly readings: readonly Reading[];
}

export type Sessions = Readonly<Record<Place, StringSession>>;

export const NO_SESSIONS: Sessions = {
  G: { tunedAt: null, change: null, readings: [] },
  D: { tunedAt: null, change: null, readings: [] },
  A: { tunedAt: null, change: null, readings: [] },
  E: { tunedAt: null, change: null, readings: [] },
};

/** A reading of a string; minutes by the source's clock. */
export function withReading(sessions: Sessions, place: Place, minutes: Minutes, cents: number): Sessions {
  const session = sessions[place];
  const readings = [...session.readings, { minutes, cents }].slice(-MAX_READINGS);
  return { ...sessions, [place]: { ...session, readings } };
}

/** The string stands: what comes from here on is its drift. */
export function withTuned(sessions: Sessions, place: Place, minutes: Minutes, change: number): Sessions {
  const readings = sessions[place].readings.slice(-SHOWN_READINGS);
  return { ...sessions, [place]: { tunedAt: minutes, change, readings } };
}

/** The peg was turned: what was read before says nothing of its drift, what it drifts back from is still known. */
export function withTurned(sessions: Sessions, place: Place): Sessions {
  return { ...sessions, [place]: { ...sessions[place], tunedAt: null } };
}

/** The middle of the last readings; null while there are none. */
export function shownCents({ readings }: StringSession): number | null {
  const last = readings.slice(-SHOWN_READINGS);
  return last.length === 0 ? null : last.reduce((sum, { cents }) => sum + cents, 0) / last.length;
}

/** Drift readings since the string was tuned, from then on. */
export function sinceTuned({ tunedAt, readings }: StringSession): Reading[] {
  if (tunedAt === null) return [];
  return readings
    .filter(({ minutes }) => minutes >= tunedAt)
    .map(({ minutes, cents }) => ({ minutes: minutes - tunedAt, cents }));
}

export interface StringForecast {
  readonly creep: Creep;
  /** Minutes after tuning at which it will be heard; null: never. */
  readonly check: Minutes | null;
}

/** The forecast of a string: the guess for its change, refitted from what was read and from earlier checks of it. */
export function forecastOf(
  change: number,
  isNew: boolean,
  session: StringSession,
  earlier: readonly Reading[] = [],
  scale = 1,
): StringForecast {
  const readings = [...earlier, ...sinceTuned(session)].sort((a, b) => a.minutes - b.minutes);
  const creep = fitCreep(change, isNew, readings, scale);
  return { creep, check: nextCheck(creep) };
}

/** Checks of the newest tuning of a string that were kept, as readings. */
export function keptReadings(
  { checks }: Fiddle,
  place: Place,
): { readonly tunedAt: string; readonly change: number; readonly readings: Reading[] } | null {
  const own = checks.filter((check) => check.place === place);
  const last = own[own.length - 1];
  if (!last) return null;
  const readings = own.filter(({ tunedAt }) => tunedAt === last.tunedAt).map(asReading);
  return { tunedAt: last.tunedAt, change: last.change, readings };
}

/** Earlier retunings of a fiddle with what was read of them: by them its own drift is known. */
export function checkedDrifts({ checks }: Fiddle): CheckedDrift[] {
  const groups = new Map<string, PegCheck[]>();
  for (const check of checks) {
    const name = `${check.place} ${check.tunedAt}`;
    groups.set(name, [...(groups.get(name) ?? []), check]);
  }
  return [...groups.values()].map((group) => ({
    change: group[0]!.change,
    isNew: group[0]!.isNew,
    readings: group.map(asReading),
  }));
}

function asReading({ at, tunedAt, cents }: PegCheck): Reading {
  return { minutes: (Date.parse(at) - Date.parse(tunedAt)) / 60_000, cents };
}

interface CheckMoment {
  /** Of the session. */
  readonly minutes: Minutes;
  /** Semitones that the string was changed by, and whether it is a new one. */
  readonly change: number;
  readonly isNew: boolean;
  /** In milliseconds. */
  readonly now: number;
}

/** A check to be kept: the middle reading of now. */
export function checkOf(
  place: Place,
  session: StringSession,
  { minutes, change, isNew, now }: CheckMoment,
): PegCheck | null {
  const cents = shownCents(session);
  if (cents === null || session.tunedAt === null || Math.abs(cents) > 600) return null;
  const tunedAt = new Date(now - (minutes - session.tunedAt) * 60_000).toISOString();
  return { place, tunedAt, at: new Date(now).toISOString(), cents, change, isNew };
}

export function isNewString({ strings }: Fiddle, at: number, now: number): boolean {
  const fitted = strings[at]!.fittedOn;
  return fitted !== null && now - dayBegins(fitted) < NEW_DAYS * 86_400_000;
}

export const tuningOf = (fiddle: Fiddle): Tuning => parseTuning(fiddle.tuning)!;

/** Semitones that a string was changed by, in a plan. */
export function changeOf({ strings }: RetunePlan, place: Place): number {
  return strings[PLACES.indexOf(place)]!.semitones;
}

export const targetMidi = (tuning: Tuning, place: Place): number => midiOf(tuning[PLACES.indexOf(place)]!);
