import { useMemo, useState } from 'react';
import { applyDrones, DRONE_WISHES, type DroneChoice, droneShare, type DroneWish, lineChoices } from '#core/drones';
import { setDrone } from '#core/editing';
import { droneSceneOf, reportTune } from '#core/report';
import { writtenNotes } from '#core/tune';
import { counted } from '#words/plural';
import { holdsWords } from '#words/tempo';
import type { SheetProps } from '../openTune/sheetProps';
import { usePreview } from '../openTune/usePreview';
import { Button } from '../ui/Button';

const WISHES: Readonly<Record<DroneWish, string>> = {
  none: 'none',
  stressed: 'on stressed beats',
  'phrase-ends': 'at the ends of phrases',
  throughout: 'wherever it fits',
  'one-pair': 'one pair of strings throughout',
};

/** Drones for a stretch of the tune, chosen together so that the bow need not turn for each. */
export function DroneLineForm({
  report,
  ids,
  where,
  part,
  settings: { ear },
  onApply,
  onPreview,
  onHear,
}: Pick<SheetProps, 'report' | 'ids' | 'where' | 'part' | 'settings' | 'onApply' | 'onPreview' | 'onHear'>) {
  const { tune, unrolled, settings, timing } = report;
  const [wish, setWish] = useState<DroneWish>('stressed');
  const [isStopped, setStopped] = useState(false);
  const [range, setRange] = useState<'chosen' | 'part' | 'tune'>(ids.length > 1 ? 'chosen' : 'part');
  const line = useMemo(() => {
    const { notes } = unrolled;
    const chosen = new Set(ids);
    const isIn = (i: number) => {
      const { note, part: own } = notes[i]!;
      return range === 'tune' || (range === 'part' ? own === part : chosen.has(note.id));
    };
    const choices = lineChoices(droneSceneOf(report), isIn, wish, { ear, partners: isStopped ? timing : null });
    const durations = new Map(notes.map(({ note, duration }) => [note.id, duration]));
    const share = droneShare(
      [...choices.values()],
      [...choices.keys()].map((id) => durations.get(id)!),
    );
    return { choices, share };
  }, [report, unrolled, timing, ids, part, range, wish, ear, isStopped]);
  const next = useMemo(() => applyDrones(tune, line.choices), [tune, line]);
  // What was only opened proposes nothing yet.
  const [isAsked, setAsked] = useState(false);
  usePreview(onPreview, next, isAsked && next !== tune);
  const after = useMemo(() => (next === tune ? report : reportTune(next, settings)), [next, tune, report, settings]);
  const kinds = (kind: DroneChoice['kind']) =>
    [...line.choices.values()].filter((choice) => choice.kind === kind).length;
  const droned = writtenNotes(tune)
    .filter(({ id, drone }) => drone && line.choices.has(id))
    .map(({ id }) => id);
  const words = { chosen: where, part: `part ${part}`, tune: 'the tune' }[range];
  const ceiling = after.figures.check.ceiling?.ceilingBpm ?? null;
  return (
    <form
      className="flex flex-col gap-3"
      onChange={() => setAsked(true)}
      onSubmit={(event) => {
        event.preventDefault();
        setAsked(false);
        onApply(next, `drones ${WISHES[wish]} in ${words}`);
      }}
    >
      <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
        <legend className="mb-1 font-bold">Where</legend>
        {(['chosen', 'part', 'tune'] as const).map((name) => (
          <label key={name} className="flex items-center gap-1.5">
            <input
              type="radio"
              name="range"
              className="accent-woad"
              disabled={name === 'chosen' && ids.length === 0}
              checked={range === name}
              onChange={() => setRange(name)}
            />
            {name === 'chosen'
              ? ids.length > 0
                ? where
                : 'the selection'
              : name === 'part'
                ? `part ${part}`
                : 'the tune'}
          </label>
        ))}
      </fieldset>
      <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
        <legend className="mb-1 font-bold">How many</legend>
        {DRONE_WISHES.map((name) => (
          <label key={name} className="flex items-center gap-1.5">
            <input
              type="radio"
              name="wish"
              className="accent-woad"
              checked={wish === name}
              onChange={() => setWish(name)}
            />
            {WISHES[name]}
          </label>
        ))}
      </fieldset>
      <label className="flex items-start gap-2">
        <input
          type="checkbox"
          className="mt-1.5 accent-woad"
          disabled={wish === 'one-pair'}
          checked={isStopped && wish !== 'one-pair'}
          onChange={({ target }) => setStopped(target.checked)}
        />
        <span>
          stopped notes too
          <span className="block text-hint text-muted">
            {wish === 'one-pair'
              ? 'one pair is of open strings only'
              : 'notes of the key within reach, on either neighbouring string; they cost more than open ones, and never on a note shorter than 250 ms'}
          </span>
        </span>
      </label>
      <p aria-live="polite" data-drone-line>
        <b>
          {kinds('lower')} below, {kinds('upper')} above, {kinds('stopped')} stopped
        </b>{' '}
        on {line.choices.size} notes: {Math.round(100 * line.share)} % of the time.{' '}
        <span className="text-muted">
          The arm turns {after.figures.arm.sums.armDegrees.toFixed(0)}°, now{' '}
          {report.figures.arm.sums.armDegrees.toFixed(0)}°; it {holdsWords(ceiling)}.
        </span>
      </p>
      <div className="flex flex-wrap gap-2">
        <Button disabled={next === tune} onClick={() => onHear(next)}>
          Hear it
        </Button>
        <Button look="main" type="submit" disabled={next === tune}>
          Take these drones
        </Button>
        <Button
          disabled={droned.length === 0}
          onClick={() => {
            setAsked(false);
            onApply(setDrone(tune, new Set(droned), null), `no drones in ${words}`);
          }}
        >
          Remove {counted(droned.length, 'drone')}
        </Button>
      </div>
    </form>
  );
}
