import { reportTune } from '#core/report';
import { part, tune } from '../testing/tunes';
import { type Landmark, landmarkStretch, namedPlaces, withLandmarkNames } from './landmarks';

const landmark = (own: string, from: string, to: string): Landmark => ({
  id: 'p',
  name: 'the tag',
  part: own,
  from,
  to,
});
const told = (places: ReturnType<typeof namedPlaces>) =>
  places.map(({ part: name, notes, isItself }) => [name, notes[0]!.id, notes[notes.length - 1]!.id, isItself]);

const REEL = tune([part('A', 'D4 E4 F#4 G4 | A4 F#4 E4 D4'), part('B', 'B4 A4 G4 E4 | D4 E4 F#4 G4 | A4 F#4 E4 D4')], {
  form: ['A', 'A', 'B'],
});

test('the same figure elsewhere takes the same name, the landmark itself first', () => {
  expect(told(namedPlaces(REEL, [landmark('A', 'A5', 'A8')]))).toEqual([
    ['A', 'A5', 'A8', true],
    ['B', 'B9', 'B12', false],
  ]);
});

test('in another rhythm it is another figure, and places do not overlap', () => {
  const long = tune([part('A', 'D4 E4 D4 E4 D4 E4'), part('B', 'D4:2 E4:2')]);
  expect(told(namedPlaces(long, [landmark('A', 'A1', 'A4')]))).toEqual([['A', 'A1', 'A4', true]]);
  expect(told(namedPlaces(long, [landmark('A', 'A1', 'A2')]))).toEqual([
    ['A', 'A1', 'A2', true],
    ['A', 'A3', 'A4', false],
    ['A', 'A5', 'A6', false],
  ]);
});

test('names stand over the first note of each place, beside a chord', () => {
  const own = withLandmarkNames(REEL, [landmark('A', 'A5', 'A8')]);
  const over = (t: typeof own) =>
    t.parts.flatMap(({ events }) =>
      events.flatMap((event) => (event.kind === 'note' && event.chord ? `${event.id} ${event.chord}` : [])),
    );
  expect(over(own)).toEqual(['A5 the tag', 'B9 the tag']);
  const again = withLandmarkNames(own, [{ ...landmark('A', 'A5', 'A6'), name: 'the drop' }]);
  expect(over(again)[0]).toBe('A5 the tag · the drop');
  expect(withLandmarkNames(REEL, [])).toBe(REEL);
});

test('a landmark whose notes are gone has no place, a single note only its own', () => {
  expect(namedPlaces(REEL, [landmark('A', 'A5', 'gone')])).toEqual([]);
  expect(namedPlaces(REEL, [landmark('C', 'A5', 'A8')])).toEqual([]);
  expect(namedPlaces(REEL, [landmark('A', 'A8', 'A5')])).toEqual([]);
  expect(namedPlaces(REEL, [landmark('A', 'A1', 'A1')])).toHaveLength(1);
});

test('a landmark is practised as it is played first, with the tightest of all its times', () => {
  const report = reportTune(REEL, { bpm: 300 });
  const stretch = landmarkStretch(report, { from: 'B5', to: 'B8' })!;
  expect([stretch.first, stretch.last]).toEqual([20, 23]);
  expect(stretch.ceilingBpm).not.toBeNull();
  expect(stretch.tightest!.index).toBeGreaterThanOrEqual(20);
  expect(landmarkStretch(report, { from: 'gone', to: 'B8' })).toBeNull();
});
