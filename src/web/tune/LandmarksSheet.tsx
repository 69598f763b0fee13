import { X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Landmark } from '#contract/log';
import { namedPlaces } from '#core/practice';
import type { Tune } from '#core/tune';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import { attemptSpanWords } from '#words/practice';
import type { Failure } from '../api/answer';
import { useTunePractice } from '../api/useTunePractice';
import type { SheetProps } from '../openTune/sheetProps';
import { Alert } from '../ui/Alert';
import { Button, SignButton } from '../ui/Button';
import { INPUT } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { UndoRedo } from '../ui/UndoRedo';

/** Stretches with names of the player's own, met again by them in practice, log, loops and on paper. */
export function LandmarksSheet({
  id,
  tune,
  report,
  ids,
  onShow,
  onClose,
}: Pick<SheetProps, 'id' | 'tune' | 'report' | 'ids' | 'onShow' | 'onClose'>) {
  const { practice, change, steps, error, isReady } = useTunePractice(id);
  const [typed, setTyped] = useState('');
  const places = namedPlaces(tune, practice.landmarks);
  const [from, to] = [ids[0], ids[ids.length - 1]];
  const part = from === undefined ? null : partOf(tune, from);
  const isOnePart = to !== undefined && part !== null && partOf(tune, to) === part;
  const same = practice.landmarks.find((one) => one.part === part && one.from === from && one.to === to) ?? null;
  const name = typed.trim();
  const keep = () => {
    if (name === '' || !isOnePart || part === null) return;
    const others = practice.landmarks.filter((one) => one !== same);
    const landmark = { id: same?.id ?? crypto.randomUUID(), name, part, from: from!, to };
    change({ ...practice, landmarks: [...others, landmark] }, `name “${name}”`);
    setTyped('');
  };
  const remove = (landmark: Landmark) =>
    change(
      { ...practice, landmarks: practice.landmarks.filter((one) => one !== landmark) },
      `remove the name “${landmark.name}”`,
    );
  return (
    <Sheet open onOpenChange={onClose} title="Landmarks">
      <div className="flex flex-col gap-4">
        <p className="text-small text-muted">
          Name what you keep coming back to, “the tag” or “the climb”. The same notes elsewhere take the same name.
        </p>
        {error !== undefined && <Alert>Not saved. {failureWords(error as Failure)}</Alert>}
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
        >
          <label className="flex flex-1 flex-col gap-1">
            <span className="text-small">
              {isOnePart
                ? `${counted(ids.length, 'selected note')}, ${attemptSpanWords(report, { from: from!, to })}${same ? `: now “${same.name}”` : ''}`
                : ids.length === 0
                  ? 'Select notes in the score first.'
                  : 'Select notes of one part.'}
            </span>
            <input
              className={INPUT}
              value={typed}
              maxLength={40}
              placeholder="the tag"
              aria-label="Name of the landmark"
              disabled={!isOnePart || !isReady}
              onChange={({ target }) => setTyped(target.value)}
            />
          </label>
          <Button type="submit" look="main" disabled={!isOnePart || name === ''}>
            Name it
          </Button>
          <UndoRedo
            undoes={steps.undoes}
            redoes={steps.redoes}
            onUndo={() => void steps.undo()}
            onRedo={() => void steps.redo()}
          />
        </form>
        {isReady && practice.landmarks.length === 0 && <p className="text-muted">No landmark has a name yet.</p>}
        <ul className="flex flex-col gap-2" aria-label="Landmarks">
          {practice.landmarks.map((landmark) => {
            const own = places.filter((place) => place.landmark.id === landmark.id);
            return (
              <li key={landmark.id} className="rounded-md border border-line px-3 py-2" data-landmark={landmark.name}>
                <p className="flex items-center gap-3">
                  <b className="flex-1 font-serif text-lead">{landmark.name}</b>
                  {own.length > 0 && (
                    <Link
                      to={`/tunes/${id}/practice/landmark-${landmark.id}`}
                      className="text-woad underline underline-offset-3"
                    >
                      practise<span className="sr-only"> {landmark.name}</span>
                    </Link>
                  )}
                  <SignButton label={`Remove the name “${landmark.name}”`} onClick={() => remove(landmark)}>
                    <X size={15} aria-hidden />
                  </SignButton>
                </p>
                {own.length === 0 && <p className="text-small text-muted">Its notes are no longer in the tune.</p>}
                <p className="flex flex-wrap items-baseline gap-2 text-small">
                  {own.map(({ notes, isItself }) => {
                    const [first, last] = [notes[0]!.id, notes[notes.length - 1]!.id];
                    return (
                      <span key={first}>
                        {!isItself && <span className="text-muted">and </span>}
                        <Button look="small" onClick={() => onShow(notes.map((note) => note.id))}>
                          {attemptSpanWords(report, { from: first, to: last })}
                          <span className="sr-only">, select it</span>
                        </Button>
                      </span>
                    );
                  })}
                </p>
              </li>
            );
          })}
        </ul>
        {places.length > 0 && <p className="text-small text-muted">Select one, and X loops it.</p>}
      </div>
    </Sheet>
  );
}

const partOf = (tune: Tune, note: string): string | null =>
  tune.parts.find(({ events }) => events.some(({ id }) => id === note))?.name ?? null;
