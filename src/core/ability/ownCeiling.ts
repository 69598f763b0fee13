import { type BeatsPerMinute, normalOf, seeded, weightedQuantiles } from '#core/base';
import type { TuneReport } from '#core/report';
import { EVENT_KINDS, type EventKind } from '#core/tempo';
import { type LearntAbility, PRIOR_SD } from './learnAbility';
import { isLeading } from './margins';

/** Up to which tempo a tune holds for this player, of what is known of him. */
export interface OwnCeiling {
  readonly median: BeatsPerMinute;
  /** 10 and 90 %. */
  readonly low: BeatsPerMinute;
  readonly high: BeatsPerMinute;
  /** What binds, by the share of the draws in which it does. */
  readonly binds: Readonly<Partial<Record<EventKind, number>>>;
}

/** The lowest tempo of each kind at which one of its events has no room left. */
export type KindCeilings = Readonly<Partial<Record<EventKind, BeatsPerMinute>>>;

const DRAWS = 1024;
const SEED = 20_260_302;

/**
 * The lowest ceiling of each kind of event in a tune, by the limits it was checked with; of a stretch without the way to its first
 * note. Time O(n).
 */
export function kindCeilings(
  { figures: { check } }: Pick<TuneReport, 'figures'>,
  stretch?: { readonly first: number; readonly last: number },
): KindCeilings {
  const { first, last } = stretch ?? { first: 0, last: check.events.length - 1 };
  const ceilings: Partial<Record<EventKind, number>> = {};
  for (let index = first; index <= last; index++)
    for (const { kind, ceilingBpm } of check.events[index] ?? [])
      if (!(stretch && index === first && isLeading(kind)))
        ceilings[kind] = Math.min(ceilings[kind] ?? Infinity, ceilingBpm);
  return ceilings;
}

/**
 * The median and the 10 and 90 % of the ceiling over seeded draws of a player: who is better than a limit by exp(a) needs
 * 1/exp(a) of its time, so that each kind's ceiling is exp(a) times as high (with a lilt that flattens a near guess), and the
 * lowest of them is the tune's. Kinds that the log does not know are drawn from what is thought before.
 * Time O(d·k) for d draws and k kinds. null: nothing in the tune needs time.
 */
export function ownCeiling(
  ceilings: KindCeilings,
  learnt: LearntAbility,
  sdOf: (kind: EventKind) => number = () => PRIOR_SD.guess,
): OwnCeiling | null {
  const { drawn, bound } = drawnCeilings(ceilings, learnt, sdOf);
  if (drawn.length === 0) return null;
  const [low, median, high] = weightedQuantiles(
    drawn,
    drawn.map(() => 1),
    [0.1, 0.5, 0.9],
  ) as [number, number, number];
  const shares = [...bound].sort(([, a], [, b]) => b - a).map(([kind, count]) => [kind, count / drawn.length]);
  return { median, low, high, binds: Object.fromEntries(shares) as OwnCeiling['binds'] };
}

/** Ceilings of seeded draws of a player, and how often each kind is the lowest. */
export function drawnCeilings(
  ceilings: KindCeilings,
  learnt: LearntAbility,
  sdOf: (kind: EventKind) => number,
): { readonly drawn: readonly BeatsPerMinute[]; readonly bound: ReadonlyMap<EventKind, number> } {
  const kinds = EVENT_KINDS.filter((kind) => ceilings[kind] !== undefined);
  const drawn: number[] = [];
  const bound = new Map<EventKind, number>();
  if (kinds.length === 0) return { drawn, bound };
  const { exp } = Math;
  for (const player of playersOf(kinds, learnt, sdOf)) {
    let [least, binds] = [Infinity, kinds[0]!];
    for (const [k, kind] of kinds.entries()) {
      const ceiling = ceilings[kind]! * exp(player[k]!);
      if (ceiling < least) [least, binds] = [ceiling, kind];
    }
    drawn.push(least);
    bound.set(binds, (bound.get(binds) ?? 0) + 1);
  }
  return { drawn, bound };
}

/** Seeded draws of players with some kinds: as learnt, else as they are thought of before. */
export function playersOf(
  kinds: readonly EventKind[],
  learnt: LearntAbility,
  sdOf: (kind: EventKind) => number,
): number[][] {
  const at = kinds.map((kind) => learnt.kinds.indexOf(kind));
  const normal = normalOf(seeded(SEED));
  return Array.from({ length: DRAWS }, (_, draw) => {
    const player = learnt.draws[draw % learnt.draws.length];
    return kinds.map((kind, k) => (at[k]! < 0 || !player ? sdOf(kind) * normal() : player[at[k]!]!));
  });
}
