import { chosenDrill, DRILL_KINDS, type DrillKind, type StageCode } from '#core/drills';
import { blankTune } from '#core/editing';
import { parsePitch } from '#core/pitch';
import { reportTune } from '#core/report';
import type { NoteEvent } from '#core/tune';

/** A note to stand for the key in which a drill is told when no tune is at hand. */
const NOTE: NoteEvent = { kind: 'note', id: 'n1', pitch: parsePitch('D4')!, duration: { n: 1, d: 1 }, link: 'start' };

const plain = blankTune();
const report = reportTune({
  ...plain,
  parts: [{ name: 'A', events: [...plain.parts[0]!.events, NOTE] }],
});

/** The stages of each drill as they are in a plain key, each told once. */
export const STAGES_OF = Object.fromEntries(
  DRILL_KINDS.map((kind) => [kind, [...new Set(chosenDrill(report, kind)?.stages.map(({ code }) => code) ?? [])]]),
) as unknown as Readonly<Record<DrillKind, readonly StageCode[]>>;
