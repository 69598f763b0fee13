import { fraction } from '#core/base';
import { type Key, parsePitch } from '#core/pitch';
import type { NoteEvent } from '#core/tune';
import { OutOfBounds } from '../text';
import { PartBuilder } from './partBuilder';

const D_MAJOR: Key = { letter: 'D', alter: 0, mode: 'major' };
const eighth = fraction(1, 8);
const begun = () => new PartBuilder({ num: 4, den: 4 }, D_MAJOR);

/** Plays notes into a bar; those with a bow sign before them are slurred to the one before. */
function play(builder: PartBuilder, line: string): string[] {
  const bar = builder.bar(0);
  for (const word of line.split(' '))
    if (word === 'z') builder.rest(eighth, bar);
    else builder.place(builder.newNote(eighth, parsePitch(word.replace('~', ''))!), bar, word.startsWith('~'));
  return bar.events.filter((event): event is NoteEvent => event.kind === 'note').map(({ link }) => link);
}

test('slurred notes are one stroke, the same pitch again and a note after a rest are hooked', () => {
  expect(play(begun(), 'D4 ~E4 ~E4 z ~F4 G4')).toEqual(['start', 'slur', 'hook', 'hook', 'change']);
});

test('every ending follows the note that stands before the first of them', () => {
  const builder = begun();
  play(builder, 'D4 E4');
  builder.endBar();
  builder.openEnding([1]);
  expect(play(builder, 'A4')).toEqual(['change']);
  builder.endBar();
  builder.openEnding([2]);
  // After A4 it would be a slur; after E4 it is the same pitch anew.
  expect(play(builder, '~E4')).toEqual(['hook']);
  expect(builder.bars.map(({ endingOpens }) => endingOpens)).toEqual([undefined, [1], [2]]);
});

test('a change of key or meter is kept with the bar that comes next, and only where it changes anything', () => {
  const builder = begun();
  play(builder, 'D4');
  builder.endBar();
  builder.changeKey({ ...D_MAJOR });
  builder.changeMeter({ num: 6, den: 8 });
  play(builder, 'E4');
  expect(builder.bars.map(({ key, meter }) => [key, meter])).toEqual([
    [undefined, undefined],
    [undefined, { num: 6, den: 8 }],
  ]);
});

test('a tuplet is counted to its end', () => {
  const builder = begun();
  builder.tuplet = { notes: 3, inTimeOf: 2, left: 3, offset: 0 };
  for (let i = 0; i < 3; i++) {
    expect(builder.inTuplet(eighth, i === 0).duration).toEqual(fraction(1, 12));
    builder.countTuplet();
  }
  expect(builder.inTuplet(eighth, false)).toEqual({ duration: eighth });
});

test('lengths that no tune may hold stop the reading where they stand', () => {
  expect(() => begun().within(fraction(65, 1), 17)).toThrow(OutOfBounds);
  expect(() => begun().within(null, 17)).toThrow(expect.objectContaining({ offset: 17 }));
});
