import { mapNotes, type NoteEvent, type NoteMark, type Tune } from '#core/tune';

/** What of a stretch is practised, each with what comes before it. */
export const PRACTICE_LAYERS = ['melody', 'second-string', 'bowing', 'colour', 'tempo'] as const;
export type PracticeLayer = (typeof PRACTICE_LAYERS)[number];

/** Marks that say where the hand is and how the bow speaks, and are no colour. */
const PLAIN_MARKS: ReadonlySet<NoteMark> = new Set(['barre', 'inferred-string', 'fermata', 'tenuto']);

/**
 * A tune as it is practised in a layer: the melody alone, a stroke for every note; with its second strings; with its bowing;
 * with its colour. The layer of tempo has everything. Ids stay, so that stretches and notes are the same in each.
 */
export function layerOf(tune: Tune, layer: PracticeLayer): Tune {
  const at = PRACTICE_LAYERS.indexOf(layer);
  if (at >= PRACTICE_LAYERS.indexOf('colour')) return tune;
  const hasBowing = at >= PRACTICE_LAYERS.indexOf('bowing');
  const hasSecond = at >= PRACTICE_LAYERS.indexOf('second-string');
  return mapNotes(tune, (note) => {
    const { marks, graceNotes: _graces, drone, stops, linkOnPass, ...plain } = note;
    const kept = marks?.filter((mark) => PLAIN_MARKS.has(mark)) ?? [];
    const own: NoteEvent = {
      ...plain,
      ...(kept.length > 0 ? { marks: kept } : {}),
      ...(hasSecond && drone ? { drone } : {}),
      ...(hasSecond && stops ? { stops } : {}),
      ...(hasBowing && linkOnPass ? { linkOnPass } : {}),
    };
    return hasBowing || own.link === 'start' ? own : { ...own, link: 'change' };
  });
}
