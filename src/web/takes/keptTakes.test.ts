import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { sampleTake } from '../testing/sampleTake';
import { acceptedTakes, changeTake, deleteTake, keepTake, soundOf, takesOf } from './keptTakes';

const wave = Float32Array.from({ length: 480 }, (_, n) => 0.9 * Math.sin(n / 7));
const keep = (id: string, more: Parameters<typeof sampleTake>[0] = {}) => keepTake(sampleTake({ id, ...more }), wave);

test('takes that were kept before tone was told are still there, and tell nothing of it', async () => {
  const before = await openDB('morrin-takes', 1, {
    upgrade: (db) => {
      db.createObjectStore('takes', { keyPath: 'id' }).createIndex('tune', 'tuneId');
      db.createObjectStore('sounds', { keyPath: 'id' });
    },
  });
  const { result, ...take } = sampleTake({ id: 'old', tuneId: 'o' });
  const { lowTones: _none, ...figures } = result.figures;
  await before.put('takes', { ...take, result: { ...result, figures } });
  before.close();
  const { tempo } = result.figures;
  const told = { ...result.figures, tempo: { ...tempo, driftUncertainty: null } };
  expect(await takesOf('o')).toEqual([{ ...take, result: { ...result, figures: told } }]);
});

test('a take comes back with its sound, as 16 bits have it, and tells how much room it takes', async () => {
  const kept = await keep('sound', { tuneId: 'a' });
  expect(kept.bytes).toBe(960);
  expect(await takesOf('a')).toEqual([kept]);
  const back = (await soundOf('sound'))!;
  expect(back).toHaveLength(480);
  for (const [n, value] of back.entries()) expect(Math.abs(value - wave[n]!)).toBeLessThan(1 / 16000);
});

test('what is beyond full scale is cut off and not folded over', async () => {
  await keepTake(sampleTake({ id: 'loud', tuneId: 'l' }), Float32Array.from([3, -3, 0]));
  const [high, low, none] = (await soundOf('loud'))!;
  expect(high).toBeCloseTo(1, 3);
  expect(low).toBeCloseTo(-1, 3);
  expect(none).toBe(0);
});

test('takes of a tune come the newest first, and those of other tunes do not', async () => {
  await keep('early', { tuneId: 'b', at: '2026-11-01T08:00:00.000Z' });
  await keep('late', { tuneId: 'b', at: '2026-11-03T08:00:00.000Z' });
  await keep('other', { tuneId: 'c' });
  expect((await takesOf('b')).map(({ id }) => id)).toEqual(['late', 'early']);
  expect(await takesOf('nothing')).toEqual([]);
});

test('a deleted take is gone with its sound, and undo brings both back', async () => {
  const kept = await keep('gone', { tuneId: 'd' });
  const undo = await deleteTake(kept);
  expect(await takesOf('d')).toEqual([]);
  expect(await soundOf('gone')).toBeNull();
  await undo();
  expect(await takesOf('d')).toEqual([kept]);
  expect(await soundOf('gone')).toHaveLength(480);
});

test('accepted takes are those of all tunes that the player accepted', async () => {
  const kept = await keep('mine', { tuneId: 'e' });
  await changeTake({ ...kept, isAccepted: true });
  expect((await acceptedTakes()).map(({ id }) => id)).toEqual(['mine']);
});
