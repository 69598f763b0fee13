import { setLinks } from '#core/bowing';
import { unroll, writtenNotes } from '#core/tune';
import { part, randomTune, seeded, tune } from '../testing/tunes';
import { commonPrefixes, maximalRepeats, suffixArray } from './suffixes';
import { bowAlike, MIN_FIGURE, playingShare, twinFigures } from './twins';

const randomList = (seed: number, length: number, letters: number) => {
  const random = seeded(seed);
  return Array.from({ length }, () => Math.floor(random() * letters));
};

test('suffixes are in order and their common beginnings counted, as sorting them whole finds', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const list = randomList(seed, seed, 1 + (seed % 4));
    const text = (start: number) =>
      list
        .slice(start)
        .map((symbol) => String.fromCharCode(97 + symbol))
        .join('');
    const order = suffixArray(list);
    expect(order.map(text)).toEqual(list.map((_, i) => text(i)).sort());
    const common = commonPrefixes(list, order);
    for (let k = 1; k < order.length; k++) {
      const [a, b] = [text(order[k - 1]!), text(order[k]!)];
      let length = 0;
      while (length < a.length && length < b.length && a[length] === b[length]) length += 1;
      expect(common[k]).toBe(length);
    }
  }
  expect(suffixArray([])).toEqual([]);
});

test('maximal repeats are those that trying every pair of spots finds', () => {
  for (let seed = 1; seed <= 80; seed++) {
    const list = randomList(seed, 24, 2 + (seed % 3));
    const brute = new Map<string, { length: number; starts: number[] }>();
    for (let length = 2; length < list.length; length++)
      for (let i = 0; i + length <= list.length; i++) {
        const words = list.slice(i, i + length).join(',');
        const starts = list
          .flatMap((_, j) => (list.slice(j, j + length).join(',') === words ? [j] : []))
          .filter((j) => j + length <= list.length);
        const isOpen = (by: number) => new Set(starts.map((j) => list[j + by] ?? `edge ${j}`)).size > 1;
        if (starts.length > 1 && isOpen(-1) && isOpen(length)) brute.set(words, { length, starts });
      }
    const key = ({ length, starts }: { length: number; starts: readonly number[] }) => `${length}@${starts.join(' ')}`;
    expect(maximalRepeats(list, 2).map(key).sort()).toEqual([...brute.values()].map(key).sort());
  }
});

const FIGURE = 'D4 F#4 A4 D5';

test('a figure that comes again is found with all its spots, and whether it is bowed alike', () => {
  const t = tune([part('A', `${FIGURE} G4:4 | ${FIGURE} E4:4`), part('B', `B4:4 ${FIGURE} | G4:8`)]);
  const [figure, ...others] = twinFigures(t);
  expect(others).toEqual([]);
  expect(figure!.spots.map(([first]) => first!.id)).toEqual(['A1', 'A6', 'B2']);
  expect(figure!.isBowedAlike).toBe(true);
  const changed = setLinks(t, new Map([['A7', 'slur']]));
  const [twin] = twinFigures(changed);
  expect(twin!.isBowedAlike).toBe(false);
  expect(bowAlike(changed, twin!, 0)).toEqual(t);
  const slurred = writtenNotes(bowAlike(changed, twin!, 1)).filter(({ link }) => link === 'slur');
  expect(slurred.map(({ id }) => id)).toEqual(['A2', 'A7', 'B3']);
  // Three places of four eighths each, in three bars of eight and one of twelve.
  expect(playingShare(figure!, unroll(t))).toBeCloseTo(12 / 32, 9);
});

test('other lengths, a rest between, or the end of a part make no twin; three notes are too few', () => {
  expect(twinFigures(tune([part('A', `${FIGURE} | D4:2 F#4 A4 D5`)]))).toEqual([]);
  expect(twinFigures(tune([part('A', `${FIGURE} | D4 F#4 z A4 D5`)]))).toEqual([]);
  expect(twinFigures(tune([part('A', 'D4 F#4 G4 E4'), part('B', 'A4 D5 | D4 F#4'), part('C', 'A4 D5')]))).toEqual([]);
  expect(twinFigures(tune([part('A', 'D4 F#4 A4 G4 | D4 F#4 A4 E4')]))).toEqual([]);
});

test('in any tune the spots of a figure have the same notes, do not overlap, and none is missed that spans a bar', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const t = randomTune(seed);
    const sound = (notes: readonly { pitch: unknown; duration: unknown }[]) =>
      notes.map(({ pitch, duration }) => JSON.stringify([pitch, duration])).join();
    const all = writtenNotes(t).map(({ id }) => id);
    for (const { spots, length } of twinFigures(t)) {
      expect(length).toBeGreaterThanOrEqual(MIN_FIGURE);
      expect(new Set(spots.map(sound)).size).toBe(1);
      const ids = spots.flatMap((place) => place.map(({ id }) => id));
      expect(new Set(ids).size).toBe(ids.length);
      for (const place of spots)
        expect(all.indexOf(place[length - 1]!.id) - all.indexOf(place[0]!.id)).toBe(length - 1);
    }
  }
});

test('one bar played hundreds of times is told as that bar, not as every multiple of it', () => {
  const line = Array.from({ length: 400 }, () => 'D4 F#4 A4 D5 A4 F#4 D4 A4').join(' | ');
  const figures = twinFigures(tune([part('A', line)]));
  expect(figures.length).toBeGreaterThan(0);
  expect(figures.length).toBeLessThan(10);
  expect(figures[0]!.spots.length).toBeGreaterThan(150);
  const covered = new Set(figures[0]!.spots.flat().map(({ id }) => id));
  expect(covered.size).toBeGreaterThan(0.9 * 3200);
});
