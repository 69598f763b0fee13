import { FULL_SIZE } from '#core/instrument';
import { unroll, writtenNotes } from '#core/tune';
import { part, randomTune, tune } from '../testing/tunes';
import { fingerTune, heldChords } from './fingerTune';
import { FREE_HAND } from './hand';
import { pinFingering, pinsFor, releaseFingering } from './pins';
import { searchFingering } from './searchFingering';

const search = (t: ReturnType<typeof tune>, held?: Parameters<typeof searchFingering>[4]) =>
  searchFingering(t, unroll(t), FREE_HAND, FULL_SIZE, held);

test('pinned to what was found, a tune is fingered just so, and nothing is left to pin', () => {
  for (let seed = 1; seed <= 30; seed++) {
    const t = randomTune(seed);
    const found = search(t);
    const now = fingerTune(t, unroll(t), 'open');
    const pinned = pinFingering(t, pinsFor(found, now));
    const after = fingerTune(pinned, unroll(pinned), 'open');
    for (const [id, { chord }] of found.notes)
      expect([seed, id, after.get(id)!.place, after.get(id)!.finger]).toEqual([
        seed,
        id,
        chord[0]!.place,
        chord[0]!.finger,
      ]);
    expect(pinsFor(found, after).size).toBe(0);
  }
});

test('what is found never costs more than what there is', () => {
  for (let seed = 1; seed <= 30; seed++) {
    const t = randomTune(seed);
    const asItIs = search(t, heldChords(t, fingerTune(t, unroll(t), 'open')));
    expect(search(t).cost).toBeLessThanOrEqual(asItIs.cost + 1e-9);
  }
});

test('pins are let go of some notes or of all; without any the tune is left as it is', () => {
  const t = tune([part('A', 'A4 B4 D5')]);
  expect(releaseFingering(t, null)).toBe(t);
  const pins = new Map([
    ['A1', { place: 'D' as const, finger: 4, position: 1 as const }],
    ['A3', { place: 'D' as const, finger: 4, position: 4 as const }],
  ]);
  const pinned = pinFingering(t, pins);
  expect(writtenNotes(pinned).map(({ place, finger, position }) => [place, finger, position])).toEqual([
    ['D', 4, undefined],
    [undefined, undefined, undefined],
    ['D', 4, 4],
  ]);
  expect(writtenNotes(releaseFingering(pinned, new Set(['A1']))).map(({ place }) => place)).toEqual([
    undefined,
    undefined,
    'D',
  ]);
  expect(releaseFingering(pinned, null)).toEqual(t);
});
