import { useSyncExternalStore } from 'react';
import type { KeptTake } from './keptTakes';

/** The take that is shown under the score, and where it is being heard. */
interface ShownTake {
  readonly take: KeptTake | null;
  /** Listened to; null: silent. */
  readonly playing: TakePlaying | null;
}

/** A take that sounds. */
export interface TakePlaying {
  /** Seconds of the take. */
  readonly time: () => number;
}

let shown: ShownTake = { take: null, playing: null };
const listeners = new Set<() => void>();

function change(next: ShownTake): void {
  shown = next;
  for (const tell of listeners) tell();
}

/** Shows a take under the score; null: none. */
export function showTake(take: KeptTake | null): void {
  change({ take, playing: null });
}

export function tellPlaying(playing: TakePlaying | null): void {
  change({ ...shown, playing });
}

const subscribe = (tell: () => void) => {
  listeners.add(tell);
  return () => listeners.delete(tell);
};

/** The take of a tune that is shown, if one is. */
export function useShownTake(tuneId: string): ShownTake {
  const now = useSyncExternalStore(subscribe, () => shown);
  return now.take?.tuneId === tuneId ? now : NOTHING;
}

const NOTHING: ShownTake = { take: null, playing: null };
