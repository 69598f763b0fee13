import { applyPattern, findPattern, setLinks, setLocks } from '#core/bowing';
import { addPart, alterNotes, changeLengths, releaseBars, removeEvents, reuseBars } from '#core/editing';
import { part, randomTune, tune } from '../testing/tunes';
import { tuneDifference } from './tuneDifference';

const t = tune([part('A', '(D4 E4) F#4 G4 | A4 B4 C#5 D5 | E5:4'), part('B', 'D5 C#5 B4 A4 | G4 F#4 E4 D4')], {
  meter: { num: 2, den: 4 },
});
const told = (after: typeof t) =>
  tuneDifference(t, after).map((d) => (d.kind === 'bar' ? `${d.part}${d.bar} ${d.change} ${d.count}` : d.kind));

test('a tune does not differ from itself', () => {
  for (let seed = 1; seed <= 20; seed++) expect(tuneDifference(randomTune(seed), randomTune(seed))).toEqual([]);
});

test('links are told by bar: a slur split, two notes slurred, a retake', () => {
  expect(told(setLinks(t, new Map([['A2', 'change']])))).toEqual(['A1 slur-split 1']);
  expect(
    told(
      setLinks(
        t,
        new Map([
          ['A6', 'slur'],
          ['A8', 'slur'],
        ]),
      ),
    ),
  ).toEqual(['A2 slur-joined 2']);
  expect(told(setLinks(t, new Map([['B5', 'retake']])))).toEqual(['B2 retake 1']);
});

test('a part under a pattern is told as the pattern', () => {
  const ids = new Set(t.parts[1]!.events.map(({ id }) => id));
  const shuffled = applyPattern(t, findPattern('pair-first-shuffle')!, { ids });
  expect(tuneDifference(t, shuffled)).toEqual([{ kind: 'pattern', part: 'B', pattern: 'pair-first-shuffle' }]);
});

test('notes, pitches, lengths, locks, parts and the head', () => {
  expect(told(removeEvents(t, new Set(['A3'])))).toEqual(['A1 taken-away 1']);
  expect(told(alterNotes(t, new Set(['B1', 'B2']), 1))).toEqual(['B1 pitch 2']);
  expect(told(changeLengths(t, new Set(['A9']), 'longer'))).toEqual(['A3 length 1']);
  expect(told(setLocks(t, ['A5'], 'up'))).toEqual(['A2 lock 1']);
  expect(told(addPart(t, 'B').tune)).toEqual(['form', 'part-added']);
  expect(tuneDifference(t, { ...t, tempoBpm: 104, title: 'Other' })).toEqual([
    { kind: 'title', from: 'A tune for a test', to: 'Other' },
    { kind: 'tempo', from: 'the middle of the band', to: '104' },
  ]);
});

test('what is told one way is told the other way round too', () => {
  const edited = setLinks(t, new Map([['A2', 'change']]));
  expect(tuneDifference(edited, t)).toEqual([{ kind: 'bar', part: 'A', bar: 1, change: 'slur-joined', count: 1 }]);
});

test('bars that take up others, or go their own way again, are told', () => {
  const linked = reuseBars(t, ['Ab1'], 'B', 'Bb1')!;
  expect(told(linked)).toContain('B1 reuse 1');
  expect(tuneDifference(linked, releaseBars(linked, new Set(['Bb1'])))).toEqual([
    { kind: 'bar', part: 'B', bar: 1, change: 'reuse', count: 1 },
  ]);
});
