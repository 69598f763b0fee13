import { useMemo } from 'react';
import { leaveOff, ornament as decorate, type OrnamentFacts, ornamentFacts, ORNAMENTS } from '#core/ornaments';
import { ornamentSceneOf } from '#core/report';
import { writtenNotes } from '#core/tune';
import { obstacleWords, ornamentName } from '#words/ornament';
import { writtenPitch } from '#words/pitch';
import type { SheetProps } from '../openTune/sheetProps';

const FINGERS = ['', 'first', 'second', 'third', 'fourth'];

/** Every ornament at the first chosen note: what it asks for, and whether it fits on every pass. */
export function NoteOrnaments({
  report,
  ids,
  where,
  settings: { words },
  onApply,
}: Pick<SheetProps, 'report' | 'ids' | 'where' | 'settings' | 'onApply'>) {
  const { tune, unrolled } = report;
  const id = ids[0];
  const note = writtenNotes(tune).find((candidate) => candidate.id === id);
  const rows = useMemo(() => {
    const indices = unrolled.notes.filter((played) => played.note.id === id).map(({ index }) => index);
    const scene = ornamentSceneOf(report);
    return ORNAMENTS.map((ornament) => {
      const onPasses = indices.map((index) => ornamentFacts(scene, index, ornament));
      const obstacles = [...new Set(onPasses.flatMap((facts) => facts.obstacles))];
      return { ornament, facts: onPasses[0], obstacles };
    });
  }, [report, unrolled, id]);
  if (!note || rows[0]?.facts === undefined) return <p className="text-muted">Select a note in the score first.</p>;
  const many = ids.length > 1;
  return (
    <section aria-label={`Ornaments on ${writtenPitch(note.pitch)}`}>
      <p className="mb-2">
        <b>{writtenPitch(note.pitch)}</b> in {where}
        {many && `, set on all ${ids.length} notes chosen; the facts are those of the first`}.
      </p>
      <ul className="grid gap-x-6 @lg:grid-cols-2">
        {rows.map(({ ornament, facts, obstacles }) => {
          const name = ornamentName(ornament, words);
          const isOn = note.marks?.includes(ornament) ?? false;
          return (
            <li key={ornament} className="border-t border-line py-1.5" data-ornament={ornament}>
              <label className="flex items-start gap-2">
                <input
                  type="checkbox"
                  className="mt-1.5 accent-woad"
                  checked={isOn}
                  onChange={() =>
                    onApply(
                      (isOn ? leaveOff : decorate)(ornamentSceneOf(report), ids, ornament),
                      `${isOn ? 'no ' : ''}${name} in ${where}`,
                    )
                  }
                />
                <span className="min-w-0">
                  <b>{name}</b>
                  <span className="block text-hint leading-snug text-muted">{factWords(facts!)}</span>
                  {obstacles.map((obstacle) => (
                    <span key={obstacle} className="block text-hint leading-snug text-weld-ink">
                      {obstacleWords(obstacle, ornament)}
                    </span>
                  ))}
                </span>
              </label>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** `138 ms, needs 50; third finger`. */
function factWords({ time, finger, hairCm, strokesAdded, harmonic, liftCm, hair }: OrnamentFacts): string {
  const words = [
    ...(time ? [`${Math.round(time.availableMs)} ms, needs ${Math.round(time.neededMs)}`] : []),
    ...(finger !== null && finger > 0 ? [`${FINGERS[finger]} finger`] : []),
    ...(hairCm !== null ? [`${hairCm.toFixed(1)} cm of hair to and fro`] : []),
    ...(strokesAdded > 0
      ? [`${strokesAdded} strokes more, ${strokesAdded % 2 === 0 ? 'which flips nothing' : 'which flips what follows'}`]
      : []),
    ...(harmonic !== null ? [`may ring as a harmonic, near ${harmonic} of the string`] : []),
    ...(liftCm !== null ? [`bow up to ${liftCm.toFixed(1)} cm off the string, hair ${hair}`] : []),
  ];
  return words.length > 0 ? words.join('; ') : 'takes no extra time';
}
