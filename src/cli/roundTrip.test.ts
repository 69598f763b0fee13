import { readdirSync, readFileSync } from 'node:fs';
import { reuseBars } from '#core/editing';
import type { NoteEvent, Tune, TuneEvent } from '#core/tune';
import { readAbc, writeAbc } from '#formats/abc';
import { tuneSchema } from '#formats/json';
import { readMusicXml, writeMusicXml } from '#formats/musicxml';
import type { ImportMessage } from '#formats/text';
import { inventedTune } from '../core/testing/books';
import { randomScore, renamed } from '../core/testing/scores';
import { cases } from '../core/testing/share';
import { bar, note, part, tune } from '../core/testing/tunes';

/** Through a format and back: the tune as it is read, and what was said about it. */
const FORMATS: Record<string, (value: Tune) => { tune: Tune; messages: readonly ImportMessage[] }> = {
  abc: (value) => readAbc(writeAbc(value)).tunes[0]!,
  musicxml: (value) => readMusicXml(writeMusicXml(value)).tunes[0]!,
};

/** What counts as equal: marks in any order, links of single passes only where they are not the note's own. */
function plain(value: Tune): Tune {
  const simplified = (event: TuneEvent): TuneEvent => {
    if (event.kind !== 'note') return event;
    const { marks, linkOnPass, ...rest } = event;
    const own = Object.entries(linkOnPass ?? {}).filter(([, link]) => link !== event.link);
    return {
      ...rest,
      ...(marks ? { marks: [...marks].sort() } : {}),
      ...(own.length > 0 ? { linkOnPass: Object.fromEntries(own) as NoteEvent['linkOnPass'] } : {}),
    };
  };
  const renumbered = renamed(value);
  return { ...renumbered, parts: renumbered.parts.map((own) => ({ ...own, events: own.events.map(simplified) })) };
}

describe.each(Object.keys(FORMATS))('%s and back', (name) => {
  const again = FORMATS[name]!;

  test('keeps every tune of the demo', () => {
    for (const file of readdirSync('demo'))
      for (const { tune: value } of readAbc(readFileSync(`demo/${file}`, 'utf8')).tunes)
        expect(plain(again(value).tune)).toEqual(plain(value));
  });

  test('keeps tunes of a book', () => {
    for (let seed = 1; seed <= cases(60); seed++) {
      const value = inventedTune(seed);
      expect(plain(again(value).tune)).toEqual(plain(value));
    }
  });

  test('keeps everything a document can hold, in odd mixtures', () => {
    for (let seed = 1; seed <= cases(400); seed++) {
      const value = randomScore(seed);
      expect(tuneSchema.safeParse(value).error).toBeUndefined();
      const { tune: back, messages } = again(value);
      expect({ seed, tune: plain(back) }).toEqual({ seed, tune: plain(value) });
      expect(messages.filter(({ code }) => code !== 'bar-sum')).toEqual([]);
    }
  });

  test('what is read back writes the same file again', () => {
    for (let seed = 500; seed <= 520; seed++) {
      const once = again(randomScore(seed)).tune;
      expect(again(once).tune).toEqual(once);
    }
  });

  test('bars that take up others do so again', () => {
    const value = reuseBars(tune([part('A', 'D4:8'), part('B', 'A4:8 | F#4:8')]), ['Ab1'], 'B', null)!;
    expect(plain(again(value).tune)).toEqual(plain(value));
  });

  test.each<[string, Tune]>([
    ['a part of one short bar', tune([part('A', 'D4:2'), part('B', 'A4:8')], { form: ['A', 'A', 'B', 'B'] })],
    ['an empty bar', tune([{ name: 'A', events: [bar('b1'), note('n1', 'A4', 8), bar('b2')] }])],
    [
      'bars after an ending',
      tune(
        [
          {
            name: 'A',
            events: [
              bar('b1'),
              note('n1', 'A4', 8),
              bar('b2', { ending: true, onPlays: [1] }),
              note('n2', 'D4', 8),
              bar('b3'),
              note('n3', 'E4', 8),
            ],
          },
        ],
        { form: ['A', 'A'] },
      ),
    ],
    ['three plays', tune([part('A', 'D4:8')], { form: ['A', 'A', 'A'] })],
    ['a part that is never played', tune([part('A', 'D4:8'), part('B', 'A4:8')], { form: ['A'] })],
    [
      'a tuplet of five in the time of four',
      tune([
        {
          name: 'A',
          events: [
            bar('b1'),
            ...[0, 1, 2, 3, 4].map((i): NoteEvent => ({
              ...note(`n${i}`, 'A4', 1),
              duration: { n: 1, d: 10 },
              tuplet: { notes: 5, inTimeOf: 4, ...(i === 0 ? { first: true as const } : {}) },
            })),
            note('n9', 'D4', 4),
          ],
        },
      ]),
    ],
  ])('keeps %s', (_what, value) => {
    expect(plain(again(value).tune)).toEqual(plain(value));
  });
});
