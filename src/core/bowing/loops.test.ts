import { unroll } from '#core/tune';
import { part, randomTune, tune } from '../testing/tunes';
import { setLinks } from './gestures';
import { loopVerdict } from './loops';
import { bowNotes } from './strokes';

function loop(line: string, from: number, to: number, links: [string, 'retake' | 'slur'][] = []) {
  const unrolled = unroll(setLinks(tune([part('A', line)]), new Map(links)));
  return loopVerdict(unrolled, bowNotes(unrolled.notes, 'down'), from, to);
}

test('four single strokes come round on each loop, three flip', () => {
  expect(loop('D4 E4 F#4 G4', 0, 3)).toMatchObject({ strokes: 4, turns: 4, comesRound: true, again: 'down' });
  expect(loop('D4 E4 F#4 G4', 0, 2)).toMatchObject({ strokes: 3, turns: 3, comesRound: false, again: 'up' });
});

test('a retake on the way back brings an odd chunk round, unless the way back is one already', () => {
  expect(loop('D4 E4 F#4 G4', 1, 3).retakeHelps).toBe(true);
  const lifted = loop('D4 E4 F#4 G4', 1, 3, [['A2', 'retake']]);
  expect(lifted).toMatchObject({ strokes: 3, turns: 2, comesRound: true, retakeHelps: false });
});

test('a chunk begun within a slur begins a stroke of its own when it comes back', () => {
  expect(loop('(D4 E4) F#4 G4', 1, 3)).toMatchObject({ strokes: 3, turns: 3, comesRound: false });
});

test('the verdict is that of the chunk written out as a tune of its own and begun again', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const unrolled = unroll(randomTune(seed));
    const bowed = bowNotes(unrolled.notes, 'down');
    const from = seed % 5;
    const to = Math.min(unrolled.notes.length - 1, from + 3 + (seed % 7));
    const { entry, again } = loopVerdict(unrolled, bowed, from, to);
    let bow = bowed[from]!.bow;
    for (const { link } of bowed.slice(from + 1, to + 1)) if (link === 'change') bow = bow === 'down' ? 'up' : 'down';
    const back = unrolled.notes[from]!;
    const link = back.note.linkOnPass?.[back.pass] ?? back.note.link;
    if (link !== 'retake') bow = bow === 'down' ? 'up' : 'down';
    expect({ seed, entry, again }).toEqual({ seed, entry: bowed[from]!.bow, again: bow });
  }
});

test('a stretch that is not there is refused', () => {
  expect(() => loop('D4 E4', 0, 5)).toThrow(/chunk: expected notes within 0 to 1/);
});
