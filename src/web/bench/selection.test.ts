import { writtenNotes } from '#core/tune';
import { part, tune } from '../../core/testing/tunes';
import { moveSelection, selectedIds } from './selection';

const t = tune([part('A', 'D4 E4 | z F#4 G4 | A4'), part('B', 'B4 A4')]);
const at = (id: string) => ({ anchor: id, focus: id });

test('arrows go from note to note over rests, bars and parts, and stop at the ends', () => {
  expect(moveSelection(t, at('A2'), 'next', false)).toEqual(at('A4'));
  expect(moveSelection(t, at('A6'), 'next', false)).toEqual(at('B1'));
  expect(moveSelection(t, at('B2'), 'next', false)).toEqual(at('B2'));
  expect(moveSelection(t, at('A1'), 'previous', false)).toEqual(at('A1'));
  expect(moveSelection(t, null, 'next', false)).toEqual(at('A1'));
  expect(moveSelection(t, null, 'last', false)).toEqual(at('B2'));
});

test('bars are stepped by their first notes', () => {
  expect(moveSelection(t, at('A2'), 'next-bar', false)).toEqual(at('A4'));
  expect(moveSelection(t, at('A5'), 'previous-bar', false)).toEqual(at('A4'));
  expect(moveSelection(t, at('A4'), 'previous-bar', false)).toEqual(at('A1'));
});

test('with shift the anchor stays, and the range is told in written order whichever way it was drawn', () => {
  const back = moveSelection(t, at('A4'), 'previous-bar', true);
  expect(back).toEqual({ anchor: 'A4', focus: 'A1' });
  expect(selectedIds(writtenNotes(t), back)).toEqual(['A1', 'A2', 'A4']);
});
