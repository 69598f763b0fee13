import type { TuneReport } from '#core/report';
import { BOW_DRILLS } from './bowDrills';
import { drillScene } from './drillScene';
import { HAND_DRILLS } from './handDrills';
import { SOUND_DRILLS } from './soundDrills';
import { DRILL_KINDS, type DrillKind, type DrillMaker, type TuneDrill, type Within } from './tuneDrill';

const MAKERS: ReadonlyMap<DrillKind, DrillMaker> = new Map(
  [...BOW_DRILLS, ...HAND_DRILLS, ...SOUND_DRILLS].map((maker) => [maker.kind, maker]),
);

const ANYWHERE: Within = () => true;

/** Parts of a tune that ask for a kind of drill, each by itself, as they are first played. */
export function partsAsking(report: TuneReport, kind: DrillKind): string[] {
  const { cause } = MAKERS.get(kind)!;
  const { notes } = report.unrolled;
  const parts = [...new Set(notes.map(({ part }) => part))];
  return parts.filter((part) => cause(report, (index) => notes[index]!.part === part) !== null);
}

/** The drills that a checked tune asks for, each with what of it asks. Kinds that its player's hand cannot do are left out. */
export function drillsFor(report: TuneReport): TuneDrill[] {
  const scene = drillScene(report);
  return DRILL_KINDS.flatMap((kind): TuneDrill[] => {
    const maker = MAKERS.get(kind)!;
    const because = maker.cause(report, ANYWHERE);
    const stages = because ? maker.stages(scene, because) : [];
    return because && stages.length > 0 ? [{ kind, because, stages }] : [];
  });
}

/** A drill that the player chose, around what of the tune asks for it or, where nothing does, in its key; null: the hand cannot. */
export function chosenDrill(report: TuneReport, kind: DrillKind): TuneDrill | null {
  const maker = MAKERS.get(kind)!;
  const because = maker.cause(report, ANYWHERE) ?? { by: 'chosen' as const };
  const stages = maker.stages(drillScene(report), because);
  return stages.length > 0 ? { kind, because, stages } : null;
}
