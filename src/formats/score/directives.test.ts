import type { LinedField } from '#core/document';
import { parsePitch } from '#core/pitch';
import { mapNotes, type NoteEvent, writtenNotes } from '#core/tune';
import { part, tune } from '../../core/testing/tunes';
import { readAbc, writeAbc } from '../abc';
import { LINE_OF_FIELD } from './directiveTable';

/** A value of each field that ABC has no sign for. */
const SAMPLES: Readonly<Record<LinedField, Partial<NoteEvent>>> = {
  pitch: { pitch: parsePitch('A4')!, stops: [parsePitch('E5')!] },
  link: { link: 'retake' },
  linkOnPass: { linkOnPass: { 2: 'slur' } },
  place: { place: 'D' },
  position: { position: 3 },
  marks: { marks: ['snap'] },
  drone: { drone: 'upper' },
  bowLength: { bowLength: 1.25 },
  hold: { hold: 1.5 },
  breath: { breath: 0.125 },
  pace: { pace: 1.2 },
};

test.each(Object.keys(SAMPLES) as LinedField[])(
  'what notation cannot say of a note comes back by a line: %s',
  (field) => {
    const plain = tune([part('A', 'D4 E4 A4 B4')], { form: ['A', 'A'] });
    const t = mapNotes(plain, (note) => (note.id === 'A3' ? { ...note, ...SAMPLES[field] } : note));
    const written = writeAbc(t);
    expect(written).toContain(`%%morrin-${LINE_OF_FIELD[field]} 3`);
    const read = writtenNotes(readAbc(written).tunes[0]!.tune)[2]!;
    expect(read[field]).toEqual(writtenNotes(t)[2]![field]);
  },
);
