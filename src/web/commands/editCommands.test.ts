import { pitchName } from '#core/pitch';
import { type Tune, writtenNotes } from '#core/tune';
import { part, tune } from '../../core/testing/tunes';
import { EDITS } from './editCommands';

type EditContext = Parameters<(typeof EDITS)[number][4]>[0];

const t = tune([part('A', 'D4 (E4 F#4) G4 | A4:4 B4:4')], { meter: { num: 2, den: 4 }, form: ['A', 'A'] });
const context = (ids: string[], more: Partial<EditContext> = {}): EditContext => ({
  tune: t,
  ids,
  clipboard: [],
  ...more,
});
const run = (name: string, on: EditContext) => EDITS.find(([, id]) => id === name)![4](on);
const pitches = (x: Tune | undefined) => writtenNotes(x!).map(({ pitch }) => pitchName(pitch));

test('without a selection no edit applies', () => {
  for (const [, name] of EDITS) expect([name, run(name, context([]))]).toEqual([name, null]);
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
