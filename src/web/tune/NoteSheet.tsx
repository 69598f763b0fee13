import { useId, useState } from 'react';
import { keysInForce, setChord, setGraceNotes } from '#core/editing';
import { readGraces, writeGraces } from '#core/entry';
import { type NoteEvent, type Tune, writtenNotes } from '#core/tune';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';

interface NoteSheetProps {
  readonly tune: Tune;
  /** The chosen notes, in written order; at least one. */
  readonly ids: readonly string[];
  /** `bar 6 of A`. */
  readonly where: string;
  readonly onEdit: (tune: Tune, label: string) => void;
  readonly onClose: () => void;
}

const INPUT = 'rounded-md border border-soft bg-surface px-2 py-1.5';

/** The chord name over a note, and the grace notes before it or before each of several. */
export function NoteSheet({ tune, ids, where, onEdit, onClose }: NoteSheetProps) {
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
  const keep = () => {
    if (fault) return;
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
          ? 'The chord name stands over the first, the grace notes before each.'
          : 'What stands over it and before it.'
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
            className={`text-[14px] ${fault ? 'text-madder' : 'text-muted'}`}
          >
            {fault
              ? `“${fault.word}”, the ${ordinal(fault.at)}: expected ${fault.expected}.`
              : 'Letters such as e f# or calls such as E:0 E:1, with spaces; each as near as it can be. ’ and , move an octave.'}
          </span>
        </label>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit" disabled={fault !== undefined}>
            Keep
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

function ordinal(number: number): string {
  const ending = { 1: 'st', 2: 'nd', 3: 'rd' }[number] ?? 'th';
  return `${number}${ending}`;
}
