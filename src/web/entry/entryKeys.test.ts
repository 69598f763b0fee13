import { formatFraction } from '#core/base';
import { fingerNote } from '#core/fingering';
import { pitchName } from '#core/pitch';
import { type Tune, unroll, writtenBars, writtenNotes } from '#core/tune';
import { parseTuning } from '#core/tuning';
import { part, tune } from '../../core/testing/tunes';
import { pressEntryKey } from './entryKeys';
import { beginEntry, type EntryState, type EntryWay, keptCaret } from './entryState';

const blank: Tune = { ...tune([part('A', 'D4')]), parts: [{ name: 'A', events: [{ kind: 'bar', id: 'b1' }] }] };

/** Types keys one after the other; words in angle brackets are single keys. */
function type(keys: string, way: EntryWay, from: Tune = blank): { tune: Tune; entry: EntryState; refused: string[] } {
  let entry = beginEntry(from, from.parts[0]!.events.at(-1)!.id, way);
  let current = from;
  const refused: string[] = [];
  for (const key of keys.match(/<\w+>|\S/g) ?? []) {
    const outcome = pressEntryKey(current, entry, key === '<space>' ? ' ' : key.replace(/[<>]/g, ''));
    if (!outcome) refused.push(key);
    entry = outcome?.entry ?? entry;
    current = outcome?.tune ?? current;
  }
  return { tune: current, entry, refused };
}
const shape = (t: Tune) =>
  unroll(t).notes.map(
    ({ onset, duration, note }) =>
      `${formatFraction(onset)} ${formatFraction(duration)} ${pitchName(note.pitch)} ${note.link}`,
  );

test('calls and letters enter the same notes', () => {
  const calls = type('p D:0 D:2 A:0 D:2 t A:3 A:1 A:0 o D:2', 'calls');
  const letters = type("p d, f a f t d ' b a o f", 'letters');
  expect([calls.refused, letters.refused]).toEqual([[], []]);
  expect(shape(calls.tune)).toEqual(shape(letters.tune));
  expect(shape(calls.tune)).toEqual([
    '0 1/8 D4 start',
    '1/8 1/8 F#4 slur',
    '1/4 1/8 A4 change',
    '3/8 1/8 F#4 slur',
    '1/2 1/8 D5 change',
    '5/8 1/8 B4 slur',
    '3/4 1/8 A4 slur',
    '7/8 1/8 F#4 change',
  ]);
});

test('a called string and finger are pinned; a string that was not said stays and is marked until it is confirmed', () => {
  const { tune: t } = type('A:0 1 D:2', 'calls');
  const pinned = (of: typeof t) => writtenNotes(of).map(({ place, finger, marks }) => [place, finger, marks?.join()]);
  expect(pinned(t)).toEqual([
    ['A', 0, undefined],
    ['A', 1, 'inferred-string'],
    ['D', 2, undefined],
  ]);
  expect(pinned(type('A:0 1 y D:2', 'calls').tune)[1]).toEqual(['A', 1, undefined]);
  expect(fingerNote(writtenNotes(t)[1]!, t.tuning)).toMatchObject({ place: 'A', finger: 1, pinMisfits: false });
});

test('in a cross-tuning a call sounds what that tuning gives', () => {
  const { tune: t } = type('G:0 D:1', 'calls', { ...blank, tuning: parseTuning('A3 E4 A4 E5')! });
  expect(writtenNotes(t).map(({ pitch }) => pitchName(pitch))).toEqual(['A3', 'F#4']);
});

test('on the staff the pencil goes by steps of the key, and enters where it stands', () => {
  const { tune: t } = type('<space> <ArrowUp> <space> <ArrowDown> <ArrowDown> <Enter>', 'staff');
  expect(writtenNotes(t).map(({ pitch }) => pitchName(pitch))).toEqual(['B4', 'C#5', 'A4']);
});

test('length, dot, triplet, rest, tie, grace note, chord and bar line', () => {
  const { tune: t, refused } = type('l a . b , u k c d e | r j n f g & b + -', 'letters');
  expect(refused).toEqual([]);
  const bars = writtenBars(t).get('A')!;
  expect(bars.map(({ events }) => events.map((event) => `${event.kind[0]}${formatFraction(event.duration)}`))).toEqual([
    ['n1/4', 'n3/8', 'n1/12', 'n1/12', 'n1/12'],
    ['r1/8', 'n1/8'],
  ]);
  const last = writtenNotes(t).at(-1)!;
  expect(last.graceNotes?.map(pitchName)).toEqual(['F#4']);
  expect([pitchName(last.pitch), last.stops?.map(pitchName)]).toEqual(['B4', ['G4']]);
});

test('backspace takes back what waits, then grace notes, then the note, then the bar line', () => {
  expect(type('D : <Backspace> 0', 'calls').entry.place).toBeNull();
  expect(shape(type('a | b <Backspace> <Backspace> <Backspace>', 'letters').tune)).toEqual([]);
  expect(writtenNotes(type('n f g <Backspace>', 'letters').tune)[0]!.graceNotes).toBeUndefined();
  expect(type('<Backspace> <Backspace>', 'letters').tune).toEqual(blank);
});

test('a pair half filled goes on with the next note, and a move of the caret begins a new stroke', () => {
  expect(writtenNotes(type('p a b c', 'letters').tune).map(({ link }) => link)).toEqual(['start', 'slur', 'change']);
  expect(writtenNotes(type('p a <ArrowLeft> <ArrowRight> b', 'letters').tune).map(({ link }) => link)).toEqual([
    'start',
    'change',
  ]);
});

test('a raised finger keeps its pin and its string; an open string raised has none', () => {
  const raised = writtenNotes(type('D:2 + A:0 +', 'calls').tune);
  expect(raised.map(({ pitch, place, finger }) => [pitchName(pitch), place, finger])).toEqual([
    ['F##4', 'D', 2],
    ['A#4', 'A', undefined],
  ]);
});

test('a new part is begun and entry goes on in it', () => {
  const { tune: t, entry } = type('a x b', 'letters');
  expect(t.parts.map(({ name, events }) => [name, events.length])).toEqual([
    ['A', 2],
    ['B', 2],
  ]);
  expect(entry.caret).toBe(t.parts[1]!.events[1]!.id);
});

test('keys that mean nothing are left alone, in each way others', () => {
  expect(type('5 9 s q :', 'calls').refused).toEqual(['5', '9', 's', 'q', ':']);
  expect(type('2 q', 'letters').refused).toEqual(['2', 'q']);
  expect(type('a 1', 'staff').refused).toEqual(['a', '1']);
});

test('a caret whose event is gone falls back to one that is there', () => {
  expect(keptCaret(blank, 'gone')).toBe('b1');
});
