import { useEffect, useMemo, useState } from 'react';
import { type PlayerSettings, reportTune, type TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import type { Failure } from '../api/answer';
import { canBeJudged } from '../openTune/judgeFirst';
import { findStoredTune } from '../openTune/useStoredTune';

/** A tune of a set as far as it is known. */
export type SetTuneState =
  | { readonly kind: 'loading' }
  | { readonly kind: 'failed'; readonly failure: Failure }
  /** It is longer than a page can judge. */
  | { readonly kind: 'too-long'; readonly tune: Tune }
  | { readonly kind: 'ready'; readonly report: TuneReport };

export const LOADING: SetTuneState = { kind: 'loading' };

async function loaded(id: string, player: PlayerSettings): Promise<SetTuneState> {
  const answer = await findStoredTune(id);
  if (!answer.ok) return { kind: 'failed', failure: answer.failure };
  const tune = answer.value;
  return (await canBeJudged(tune, player))
    ? { kind: 'ready', report: reportTune(tune, player) }
    : { kind: 'too-long', tune };
}

interface Known {
  readonly player: PlayerSettings;
  readonly states: ReadonlyMap<string, SetTuneState>;
}

/** The tunes of a set as far as they are there, checked one after another; those that could not be had are asked for by `again`. */
export function useSetTunes(
  ids: readonly string[],
  player: PlayerSettings,
): { readonly states: ReadonlyMap<string, SetTuneState>; readonly again: () => void } {
  const [known, setKnown] = useState<Known>({ player, states: new Map() });
  const states = useMemo(
    () => (known.player === player ? known.states : new Map<string, SetTuneState>()),
    [known, player],
  );
  const missing = ids.find((id) => !states.has(id));
  useEffect(() => {
    if (missing === undefined) return;
    let isCurrent = true;
    void loaded(missing, player).then((state) => {
      if (isCurrent) setKnown({ player, states: new Map(states).set(missing, state) });
    });
    return () => {
      isCurrent = false;
    };
  }, [missing, player, states]);
  return {
    states,
    again: () => setKnown({ player, states: new Map([...states].filter(([, { kind }]) => kind !== 'failed')) }),
  };
}
