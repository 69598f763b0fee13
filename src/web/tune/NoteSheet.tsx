import { useId, useState } from 'react';
import { type Freedom, keysInForce, setChord, setFreedom, setGraceNotes } from '#core/editing';
import { readGraces, writeGraces } from '#core/entry';
import { HOLD_RANGE, MAX_BREATH, PACE_RANGE } from '#core/tempo';
import { type NoteEvent, writtenNotes } from '#core/tune';
import { ordinal } from '#words/ordinal';
import type { SheetProps } from '../openTune/sheetProps';
import { Button } from '../ui/Button';
import { INPUT } from '../ui/Field';
import { Sheet } from '../ui/Sheet';

/** The chord name over a note, and the grace notes before it or before each of several. */
export function NoteSheet({
  tune,
  ids,
  where,
  onEdit,
  onClose,
}: Pick<SheetProps, 'tune' | 'ids' | 'where' | 'onEdit' | 'onClose'>) {
  const notes = writtenNotes(tune).filter(({ id }) => ids.includes(id));
  const first = notes[0]!;
  const keys = keysInForce(tune);
  const keyOf = ({ id }: NoteEvent) => keys.get(id) ?? tune.key;
  const before = writeGraces(first.graceNotes ?? [], first, keyOf(first));
  const [chord, setTypedChord] = useState(first.chord ?? '');
  const [graces, setTypedGraces] = useState(before);
  const hint = useId();
  const readings = notes.map((note) => ({ note, read: readGraces(graces, note, tune.tuning, keyOf(note)) }));
  const fault = readings.flatMap(({ read }) => ('word' in read ? [read] : []))[0];
  const [typedFree, setTypedFree] = useState(writtenFree(first));
  const badFree = FREE_FIELDS.filter(({ key, min, max }) => !isFree(typedFree[key], min, max));
  const keep = () => {
    if (fault || badFree.length > 0) return;
    const changed: string[] = [];
    let next = tune;
    if (chord.trim() !== (first.chord ?? '')) {
      next = setChord(next, first.id, chord);
      changed.push(chord.trim() === '' ? 'no chord name' : `chord ${chord.trim()}`);
    }
    if (graces.trim() !== before) {
      for (const { note, read } of readings) if ('pitches' in read) next = setGraceNotes(next, note.id, read.pitches);
      changed.push(graces.trim() === '' ? 'no grace notes' : 'grace notes');
    }
    const freedom = freedomOf(typedFree, writtenFree(first));
    if (Object.keys(freedom).length > 0) {
      next = setFreedom(next, new Set(ids), freedom);
      changed.push(Object.keys(freedom).join(' and '));
    }
    if (changed.length > 0) onEdit(next, `${changed.join(', ')} in ${where}`);
    onClose();
  };
  const many = notes.length > 1;
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title={many ? `${notes.length} notes in ${where}` : `A note in ${where}`}
      description={
        many
          ? 'The chord name stands over the first, the grace notes before each; what is played freely holds for each.'
          : 'What stands over it and before it, and how freely it is played.'
      }
    >
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <label className="flex flex-col gap-1">
          <span className="font-bold">Chord name</span>
          <input
            data-autofocus
            className={`${INPUT} max-w-40`}
            value={chord}
            maxLength={40}
            placeholder="none"
            onChange={({ target }) => setTypedChord(target.value)}
          />
        </label>
        <label className="flex flex-col gap-1">
          <span className="font-bold">Grace notes</span>
          <input
            className={INPUT}
            value={graces}
            placeholder="none"
            spellCheck={false}
            autoCapitalize="off"
            aria-invalid={fault !== undefined}
            aria-describedby={hint}
            onChange={({ target }) => setTypedGraces(target.value)}
          />
          <span
            id={hint}
            role={fault ? 'alert' : undefined}
            className={`text-small ${fault ? 'text-madder' : 'text-muted'}`}
          >
            {fault
              ? `“${fault.word}”, the ${ordinal(fault.at)}: expected ${fault.expected}.`
              : 'Letters such as e f# or calls such as E:0 E:1, with spaces; each as near as it can be. ’ and , move an octave.'}
          </span>
        </label>
        <fieldset className="flex flex-col gap-1.5 rounded-md border border-line px-3 pt-1 pb-2">
          <legend className="px-1 font-bold">Played freely</legend>
          {FREE_FIELDS.map(({ key, name, unit, min, max }) => (
            <label key={key} className="flex flex-wrap items-center gap-2">
              <span className="w-40">{name}</span>
              <input
                inputMode="decimal"
                className={`${INPUT} w-20 text-right`}
                value={typedFree[key]}
                placeholder="none"
                aria-invalid={badFree.some((bad) => bad.key === key)}
                onChange={({ target }) => setTypedFree({ ...typedFree, [key]: target.value })}
              />
              <span className="text-muted">{unit}</span>
              {badFree.some((bad) => bad.key === key) && (
                <span role="alert" className="w-full text-small text-madder">
                  expected {min} to {max}, or nothing
                </span>
              )}
            </label>
          ))}
          <p className="text-small text-muted">
            For airs. Each pass keeps its length: what is held here the other notes give back. The pace glides from note
            to note that names one. A tune played freely has no lilt.
          </p>
        </fieldset>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={fault !== undefined || badFree.length > 0}>
            Save
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

type FreeKey = 'hold' | 'breath' | 'pace';

/** In the units in which they are typed: times, eighths, percent. */
const FREE_FIELDS: readonly {
  readonly key: FreeKey;
  readonly name: string;
  readonly unit: string;
  readonly factor: number;
  readonly min: number;
  readonly max: number;
}[] = [
  { key: 'hold', name: 'Held', unit: 'times its length', factor: 1, min: HOLD_RANGE.min, max: HOLD_RANGE.max },
  { key: 'breath', name: 'Breath after it', unit: 'eighths', factor: 8, min: 0.1, max: 8 * MAX_BREATH },
  {
    key: 'pace',
    name: 'Pace from here',
    unit: '% of steady',
    factor: 100,
    min: 100 * PACE_RANGE.min,
    max: 100 * PACE_RANGE.max,
  },
];

function writtenFree(note: NoteEvent): Record<FreeKey, string> {
  const written = ({ key, factor }: (typeof FREE_FIELDS)[number]) => {
    const value = note[key];
    return value === undefined ? '' : String(Math.round(1000 * factor * value) / 1000);
  };
  const [hold, breath, pace] = FREE_FIELDS.map(written) as [string, string, string];
  return { hold, breath, pace };
}

function isFree(typed: string, min: number, max: number): boolean {
  const number = Number(typed.replace(',', '.'));
  return typed.trim() === '' || (number >= min && number <= max);
}

/** What was typed otherwise than it is written. */
function freedomOf(typed: Record<FreeKey, string>, before: Record<FreeKey, string>): Freedom {
  return Object.fromEntries(
    FREE_FIELDS.filter(({ key }) => typed[key].trim() !== before[key]).map(({ key, factor }) => {
      const text = typed[key].trim().replace(',', '.');
      return [key, text === '' ? null : Number(text) / factor];
    }),
  );
}
