import { setLinks } from '#core/bowing';
import { reportTune } from '#core/report';
import { bar, note, part, tune } from '../testing/tunes';
import { passDifferences } from './passDifference';

function differences(played: Parameters<typeof reportTune>[0], one = 0, other = 1) {
  const { unrolled, figures } = reportTune(played);
  return passDifferences(unrolled, figures.bowed, one, other);
}

test('two passes of an even part are the same', () => {
  expect(differences(tune([part('A', 'D4 E4 F#4 G4')], { form: ['A', 'A'] }))).toEqual([]);
});

test('after an odd part every bar goes the other way, and that is all', () => {
  const found = differences(tune([part('A', 'D4:4 E4:4 | F#4:8')], { form: ['A', 'A'] }));
  expect(found.map(({ bar: number, isFlipped }) => [number, isFlipped])).toEqual([
    [1, true],
    [2, true],
  ]);
});

test('a link of a single pass is told at its note, with both ways', () => {
  const played = setLinks(
    tune([part('A', 'D4 E4 F#4 G4 D4:4 | A4 B4 A4 G4 D4:4')], { form: ['A', 'A'] }),
    new Map([['A2', 'slur']]),
    2,
  );
  const [first] = differences(played);
  expect(first).toMatchObject({ bar: 1, isFlipped: false, notes: null });
  expect(first!.bowed[0]).toEqual({
    id: 'A2',
    beat: 1.5,
    meter: { num: 4, den: 4 },
    was: { link: 'change', bow: 'up' },
    is: { link: 'slur', bow: 'down' },
  });
});

test('endings are told by their notes', () => {
  const events = [
    bar('b1'),
    note('n1', 'D4', 8),
    bar('e1', { ending: true, onPlays: [1] }),
    note('n2', 'E4', 8),
    bar('e2', { ending: true, onPlays: [2] }),
    note('n3', 'F#4', 4),
    note('n4', 'D4', 4),
  ];
  const found = differences(tune([{ name: 'A', events }], { form: ['A', 'A'] }));
  expect(found).toEqual([{ bar: 2, isFlipped: false, bowed: [], notes: { was: 'E4', is: 'F#4 D4' } }]);
});
