/** @jest-environment node */
import type { LikeTune } from '#contract/imports';
import { choicesOf, likelySame, proposedFate, type QueuedFile, queueReducer, toKeep } from './importQueue';
import { readBytes } from './readBytes';

const outcome = readBytes(new TextEncoder().encode('X:1\nT:One\nK:D\ndefg|\n\nX:2\nT:Two\nK:D\ngfed|\n'), {});
const like = (title: string, share: number): LikeTune => ({ id: `id of ${title}`, title, share, semitones: 0 });
const two = () =>
  queueReducer([], {
    type: 'added',
    files: [
      { name: 'a.abc', source: new Blob(['a']) },
      { name: 'b.abc', source: new Blob(['b']) },
    ],
  });
const readFirst = (): readonly QueuedFile[] => {
  const came = queueReducer(two(), { type: 'tunesRead', key: 1, tunes: outcome.tunes });
  return queueReducer(came, { type: 'read', key: 1, messages: outcome.messages });
};

test('files wait in the order in which they came, and more can be added', () => {
  const files = queueReducer(two(), { type: 'added', files: [{ name: 'c.mid', source: new Blob(['c']) }] });
  expect(files.map(({ key, name, stage }) => [key, name, stage.kind])).toEqual([
    [1, 'a.abc', 'waiting'],
    [2, 'b.abc', 'waiting'],
    [3, 'c.mid', 'waiting'],
  ]);
});

test('what is in the book already to the note is left out, what is only like it is not', () => {
  const one = outcome.tunes[0]!;
  expect(proposedFate(one, [like('One', 1)])).toEqual({ kind: 'left-out' });
  expect(proposedFate(one, [like('Another name', 1)])).toEqual({ kind: 'own' });
  expect(proposedFate(one, [like('One', 0.8)])).toEqual({ kind: 'own' });
  expect(proposedFate(one, [])).toEqual({ kind: 'own' });
  expect(likelySame([like('a', 0.9), like('b', 0.45)]).map(({ title }) => title)).toEqual(['a']);
});

test('a choice that was made before the comparison came stays', () => {
  const chosen = queueReducer(readFirst(), { type: 'fated', key: 1, index: 1, fate: { kind: 'joins', id: 'x' } });
  const compared = queueReducer(chosen, { type: 'compared', key: 1, found: [[like('One', 1)], [like('Two', 1)]] });
  expect(compared[0]!.items.map(({ fate }) => fate.kind)).toEqual(['left-out', 'joins']);
  expect(toKeep(compared[0]!).map(({ read }) => read.title)).toEqual(['Two']);
  expect(choicesOf(compared[0]!)).toEqual({ leftOut: [0], joins: [{ at: 1, tune: 'x' }] });
});

test('another voice or grid makes a file wait to be read again', () => {
  const [file] = queueReducer(readFirst(), { type: 'chosen', key: 1, choice: { voice: '2' } });
  expect([file!.stage.kind, file!.items.length, file!.choice]).toEqual(['waiting', 0, { voice: '2' }]);
});

test('tunes are listed while the others are still read', () => {
  const some = queueReducer(two(), { type: 'tunesRead', key: 1, tunes: outcome.tunes.slice(0, 1) });
  expect([some[0]!.stage, some[0]!.items.length]).toEqual([{ kind: 'reading', count: 1 }, 1]);
  const all = queueReducer(some, { type: 'tunesRead', key: 1, tunes: outcome.tunes.slice(1) });
  expect(all[0]!.items.map(({ read }) => read.title)).toEqual(['One', 'Two']);
});
