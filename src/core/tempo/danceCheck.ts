import type { BeatsPerMinute, Milliseconds, Seconds } from '#core/base';
import type { BowedNote } from '#core/bowing';
import type { Crossing } from '#core/crossing';
import { type Limits, crossingNeeds } from './limits';

/** Something the player must get done in a given time. */
export interface TimedEvent {
  readonly kind: 'stroke' | 'crossing';
  readonly availableMs: Milliseconds;
  readonly neededMs: Milliseconds;
}

/** A timed event at a played note, with the tempo at which its headroom is 1. */
export interface PlacedEvent extends TimedEvent {
  readonly index: number;
  readonly ceilingBpm: BeatsPerMinute;
}

export interface DanceCheck {
  /** `events[i]` belong to note i. */
  readonly events: readonly (readonly TimedEvent[])[];
  /** The smallest available/needed of a note's events; null without events. */
  readonly headroom: readonly (number | null)[];
  /** The tightest event of all; null when nothing limits the tempo below 400. */
  readonly ceiling: PlacedEvent | null;
  /** The highest tempo at which some stroke, drawn as slowly as is comfortable, is longer than the hair. */
  readonly floor: { readonly bpm: BeatsPerMinute; readonly index: number } | null;
  readonly tightest: readonly PlacedEvent[];
}

/** Tempos above this are nobody's concern: nothing that binds only there is called a ceiling. */
const HIGHEST_TEMPO: BeatsPerMinute = 400;
const TIGHTEST_COUNT = 10;

export interface DanceCheckInput {
  readonly bowed: readonly BowedNote[];
  readonly crossings: readonly (Crossing | null)[];
  /** Sounding seconds of each note, and of the silence before it, at `bpm`. */
  readonly durations: readonly Seconds[];
  readonly rests: readonly Seconds[];
  readonly bpm: BeatsPerMinute;
  readonly limits: Limits;
  readonly hairCm: number;
}

/**
 * Events with their available and needed times at a tempo, and the tempos that follow.
 *
 * Stroke: its duration against `strokeMs`. Crossing: the shorter of the two notes, plus a rest between where the bow
 * stops or turns there, against `crossingNeeds`. With even timing every available time is proportional to 1/tempo, so
 * an event's own ceiling is tempo · available/needed and the tune's is the least of them. A tune's floor is
 * tempo · d · v / hair for its longest stroke d at the slowest comfortable speed v.
 * Ties go to the earlier event.
 * Time O(n log n).
 */
export function danceCheck(input: DanceCheckInput): DanceCheck {
  const { bowed, crossings, durations, rests, bpm, limits, hairCm } = input;
  const events: TimedEvent[][] = bowed.map(() => []);
  const placed: PlacedEvent[] = [];
  let longest: { seconds: Seconds; index: number } | null = null;

  const place = (index: number, event: TimedEvent) => {
    events[index]!.push(event);
    placed.push({ ...event, index, ceilingBpm: (bpm * event.availableMs) / event.neededMs });
  };

  for (let i = 0; i < bowed.length; i++) {
    if (bowed[i]!.inStroke === 1) {
      let seconds = durations[i]!;
      for (let j = i + 1; j < bowed.length && bowed[j]!.inStroke > 1; j++) seconds += durations[j]!;
      place(i, { kind: 'stroke', availableMs: 1000 * seconds, neededMs: limits.strokeMs.value });
      if (!longest || seconds > longest.seconds) longest = { seconds, index: i };
    }
    const crossing = crossings[i];
    if (crossing && i > 0) {
      const rest = crossing.inSlur ? 0 : rests[i]!;
      const available = Math.min(durations[i - 1]!, durations[i]!) + rest;
      const neededMs = crossingNeeds(limits, crossing.degrees, crossing.inSlur);
      place(i, { kind: 'crossing', availableMs: 1000 * available, neededMs });
    }
  }

  // Equal ceilings differ in their last digits by the way they were reached: told apart only beyond a millionth.
  const rank = ({ ceilingBpm }: PlacedEvent) => Math.round(ceilingBpm * 1e6);
  placed.sort((a, b) => rank(a) - rank(b) || a.index - b.index);
  const first = placed[0];
  return {
    events,
    headroom: events.map((list) =>
      list.length > 0 ? Math.min(...list.map(({ availableMs, neededMs }) => availableMs / neededMs)) : null,
    ),
    ceiling: first && first.ceilingBpm <= HIGHEST_TEMPO ? first : null,
    floor: longest && {
      bpm: (bpm * longest.seconds * limits.slowestBowCmPerSecond.value) / hairCm,
      index: longest.index,
    },
    tightest: placed.slice(0, TIGHTEST_COUNT),
  };
}
