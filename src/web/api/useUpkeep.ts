import { format, subDays } from 'date-fns';
import { useMemo } from 'react';
import type { Fiddle } from '#contract/pegs';
import { type Due, type PlayedDay, upkeepDue } from '#core/upkeep';
import { usePlayedDaysQuery } from './logApi';

/** Where no day of the fiddle is known, so far back is looked. */
const LOOK_BACK_DAYS = 400;

export interface KnownUpkeep {
  readonly due: readonly Due[];
  readonly played: readonly PlayedDay[];
}

/** What is due on a fiddle by the hours that were logged; the log is that of the fiddle that is chosen. */
export function useUpkeep(fiddle: Fiddle | null, now: number): KnownUpkeep {
  const since = useMemo(() => {
    const { strings = [], rosinedOn = null, rehairedOn = null } = fiddle ?? {};
    const days = [...strings.flatMap(({ fittedOn, hoursOn }) => [fittedOn, hoursOn]), rosinedOn, rehairedOn];
    const known = days.filter((day) => day !== null).sort();
    return known[0] ?? format(subDays(now, LOOK_BACK_DAYS), 'yyyy-MM-dd');
  }, [fiddle, now]);
  const { data: played = NO_DAYS } = usePlayedDaysQuery(since, { skip: fiddle === null });
  const due = useMemo(() => (fiddle ? upkeepDue(fiddle, played, now) : []), [fiddle, played, now]);
  return { due, played };
}

const NO_DAYS: readonly PlayedDay[] = [];
