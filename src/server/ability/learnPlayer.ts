import type { PlayerAbility } from '#contract/ability';
import {
  type JudgedAttempt,
  kindByKind,
  type KindCeilings,
  type LearntAbility,
  learntTogether,
  type Margins,
  marginsAt,
  marginsOf,
  ownCeiling,
  priorOf,
  weightOf,
} from '#core/ability';
import { bestFigures, demandsOf, figuresAt, missingSkills, type SkillFigures, skillFigures } from '#core/readiness';
import { type PlayerSettings, reportTune } from '#core/report';
import type { Limits } from '#core/tempo';
import { playedStretch, type Tune } from '#core/tune';

/** A stretch as its tune's plan has it, at the tempo that the tune is wanted at. */
export interface JudgedStretch {
  readonly bpm: number;
  /** null: the plan has no such stretch any more. */
  readonly margins: Margins | null;
  readonly skills: SkillFigures | null;
}

/** How much room stretches of a tune leave, and what they ask for. Time as for a report. */
export function judgeStretches(
  document: string,
  stretches: readonly { readonly from: string; readonly to: string }[],
  settings: PlayerSettings,
): JudgedStretch[] {
  const report = reportTune(JSON.parse(document) as Tune, settings);
  const { bpm } = report.settings;
  return stretches.map((span) => {
    const stretch = playedStretch(report.unrolled, span);
    if (!stretch) return { bpm, margins: null, skills: null };
    return {
      bpm,
      margins: marginsOf(report, stretch.first, stretch.last),
      skills: skillFigures(demandsOf(report, stretch)),
    };
  });
}

/** An attempt of the log with its stretch, by its place in a list. */
export interface LoggedRow {
  readonly stretch: number;
  readonly daysAgo: number;
  readonly bpm: number;
  readonly clean: boolean;
  /** Long enough to show a skill: not a few strokes taken out. */
  readonly shows: boolean;
}

export type Learnt = Pick<PlayerAbility, 'attempts' | 'kinds' | 'learnt' | 'shown'>;

/** What attempts say of the player: own limits, and what came out clean. Time as for `learntTogether`. */
export function learnPlayer(stretches: readonly JudgedStretch[], rows: readonly LoggedRow[], limits: Limits): Learnt {
  const judged = rows.flatMap(({ stretch, daysAgo, bpm, clean }): JudgedAttempt[] => {
    const { margins, bpm: from } = stretches[stretch]!;
    return margins ? [{ margins: marginsAt(margins, from, bpm), clean, weight: weightOf(daysAgo) }] : [];
  });
  const sdOf = priorOf(limits);
  const learnt = learntTogether(judged, sdOf);
  // Of each stretch its quickest clean tempo shows the most.
  const quickest = new Map<number, number>();
  for (const { stretch, bpm, clean, shows } of rows)
    if (clean && shows) quickest.set(stretch, Math.max(quickest.get(stretch) ?? 0, bpm));
  const shown = bestFigures(
    [...quickest].flatMap(([stretch, bpm]) => {
      const { skills, bpm: from } = stretches[stretch]!;
      return skills ? [figuresAt(skills, bpm / from)] : [];
    }),
  );
  return { attempts: judged.length, kinds: kindByKind(judged, learnt), learnt: shortened(learnt), shown };
}

/** To the fourth decimal: it is sent to every page. */
const shortened = ({ draws, ...learnt }: LearntAbility): LearntAbility => ({
  ...learnt,
  draws: draws.map((player) => player.map((value) => Math.round(1e4 * value) / 1e4)),
});

/** What a tune is for the player; names are those of the columns. */
export interface OwnFigures {
  readonly own_low: number | null;
  readonly own_ceiling: number | null;
  readonly own_high: number | null;
  readonly own_binds: Readonly<Record<string, number>> | null;
  readonly missing: readonly string[] | null;
}

const UNKNOWN: OwnFigures = { own_low: null, own_ceiling: null, own_high: null, own_binds: null, missing: null };

/** Own ceilings of tunes, and what is missing for them. About a millisecond a tune. */
export function ownFigures(
  tunes: readonly { readonly ceilings: KindCeilings; readonly skills: SkillFigures }[],
  { attempts, learnt, shown }: { attempts: number; learnt: LearntAbility; shown: SkillFigures },
  limits: Limits,
): OwnFigures[] {
  if (attempts === 0) return tunes.map(() => UNKNOWN);
  const sdOf = priorOf(limits);
  return tunes.map(({ ceilings, skills }) => {
    const own = ownCeiling(ceilings, learnt, sdOf);
    return {
      own_low: own?.low ?? null,
      own_ceiling: own?.median ?? null,
      own_high: own?.high ?? null,
      own_binds: own?.binds ?? null,
      missing: missingSkills(skills, shown).map(({ name }) => name),
    };
  });
}
