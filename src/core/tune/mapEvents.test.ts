import { part, randomTune, tune } from '../testing/tunes';
import { mapEvents, mapNotes } from './mapEvents';

test('what is left as it is keeps its identity: events, parts, the tune', () => {
  const t = tune([part('A', 'D4 E4'), part('B', 'F#4 G4')]);
  expect(mapNotes(t, (note) => note)).toBe(t);
  const marked = mapNotes(t, (note) => (note.id === 'B1' ? { ...note, marks: ['cut'] } : note));
  expect(marked).not.toBe(t);
  expect(marked.parts[0]).toBe(t.parts[0]);
  expect(marked.parts[1]!.events[0]).toBe(t.parts[1]!.events[0]);
  expect(marked.parts[1]!.events.filter((event, i) => event !== t.parts[1]!.events[i]).map(({ id }) => id)).toEqual([
    'B1',
  ]);
});

test('events come in written order, bars and rests too, and notes alone where only they are asked for', () => {
  for (let seed = 0; seed < 20; seed++) {
    const t = randomTune(seed);
    const all = t.parts.flatMap(({ events }) => events);
    const [seen, notes]: [string[], string[]] = [[], []];
    mapEvents(t, (event) => (seen.push(event.id), event));
    mapNotes(t, (note) => (notes.push(note.id), note));
    expect(seen).toEqual(all.map(({ id }) => id));
    expect(notes).toEqual(all.filter(({ kind }) => kind === 'note').map(({ id }) => id));
  }
});
