import { useMemo } from 'react';
import { kindCeilings, type OwnCeiling, ownCeiling, priorOf } from '#core/ability';
import type { TuneReport } from '#core/report';
import { type KnownAbility, useAbility } from '../api/useAbility';

export interface OwnTempo extends KnownAbility {
  /** null: nothing is logged that says it, or the tune holds at any tempo. */
  readonly own: OwnCeiling | null;
}

/** Up to which tempo a plan holds for this player, of what the log says. */
export function useOwnCeiling(report: TuneReport): OwnTempo {
  const known = useAbility();
  const { attempts, learnt } = known.ability;
  const { limits } = report.settings;
  const own = useMemo(
    () => (attempts === 0 ? null : ownCeiling(kindCeilings(report), learnt, priorOf(limits))),
    [attempts, report, learnt, limits],
  );
  return { ...known, own };
}
