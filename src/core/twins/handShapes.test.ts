import { setLinks } from '#core/bowing';
import { reportTune } from '#core/report';
import { type Tune, writtenNotes } from '#core/tune';
import { part, seeded, tune } from '../testing/tunes';
import { handShapes, sharedHands } from './handShapes';

const shapesOf = (played: Tune) => handShapes(played, reportTune(played).fingers);

// D E F# G on the D string; the same hand on the A string stands in another tune, after something else.
const ON_D = tune([part('A', 'D4 E4 F#4 G4 F#4 E4 D4:2')]);
const ON_A = tune([part('B', 'G3:8 | A4 B4 C#5 D5 C#5 B4 A4:2')]);

test('the same hand and bowing is met again on another string of another tune', () => {
  const [one, other] = [shapesOf(ON_D), shapesOf(ON_A)];
  expect(sharedHands(one.shapes, other.shapes, 6)).toEqual([{ from: 0, otherFrom: 1, notes: 7 }]);
  expect(other.places[1]).toBe('B 2');
});

test('bowed otherwise it is another shape', () => {
  const slurred = setLinks(ON_A, new Map([['B3', 'slur']]));
  expect(sharedHands(shapesOf(ON_D).shapes, shapesOf(slurred).shapes, 4)).not.toContainEqual(
    expect.objectContaining({ notes: 7 }),
  );
  // How the first note of a figure is reached is not part of it.
  const reached = setLinks(ON_A, new Map([['B2', 'slur']]));
  expect(sharedHands(shapesOf(ON_D).shapes, shapesOf(reached).shapes, 6)).toHaveLength(1);
});

test('nothing runs over the end of a part or over a double stop, and short figures tell nothing', () => {
  const { shapes } = shapesOf(tune([part('A', 'D4 E4 F#4'), part('B', 'G4 A4 B4')]));
  expect(shapes).toEqual([0, 0, 0, 0, 0, 0]);
});

test('stretches at random are those found by comparing every note with every other', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const random = seeded(seed);
    const line = (count: number) => Array.from({ length: count }, () => Math.floor(random() * 3));
    const [own, other] = [line(30), line(24)];
    const found = sharedHands(own, other, 5);
    /** From two notes on. */
    const common = (a: number, b: number) => {
      let length = 0;
      while (own[a + length] && own[a + length] === other[b + length]) length += 1;
      return length === 0 ? 0 : length + 3;
    };
    let told = 0;
    const slow: [number, number][] = [];
    for (let a = 0; a < own.length; a++) {
      const best = Math.max(...other.map((_, b) => common(a, b)));
      if (best < 5 || a + best <= told) continue;
      told = a + best;
      slow.push([a, best]);
    }
    expect({ seed, found: found.map(({ from, notes }) => [from, notes]) }).toEqual({ seed, found: slow });
    for (const { from, otherFrom, notes } of found) expect(common(from, otherFrom)).toBe(notes);
  }
});

test('each written note has its shape and its place', () => {
  const { shapes, places } = shapesOf(ON_D);
  expect(shapes).toHaveLength(writtenNotes(ON_D).length);
  expect(places).toEqual(['A 1', 'A 1', 'A 1', 'A 1', 'A 1', 'A 1', 'A 1']);
});
