import { Lock, LockOpen } from 'lucide-react';
import { type Gesture, gestureTargets } from '#core/bowing';
import type { NoteState } from '#core/noteStates';
import type { NoteEvent } from '#core/tune';
import { callOf } from '#words/note';
import { ordinal } from '#words/ordinal';
import { noteName, writtenPitch } from '#words/pitch';
import { TERMS } from '#words/terms';
import { type Bench, runCommand } from '../commands/command';
import { commandOf } from '../commands/commands';
import { selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Hint } from '../ui/Hint';
import { BowSign, GestureSign } from '../ui/signs';
import { CardMenus } from './CardMenus';

export interface CardProps {
  readonly bench: Bench;
  /** The pass in view of a part played more than once, on which alone gestures may be made; null with one pass. */
  readonly pass: { readonly part: string; readonly pass: number } | null;
  /** What becomes of the selection played over and over; null for a single note. */
  readonly loop: string | null;
}

const GESTURES: readonly { gesture: Gesture; name: 'slur' | 'turn' | 'hook' | 'retake'; key: string }[] = [
  { gesture: 'slur', name: 'slur', key: 'S' },
  { gesture: 'change', name: 'turn', key: 'T' },
  { gesture: 'hook', name: 'hook', key: 'H' },
  { gesture: 'retake', name: 'retake', key: 'R' },
];

/** The selection's facts and its bow gestures. */
export function Card(props: CardProps) {
  const { bench, pass, loop } = props;
  const { tune, ids, states, notes, thisPassOnly } = bench;
  const { words } = useAppSelector(selectSettings).settings;
  const first = states.get(ids[0]!);
  const last = states.get(ids[ids.length - 1]!);
  const firstNote = notes.find(({ id }) => id === ids[0]);
  const isFirstOfTune = ids.length === 1 && notes[0]?.id === ids[0];
  const current = currentGesture(ids, states);
  const lock = first?.lock ?? null;
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1" role="group" aria-label="Selected notes">
      <p className="whitespace-nowrap">
        <span className="font-bold">{bench.where}</span>{' '}
        <span className="text-muted">
          {firstNote && ids.length === 1 && `${writtenPitch(firstNote.pitch)} · `}
          {first && callOf(first)}
          {ids.length > 1 && last && ` – ${callOf(last)}`}
          {first && ids.length === 1 && ` · ${bowWords(first)}`}
        </span>
      </p>
      <div className="flex gap-0.5">
        {GESTURES.map(({ gesture, name, key }) => {
          const isCurrent = current === gesture;
          const applies = gestureTargets(tune, ids, gesture, thisPassOnly && pass ? pass.pass : null).size > 0;
          return (
            <Hint key={gesture} words={`${TERMS[name]} Key: ${key}`}>
              <button
                type="button"
                // A button that is off answers no pointer: why it is off is told the browser's way.
                title={isFirstOfTune ? 'The first note has no note before it.' : undefined}
                aria-pressed={isCurrent}
                aria-keyshortcuts={key.toLowerCase()}
                disabled={isFirstOfTune || (!applies && !isCurrent)}
                onClick={() => runCommand(commandOf(gesture), bench)}
                className="flex h-8 items-center gap-1 rounded-md px-1.5 text-small text-muted hover:bg-band disabled:opacity-40 aria-pressed:bg-band aria-pressed:font-bold aria-pressed:text-woad"
              >
                <GestureSign gesture={gesture} />
                {gesture === 'slur' ? slurWords(notes, ids) : name}
              </button>
            </Hint>
          );
        })}
      </div>
      <div className="flex items-center gap-0.5" role="group" aria-label="Lock the direction">
        {(['down', 'up'] as const).map((direction) => (
          <button
            key={direction}
            type="button"
            aria-pressed={lock === direction}
            aria-label={`Lock to the ${direction}-bow`}
            title={`Lock to the ${direction}-bow (${direction === 'down' ? 'D' : 'U'})`}
            onClick={() => bench.lock(lock === direction ? null : direction)}
            className="flex h-8 items-center gap-1 rounded-md px-2 text-muted hover:bg-band aria-pressed:bg-band aria-pressed:text-woad"
          >
            {lock === direction ? <Lock size={13} aria-hidden /> : <LockOpen size={13} aria-hidden />}
            <BowSign direction={direction} />
          </button>
        ))}
      </div>
      <CardMenus bench={bench} words={words} />
      {pass && (
        <label className="flex items-center gap-1.5 whitespace-nowrap text-muted">
          <input
            type="checkbox"
            checked={thisPassOnly}
            onChange={(event) => bench.setThisPassOnly(event.target.checked)}
            className="accent-woad"
          />
          only the {ordinal(pass.pass)} time
        </label>
      )}
      {loop !== null && (
        <p className="text-small text-muted" data-loop>
          {loop}
        </p>
      )}
    </div>
  );
}

/** The gesture that all links of the selection share; null where they differ. */
function currentGesture(ids: readonly string[], states: ReadonlyMap<string, NoteState>): Gesture | null {
  const inner = ids.length > 1 ? ids.slice(1) : ids;
  const links = new Set(inner.map((id) => states.get(id)?.link));
  const [link] = links;
  return links.size === 1 && link !== undefined && link !== 'start' ? link : null;
}

/** Which note a slur joins: the one before a single note, or the selected ones together. */
function slurWords(notes: readonly NoteEvent[], ids: readonly string[]): string {
  if (ids.length > 1) return 'slur together';
  const before = notes[notes.findIndex(({ id }) => id === ids[0]) - 1];
  return before ? `slur to ${noteName(before.pitch)}` : 'slur';
}

/** `14 cm of bow`, with the wish where the player has one. */
function bowWords({ ownCm, wish }: NoteState): string {
  const cm = `${Math.round(ownCm * wish)} cm of bow`;
  return wish === 1 ? cm : `${cm}, ${wish.toFixed(2)} × its own`;
}
