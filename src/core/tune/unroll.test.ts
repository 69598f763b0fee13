import { formatFraction, fraction } from '#core/base';
import { bar, note, part, randomTune, rest, tune } from '../testing/tunes';
import { barSumFaults } from './barSums';
import type { Tune } from './tune';
import { playsOf, unroll } from './unroll';

const ids = (t: Tune) => unroll(t).notes.map(({ note: { id }, part: name, pass }) => `${id}@${name}${pass}`);

test('the form gives the playing order, and passes are counted on through A B A', () => {
  const t = tune([part('A', 'D4:8'), part('B', 'E4:8')], { form: ['A', 'B', 'A'] });
  expect(ids(t)).toEqual(['A1@A1', 'B1@B1', 'A1@A2']);
});

test('each ending sounds on its own plays, and its first bar has the number of the other ending', () => {
  const events = [
    bar('b1'),
    note('n1', 'D4', 8),
    bar('b2', { ending: true, onPlays: [1] }),
    note('n2', 'E4', 8),
    bar('b3', { ending: true, onPlays: [2] }),
    note('n3', 'F#4', 8),
  ];
  const t = tune([{ name: 'A', events }], { form: ['A', 'A'] });
  expect(ids(t)).toEqual(['n1@A1', 'n2@A1', 'n1@A2', 'n3@A2']);
  const { notes, passes } = unroll(t);
  expect(notes.map(({ bar: number }) => number)).toEqual([1, 2, 1, 2]);
  expect(passes.map(({ ending }) => ending)).toEqual([1, 2]);
});

test('a pickup is bar 0, and one before the repeat sign is played once', () => {
  const events = [bar('b0', { onPlays: [1] }), note('n0', 'A4', 1), bar('b1'), note('n1', 'D4', 8)];
  const t = tune([{ name: 'A', events }], { form: ['A', 'A'] });
  const { notes, passes } = unroll(t);
  expect(notes.map(({ bar: number }) => number)).toEqual([0, 1, 1]);
  expect(passes.map(({ hasPickup }) => hasPickup)).toEqual([true, false]);
  expect(formatFraction(passes[0]!.firstFullBarOnset)).toBe('1/8');
});

test('tied notes are one note with the summed length and the first id', () => {
  const events = [bar('b1'), note('n1', 'D4', 8, { tie: true }), bar('b2'), note('n2', 'D4', 4), note('n3', 'E4', 4)];
  const { notes } = unroll(tune([{ name: 'A', events }]));
  expect(notes.map(({ ids: tied, duration }) => [tied, formatFraction(duration)])).toEqual([
    [['n1', 'n2'], '3/2'],
    [['n3'], '1/2'],
  ]);
});

test('a tie to another pitch, or over a rest, holds nothing', () => {
  const events = [
    bar('b1'),
    note('n1', 'D4', 2, { tie: true }),
    note('n2', 'E4', 2, { tie: true }),
    rest('r', 2),
    note('n3', 'E4', 2),
  ];
  const { notes } = unroll(tune([{ name: 'A', events }]));
  expect(notes).toHaveLength(3);
  expect(formatFraction(notes[2]!.restBefore)).toBe('1/4');
});

test('onsets are exact through triplets, and the beat counts in the units of the meter', () => {
  const third = { duration: fraction(1, 12), tuplet: { notes: 3, inTimeOf: 2 } };
  const events = [
    bar('b1'),
    note('n1', 'D4', 1, third),
    note('n2', 'E4', 1, third),
    note('n3', 'F#4', 1, third),
    note('n4', 'G4', 6),
  ];
  const { notes, duration } = unroll(tune([{ name: 'A', events }]));
  expect(notes.map(({ onset }) => formatFraction(onset))).toEqual(['0', '1/12', '1/6', '1/4']);
  expect(notes[3]!.beat).toBe(2);
  expect(duration).toEqual(fraction(1));
});

test('a form that names no part is refused with the names there are', () => {
  expect(() => unroll(tune([part('A', 'D4:8')], { form: ['Z'] }))).toThrow('A, got Z');
});

describe('bar sums', () => {
  const faultsOf = (t: Tune) => barSumFaults(t);

  test('pickup and last bar make a whole bar on every path, the tune begun again included', () => {
    const good = tune([part('A', 'A4:2 | D4:8 | E4:6')], { form: ['A', 'A'] });
    expect(faultsOf(good)).toEqual([]);
    const full = tune([part('A', 'A4:2 | D4:8 | E4:8')], { form: ['A', 'A'] });
    expect(faultsOf(full).map(({ kind, length }) => [kind, formatFraction(length)])).toEqual([['join', '5/4']]);
  });

  test('a bar too short or too long in the middle is told with both lengths', () => {
    const t = tune([part('A', 'D4:8 | E4:7 | F#4:9 | G4:8')]);
    expect(faultsOf(t).map(({ kind, barId, length }) => [kind, barId, formatFraction(length)])).toEqual([
      ['short', 'Ab2', '7/8'],
      ['long', 'Ab3', '9/8'],
    ]);
  });

  test('a short last bar with no pickup to complete it is told', () => {
    const t = tune([part('A', 'D4:8 | E4:6'), part('B', 'D4:8 | E4:8')]);
    expect(faultsOf(t)).toHaveLength(1);
    expect(faultsOf(t)[0]).toMatchObject({ kind: 'join', barId: 'Ab2', again: false });
  });
});

test('the plays of the form have the bars, pickups and numbers that the unrolled tune has', () => {
  for (let seed = 1; seed <= 60; seed++) {
    const value = randomTune(seed);
    const { passes, bars } = unroll(value);
    const plays = playsOf(value);
    expect(plays.map(({ part: name, pass, hasPickup }) => ({ name, pass, hasPickup }))).toEqual(
      passes.map(({ part: name, pass, hasPickup }) => ({ name, pass, hasPickup })),
    );
    expect(plays.flatMap(({ played }) => played.map(({ event }) => event.id))).toEqual(bars.map(({ id }) => id));
    expect(plays.map(({ played, hasPickup }) => played.length - (hasPickup ? 1 : 0))).toEqual(
      passes.map((pass) => pass.bars),
    );
  }
});

test('a chain of twenty thousand ties is one note, and all that is written of it is known', () => {
  const tied = tune([part('A', Array.from({ length: 20_000 }, () => 'D4').join(' '))]);
  const chain = {
    ...tied,
    parts: tied.parts.map((own) => ({
      ...own,
      events: own.events.map((event) => (event.kind === 'note' ? { ...event, tie: true as const } : event)),
    })),
  };
  const { notes } = unroll(chain);
  expect(notes).toHaveLength(1);
  expect(notes[0]!.ids).toHaveLength(20_000);
  expect(notes[0]!.duration).toEqual({ n: 2500, d: 1 });
});
