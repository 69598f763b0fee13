import type { AttemptKind, LogSum, Wrong } from '#contract/log';

/** A tune as it was played on a day. */
export interface DayTune {
  readonly tuneId: string;
  readonly title: string;
  readonly attempts: number;
  readonly clean: number;
  readonly cleanBpm: number | null;
  readonly minutes: number;
}

export interface LogDay {
  readonly day: string;
  readonly minutes: number;
  readonly tunes: readonly DayTune[];
}

/** Days as they stand in the sums, the newest first, each with its tunes; the quickest clean tempo is that of the tune, no drill's. */
export function daysOf(sums: readonly LogSum[]): LogDay[] {
  const days = new Map<string, Map<string, DayTune>>();
  for (const { day, tuneId, title, drill, attempts, clean, cleanBpm, minutes } of sums) {
    const tunes = days.get(day) ?? new Map<string, DayTune>();
    days.set(day, tunes);
    const before = tunes.get(tuneId);
    const own = drill === null ? cleanBpm : null;
    tunes.set(tuneId, {
      tuneId,
      title,
      attempts: attempts + (before?.attempts ?? 0),
      clean: clean + (before?.clean ?? 0),
      cleanBpm: own === null ? (before?.cleanBpm ?? null) : Math.max(own, before?.cleanBpm ?? 0),
      minutes: minutes + (before?.minutes ?? 0),
    });
  }
  return [...days].map(([day, tunes]) => {
    const own = [...tunes.values()];
    return { day, tunes: own, minutes: own.reduce((sum, { minutes }) => sum + minutes, 0) };
  });
}

/** What each is, the most first. */
export interface Share<T> {
  readonly of: T;
  readonly amount: number;
}

/** Minutes by what they were spent on. */
export function minutesByAspect(sums: readonly LogSum[]): Share<AttemptKind>[] {
  return summed(sums, ({ what, minutes }) => [what, minutes]);
}

/** How often each thing went wrong. */
export function timesWrong(sums: readonly LogSum[]): Share<Wrong>[] {
  return summed(sums, ({ wrong, attempts }) => (wrong === null ? null : [wrong, attempts]));
}

function summed<T>(sums: readonly LogSum[], of: (sum: LogSum) => readonly [T, number] | null): Share<T>[] {
  const amounts = new Map<T, number>();
  for (const sum of sums) {
    const own = of(sum);
    if (own) amounts.set(own[0], (amounts.get(own[0]) ?? 0) + own[1]);
  }
  return [...amounts].map(([one, amount]) => ({ of: one, amount })).sort((a, b) => b.amount - a.amount);
}

/** Tunes of the sums by title, the one played last first. */
export function tunesOf(sums: readonly LogSum[]): { readonly tuneId: string; readonly title: string }[] {
  const tunes = new Map<string, string>();
  // The newest day stands first: its title is the newest.
  for (const { tuneId, title } of sums) if (!tunes.has(tuneId)) tunes.set(tuneId, title);
  return [...tunes].map(([tuneId, title]) => ({ tuneId, title }));
}
