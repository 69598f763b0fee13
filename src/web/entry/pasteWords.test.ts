import { pitchName } from '#core/pitch';
import { reportTune } from '#core/report';
import { type Tune, writtenBars, writtenNotes } from '#core/tune';
import { bar, tune } from '../../core/testing/tunes';
import { beginEntry } from './entryState';
import { pasteWords } from './pasteWords';

const blank: Tune = tune([{ name: 'A', events: [bar('b1')] }]);
const paste = (text: string) => pasteWords(blank, beginEntry(blank, 'b1', 'calls'), text);
const pitches = (t: Tune | undefined) => writtenNotes(t!).map(({ pitch }) => pitchName(pitch));

test('calls and letters, mixed, are entered as if they were typed; bars fill by themselves', () => {
  const pasted = paste('D:0 D:1 D:2+ | g a b\nz c# d d');
  expect(pitches(pasted.tune)).toEqual(['D4', 'E4', 'F##4', 'G4', 'A4', 'B4', 'C#5', 'D5', 'D5']);
  expect([...writtenBars(pasted.tune!).values()].flat().map(({ events }) => events.length)).toEqual([8, 2]);
  expect(pasted).toMatchObject({ label: 'paste 10 notes', entry: { way: 'calls', fault: null } });
});

test('a word that is none is said with its place, and nothing is entered', () => {
  const refused = paste('D:0 wobble');
  expect(refused.tune).toBeUndefined();
  expect(refused.entry.fault).toBe(
    '“wobble”, word 2: expected a call such as D:2 or a letter such as f#. Nothing was entered.',
  );
  expect(paste('\u0000\u0001<script>'.repeat(9)).entry.fault).toMatch(/^“.{24}…”, word 1: expected/);
  expect(paste(' | ').entry.fault).toMatch(/empty/);
  expect(paste('d '.repeat(641)).entry.fault).toMatch(/641 words are too many/);
});

test('eighty bars at once make a tune that is judged like any other', () => {
  const pasted = paste('d e f# g '.repeat(160));
  const { bars, figures } = reportTune(pasted.tune!);
  expect([bars, figures.ledger.passes[0]!.strokes]).toEqual([80, 640]);
});
