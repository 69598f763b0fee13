/** @jest-environment node */
import { blankTune } from '#core/editing';
import { fingerNote } from '#core/fingering';
import { type Tune, unroll, writtenNotes } from '#core/tune';
import { readAbc } from '#formats/abc';
import { keysFor, soundOf } from '../testing/keysFor';
import { TIDE_REEL } from '../testing/tideReel';
import { pressEntryKey } from './entryKeys';
import { beginEntry } from './entryState';

function enter(source: Tune, way: 'calls' | 'letters'): Tune {
  let tune: Tune = { ...blankTune(), key: source.key, meter: source.meter, tuning: source.tuning };
  let entry = { ...beginEntry(tune, 'b1', 'calls') };
  for (const key of keysFor(source, way)) {
    const outcome = pressEntryKey(tune, entry, key);
    if (!outcome) throw new Error(`the key ${key} means nothing`);
    entry = outcome.entry;
    tune = outcome.tune ?? tune;
  }
  return { ...tune, form: source.form };
}

const read = (abc: string) => readAbc(abc).tunes[0]!.tune;
const onsets = (t: Tune) => unroll(t).notes.map(({ onset, duration }) => [onset, duration]);
const SOURCES: [string, Tune][] = [
  ['the turning tide', read(TIDE_REEL)],
  ['a jig', read('X:1\nT:J\nM:6/8\nL:1/8\nK:G\n|:D|GBd g(fg)|edB (A2D)|GBd (ge)d|c3 B2:|\n')],
  [
    'a hornpipe',
    read('X:1\nT:H\nM:4/4\nL:1/8\nK:A\n|:(EG)|A>c e>a g>f e>d|(3cdc (3BcB A>B c>A|[1 A2 c2 A2:|[2 A2 =g2 A2||\n'),
  ],
  ['octave leaps under a slur', read('X:1\nT:O\nM:4/4\nL:1/8\nK:D\n(fF)(Ff) d2 [Dd]2|\n')],
];

test.each(SOURCES)('%s entered by calls and by letters is the tune as it was read', (_name, source) => {
  const calls = enter(source, 'calls');
  const letters = enter(source, 'letters');
  expect(soundOf(calls)).toEqual(soundOf(source));
  expect(soundOf(letters)).toEqual(soundOf(source));
  expect(onsets(calls)).toEqual(onsets(source));
  const hand = (t: Tune) =>
    writtenNotes(t).map((note) => [fingerNote(note, t.tuning).place, fingerNote(note, t.tuning).finger]);
  expect(hand(calls)).toEqual(hand(letters));
});
