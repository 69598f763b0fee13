import { writtenNotes } from '#core/tune';
import { part, tune } from '../../core/testing/tunes';
import { barSelection, moveSelection, partSelection, selectedIds, widerSelection } from './selection';

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

test('a selection grows to its bars, its part and the tune', () => {
  const bar = widerSelection(t, at('A4'));
  expect(bar).toEqual({ anchor: 'A4', focus: 'A5' });
  const whole = widerSelection(t, bar);
  expect(whole).toEqual({ anchor: 'A1', focus: 'A6' });
  expect(widerSelection(t, whole)).toEqual({ anchor: 'A1', focus: 'B2' });
  expect(widerSelection(t, { anchor: 'A2', focus: 'A4' })).toEqual({ anchor: 'A1', focus: 'A5' });
});

test('a bar is found by its note or its own id, a part by its name', () => {
  expect(barSelection(t, 'A5')).toEqual({ anchor: 'A4', focus: 'A5' });
  expect(barSelection(t, 'Ab1')).toEqual({ anchor: 'A1', focus: 'A2' });
  expect(partSelection(t, 'B')).toEqual({ anchor: 'B1', focus: 'B2' });
  expect(partSelection(t, 'C')).toBeNull();
});
