import { Volume2 } from 'lucide-react';
import { useMemo } from 'react';
import {
  leaveOff,
  type Ornament,
  ornament as decorate,
  type OrnamentFacts,
  ornamentFacts,
  ORNAMENTS,
} from '#core/ornaments';
import { ornamentSceneOf } from '#core/report';
import { type Tune, writtenNotes } from '#core/tune';
import { obstacleWords, ornamentName } from '#words/ornament';
import { writtenPitch } from '#words/pitch';
import type { SheetProps } from '../openTune/sheetProps';
import { SignButton } from '../ui/Button';

const FINGERS = ['', 'first', 'second', 'third', 'fourth'];

/** Every ornament at the first chosen note: what it asks for, and whether it fits on every pass. */
export function NoteOrnaments({
  report,
  ids,
  where,
  settings: { words },
  onApply,
  onPreview,
  onHear,
}: Pick<SheetProps, 'report' | 'ids' | 'where' | 'settings' | 'onApply' | 'onPreview' | 'onHear'>) {
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
  // What an ornament would come to, made when it is first pointed at.
  // eslint-disable-next-line react-hooks/exhaustive-deps -- made anew for other notes and another plan
  const made = useMemo(() => new Map<Ornament, Tune>(), [report, ids]);
  if (!note || rows[0]?.facts === undefined) return <p className="text-muted">Select a note in the score first.</p>;
  const many = ids.length > 1;
  return (
    <section aria-label={`Ornaments on ${writtenPitch(note.pitch)}`}>
      <p className="mb-2">
        <b>{writtenPitch(note.pitch)}</b> in {where}
        {many && `, set on all ${ids.length} selected notes; the figures are for the first`}.
      </p>
      <ul className="grid gap-x-6 @lg:grid-cols-2">
        {rows.map(({ ornament, facts, obstacles }) => {
          const name = ornamentName(ornament, words);
          const isOn = note.marks?.includes(ornament) ?? false;
          const toggled = () => {
            const next = made.get(ornament) ?? (isOn ? leaveOff : decorate)(ornamentSceneOf(report), ids, ornament);
            made.set(ornament, next);
            return next;
          };
          return (
            <li
              key={ornament}
              className="flex items-start gap-1 border-t border-line py-1.5"
              data-ornament={ornament}
              onPointerLeave={() => onPreview(null)}
            >
              <label className="flex min-w-0 flex-1 items-start gap-2">
                <input
                  type="checkbox"
                  className="mt-1.5 accent-woad"
                  checked={isOn}
                  onChange={() => onApply(toggled(), `${isOn ? 'no ' : ''}${name} in ${where}`)}
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
              {!isOn && (
                <SignButton
                  label={`Hear it: ${name}`}
                  className="size-8"
                  onPointerMove={() => onPreview(toggled())}
                  onFocus={() => onPreview(toggled())}
                  onBlur={() => onPreview(null)}
                  onClick={() => onHear(toggled())}
                >
                  <Volume2 size={16} aria-hidden />
                </SignButton>
              )}
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
