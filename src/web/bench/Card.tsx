import { Lock, LockOpen } from 'lucide-react';
import { type Gesture, gestureTargets } from '#core/bowing';
import type { NoteState } from '#core/noteStates';
import type { Direction, Tune } from '#core/tune';
import { writtenNotes } from '#core/tune';
import { callOf } from '#words/note';
import { writtenPitch } from '#words/pitch';
import { BowSign, GestureSign } from '../ui/signs';

export interface CardProps {
  readonly tune: Tune;
  readonly ids: readonly string[];
  readonly states: ReadonlyMap<string, NoteState>;
  readonly barWords: string;
  readonly onGesture: (gesture: Gesture) => void;
  readonly onLock: (lock: Direction | null) => void;
  /** The pass in view of a part played more than once, on which alone gestures may be made; null with one pass. */
  readonly pass: { readonly part: string; readonly pass: number } | null;
  readonly thisPassOnly: boolean;
  readonly onThisPassOnly: (only: boolean) => void;
  /** What becomes of the selection played over and over; null for a single note. */
  readonly loop: string | null;
}

const GESTURES: readonly { gesture: Gesture; name: string; key: string }[] = [
  { gesture: 'slur', name: 'slur', key: 'S' },
  { gesture: 'change', name: 'turn', key: 'T' },
  { gesture: 'hook', name: 'hook', key: 'H' },
  { gesture: 'retake', name: 'retake', key: 'R' },
];

/** The selection's facts and its bow gestures. */
export function Card(props: CardProps) {
  const { tune, ids, states, barWords, onGesture, onLock, pass, thisPassOnly, onThisPassOnly, loop } = props;
  const first = states.get(ids[0]!);
  const last = states.get(ids[ids.length - 1]!);
  const notes = writtenNotes(tune);
  const firstNote = notes.find(({ id }) => id === ids[0]);
  const isFirstOfTune = ids.length === 1 && notes[0]?.id === ids[0];
  const current = currentGesture(ids, states);
  const lock = first?.lock ?? null;
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1" role="group" aria-label="Selected notes">
      <p className="whitespace-nowrap">
        <span className="font-bold">{barWords}</span>{' '}
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
            <button
              key={gesture}
              type="button"
              aria-pressed={isCurrent}
              aria-keyshortcuts={key.toLowerCase()}
              title={isFirstOfTune ? 'The first note has no note before it' : `${name} (${key})`}
              disabled={isFirstOfTune || (!applies && !isCurrent)}
              onClick={() => onGesture(gesture)}
              className="flex h-8 items-center gap-1 rounded-md px-1.5 text-small text-muted hover:bg-band disabled:opacity-40 aria-pressed:bg-band aria-pressed:font-bold aria-pressed:text-woad"
            >
              <GestureSign gesture={gesture} />
              {name}
            </button>
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
            onClick={() => onLock(lock === direction ? null : direction)}
            className="flex h-8 items-center gap-1 rounded-md px-2 text-muted hover:bg-band aria-pressed:bg-band aria-pressed:text-woad"
          >
            {lock === direction ? <Lock size={13} aria-hidden /> : <LockOpen size={13} aria-hidden />}
            <BowSign direction={direction} />
          </button>
        ))}
      </div>
      {pass && (
        <label className="flex items-center gap-1.5 whitespace-nowrap text-muted">
          <input
            type="checkbox"
            checked={thisPassOnly}
            onChange={(event) => onThisPassOnly(event.target.checked)}
            className="accent-woad"
          />
          only on {pass.part}
          {pass.pass}
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

/** `14 cm of bow`, with the wish where the player has one. */
function bowWords({ ownCm, wish }: NoteState): string {
  const cm = `${Math.round(ownCm * wish)} cm of bow`;
  return wish === 1 ? cm : `${cm}, ${wish.toFixed(2)} × its own`;
}
