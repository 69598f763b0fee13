import { arrayMove } from '@dnd-kit/sortable';
import { MAX_SET_TUNES, MAX_SETS, MAX_TIMES, type Sets, type SetTune, type TuneSet, USUAL_TIMES } from '#contract/sets';

export const hasRoom = (set: TuneSet): boolean => set.tunes.length < MAX_SET_TUNES;
export const hasRoomForSet = ({ sets }: Sets): boolean => sets.length < MAX_SETS;

export function withSet(all: Sets, set: TuneSet): Sets {
  const isKept = all.sets.some(({ id }) => id === set.id);
  return { sets: isKept ? all.sets.map((own) => (own.id === set.id ? set : own)) : [...all.sets, set] };
}

export function withoutSet(all: Sets, id: string): Sets {
  return { sets: all.sets.filter((set) => set.id !== id) };
}

export function withTune(set: TuneSet, tuneId: string): TuneSet {
  return hasRoom(set) ? { ...set, tunes: [...set.tunes, { tuneId, times: USUAL_TIMES }] } : set;
}

export function withoutTune(set: TuneSet, at: number): TuneSet {
  return { ...set, tunes: set.tunes.filter((_, i) => i !== at) };
}

export function withTimes(set: TuneSet, at: number, times: number): TuneSet {
  if (!Number.isInteger(times) || times < 1 || times > MAX_TIMES) return set;
  return { ...set, tunes: set.tunes.map((tune, i) => (i === at ? { ...tune, times } : tune)) };
}

/** A tune moved to another place; places beyond the ends are none. */
export function movedTune(set: TuneSet, from: number, to: number): TuneSet {
  if (from === to || to < 0 || to >= set.tunes.length || !set.tunes[from]) return set;
  return { ...set, tunes: arrayMove([...set.tunes], from, to) };
}

/** Keys for the places of a set: a tune may come again. */
export function placeKeys(tunes: readonly SetTune[]): string[] {
  const met = new Map<string, number>();
  return tunes.map(({ tuneId }) => {
    const time = (met.get(tuneId) ?? 0) + 1;
    met.set(tuneId, time);
    return `${tuneId} ${time}`;
  });
}
