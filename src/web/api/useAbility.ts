import { useEffect, useRef, useState } from 'react';
import { useDispatch } from 'react-redux';
import { NO_ABILITY, type PlayerAbility } from '#contract/ability';
import { useAbilityQuery } from './abilityApi';
import { serverApi } from './serverApi';

/** While it is learnt in the background it is looked for so often. */
const LEARNING_POLL_MS = 1500;

export interface KnownAbility {
  readonly ability: PlayerAbility;
  /** The server has answered, if only that it cannot. */
  readonly isReady: boolean;
  /** It is being learnt anew: what is shown is of before. */
  readonly isLearning: boolean;
  /** Tunes whose own ceiling is still to be counted. */
  readonly left: number;
}

/** What the log says of the player; it is looked for again until it is of the log as it is. */
export function useAbility(): KnownAbility {
  const dispatch = useDispatch();
  const [waits, setWaits] = useState(false);
  const { data, isError } = useAbilityQuery(undefined, { pollingInterval: waits ? LEARNING_POLL_MS : 0 });
  const isLearning = data !== undefined && (!data.isCurrent || data.left > 0);
  if (isLearning !== waits) setWaits(isLearning);
  // What was counted meanwhile is read anew.
  const was = useRef(false);
  useEffect(() => {
    if (was.current && !isLearning) dispatch(serverApi.util.invalidateTags(['Own']));
    was.current = isLearning;
  }, [isLearning, dispatch]);
  return {
    ability: data?.ability ?? NO_ABILITY,
    isReady: data !== undefined || isError,
    isLearning,
    left: data?.left ?? 0,
  };
}
