import type { TuneReport } from '#core/report';
import { playedStretch } from '#core/tune';
import { demandsOf } from './demands';
import { bestFigures, type SkillFigures, skillFigures } from './skills';

/** A stretch that came out clean, and how fast. */
export interface CleanStretch {
  readonly span: { readonly from: string; readonly to: string };
  readonly bpm: number;
}

/** What stretches that came out clean have shown: the best figure of each skill. Those that the plan has no more are left out. */
export function shownIn(report: TuneReport, clean: readonly CleanStretch[]): SkillFigures {
  return bestFigures(
    clean.flatMap(({ span, bpm }) => {
      const stretch = playedStretch(report.unrolled, span);
      return stretch ? [skillFigures(demandsOf(report, stretch, bpm))] : [];
    }),
  );
}
