import { type Tune, writtenNotes } from '#core/tune';
import { pitchName } from '#core/pitch';
import { part, tune } from '../../core/testing/tunes';
import { EDIT_ACTIONS, type EditContext, comboOf } from './editActions';

const t = tune([part('A', 'D4 (E4 F#4) G4 | A4:4 B4:4')], { meter: { num: 2, den: 4 }, form: ['A', 'A'] });
const context = (ids: string[], more: Partial<EditContext> = {}): EditContext => ({
  tune: t,
  ids,
  clipboard: [],
  ...more,
});
const run = (name: string, on: EditContext) => EDIT_ACTIONS.find((action) => action.name === name)!.run(on);
const pitches = (x: Tune | undefined) => writtenNotes(x!).map(({ pitch }) => pitchName(pitch));

test('without a selection no edit applies, and none has a key of another', () => {
  for (const action of EDIT_ACTIONS) expect([action.name, action.run(context([]))]).toEqual([action.name, null]);
  const combos = EDIT_ACTIONS.flatMap(({ combo }) => combo ?? []);
  expect(new Set(combos).size).toBe(combos.length);
});

test('what is cut can be pasted behind another note, and is selected there', () => {
  const cut = run('cut', context(['A2', 'A3']))!;
  expect(pitches(cut.tune)).toEqual(['D4', 'G4', 'A4', 'B4']);
  expect(cut.select).toEqual(['A1']);
  const pasted = run('paste', { tune: cut.tune!, ids: ['A4'], clipboard: cut.clipboard! })!;
  expect(pitches(pasted.tune)).toEqual(['D4', 'G4', 'E4', 'F#4', 'A4', 'B4']);
  expect(writtenNotes(pasted.tune!).map(({ link }) => link)).toEqual([
    'start',
    'change',
    'change',
    'slur',
    'change',
    'change',
  ]);
  expect(pasted.select).toHaveLength(2);
});

test('pasting on the neighbouring strings says by what interval', () => {
  const { clipboard } = run('copy', context(['A1', 'A2']))!;
  expect(run('paste-up', context(['A4'], { clipboard }))!.label).toBe('paste on the higher strings: perfect fifth up');
  expect(run('paste-down', context(['A4'], { clipboard }))!.label).toBe(
    'paste on the lower strings: perfect fifth down',
  );
});

test('an edit that changes nothing does not apply', () => {
  expect(run('tie', context(['A1']))).toBeNull();
  expect(run('unpinned', context(['A1']))).toBeNull();
  expect(run('join-bar', context(['A1']))).toBeNull();
  expect(run('begin-part', context(['A1']))).toBeNull();
  expect(run('earlier', context(['A1']))).toBeNull();
  expect(run('paste', context(['A1']))).toBeNull();
});

test('moved notes cross a bar line, and go back', () => {
  const later = run('later', context(['A4']))!.tune!;
  expect(later.parts[0]!.events.map(({ id }) => id)).toEqual(['Ab1', 'A1', 'A2', 'A3', 'Ab2', 'A4', 'A5', 'A6']);
  expect(run('earlier', { ...context(['A4']), tune: later })!.tune!.parts[0]!.events).toEqual(t.parts[0]!.events);
});

test.each([
  [{ key: 'ArrowUp', altKey: true, shiftKey: true }, 'alt+shift+arrowup'],
  [{ key: 'V', ctrlKey: true, shiftKey: true }, 'ctrl+shift+v'],
  [{ key: 'c', metaKey: true }, 'ctrl+c'],
  [{ key: '+', shiftKey: true }, '+'],
  [{ key: '=' }, '+'],
  [{ key: 'Backspace' }, 'delete'],
  [{ key: 'Delete', shiftKey: true }, 'shift+delete'],
])('%j is %s', (keys, combo) => {
  const event = { ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...keys };
  expect(comboOf(event)).toBe(combo);
});
