import { unroll } from '#core/tune';
import { part, tune } from '../testing/tunes';
import { applyPattern } from './applyPattern';
import { accentsAlternate, alternateDrift, naturalAccents, rangeFigures } from './patternRange';
import { findPattern, patternFigures, PATTERNS } from './patterns';
import { bowNotes } from './strokes';

const reel = tune([part('A', 'D4 E4 F#4 G4 A4 B4 A4 G4 | F#4 E4 D4 E4 F#4 G4 A4 F#4')], { form: ['A', 'A'] });

function figures(name: string, ids?: ReadonlySet<string>) {
  const played = applyPattern(reel, findPattern(name)!);
  const unrolled = unroll(played);
  return rangeFigures(unrolled, bowNotes(unrolled.notes, 'down'), ids)!;
}

test('the pair-first shuffle makes six strokes a bar: even, and its beats alternate', () => {
  expect(figures('pair-first-shuffle')).toEqual({
    strokes: 24,
    turns: 24,
    parity: 'even',
    beats: [
      ['down', 'up', 'up', 'down'],
      ['down', 'up', 'up', 'down'],
    ],
  });
});

test('offbeat pairs put every inner beat within a stroke', () => {
  // 1 2 2 2 1: five strokes a bar, so the second bar begins on the up-bow.
  expect(figures('offbeat-pairs').beats.map(([first]) => first)).toEqual(['down', 'up']);
  expect(figures('offbeat-pairs', new Set(['A1', 'A2', 'A3', 'A4', 'A5', 'A6', 'A7', 'A8'])).parity).toBe('odd');
});

test('the whole tune is counted through all its passes, to where it begins again', () => {
  const odd = tune([part('A', 'D4 E4 F#4 G4 A4 B4 A4')], { form: ['A', 'A', 'A'], meter: { num: 7, den: 8 } });
  const unrolled = unroll(odd);
  expect(rangeFigures(unrolled, bowNotes(unrolled.notes, 'down'))).toMatchObject({
    strokes: 21,
    turns: 21,
    parity: 'odd',
  });
  const part1 = new Set(unrolled.notes.map(({ note }) => note.id));
  expect(rangeFigures(unrolled, bowNotes(unrolled.notes, 'down'), part1)).toMatchObject({ strokes: 7, turns: 7 });
});

test('parity over a range is whether the note after it is reached as its first note was', () => {
  for (const { name, slots } of PATTERNS) {
    if (slots === null || slots.reduce((sum, slot) => sum + slot, 0) > 8) continue;
    const played = applyPattern(reel, findPattern(name)!);
    const unrolled = unroll(played);
    const bowed = bowNotes(unrolled.notes, 'down');
    const bar = new Set(['A1', 'A2', 'A3', 'A4', 'A5', 'A6', 'A7', 'A8']);
    const { parity } = rangeFigures(unrolled, bowed, bar)!;
    if (bowed[8]!.inStroke === 1) expect([name, parity]).toEqual([name, bowed[8]!.bow === 'down' ? 'even' : 'odd']);
  }
});

test('three-and-one drives its single three times as fast, and so one-and-three', () => {
  expect(naturalAccents(findPattern('three-and-one')!)).toEqual([{ slot: 2, ratio: 3 }]);
  expect(naturalAccents(findPattern('one-and-three')!)).toEqual([{ slot: 1, ratio: 3 }]);
  expect(naturalAccents(findPattern('two-and-one')!)).toEqual([{ slot: 2, ratio: 2 }]);
});

test('patterns without drift have no natural accent, those with it have one', () => {
  for (const pattern of PATTERNS) {
    const { driftUnits, slots } = patternFigures(pattern);
    const hasAccent = naturalAccents(pattern).length > 0;
    expect([pattern.name, hasAccent]).toEqual([pattern.name, driftUnits !== 0 && slots.length % 2 === 0]);
  }
});

test('a jig in single strokes accents both directions in turn, and comes home after two groups whatever the ratio', () => {
  expect(accentsAlternate(findPattern('saw')!, { num: 6, den: 8 })).toBe(true);
  expect(accentsAlternate(findPattern('saw')!, { num: 4, den: 4 })).toBe(false);
  for (const a of [1, 1.3, 2]) {
    expect(alternateDrift([a, 1, 1])).toBeCloseTo(a, 12);
    expect(alternateDrift([a, 1, 1, a, 1, 1])).toBeCloseTo(0, 12);
  }
});

test('notes that no pass plays have no figures', () => {
  const unrolled = unroll(reel);
  expect(rangeFigures(unrolled, bowNotes(unrolled.notes, 'down'), new Set(['nowhere']))).toBeNull();
});
