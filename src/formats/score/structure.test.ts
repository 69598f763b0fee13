import type { Meter } from '#core/tune';
import { seeded } from '../../core/testing/tunes';
import { type RawBar, readOrder, structureOf } from './structure';

const METER: Meter = { num: 4, den: 4 };

/** A bar of one note, by default as long as its meter. */
function bar(id: string, signs: Partial<RawBar> = {}, quarters = 4): RawBar {
  return {
    id,
    offset: 0,
    events: [
      {
        kind: 'note',
        id: `n${id}`,
        duration: { n: quarters, d: 4 },
        pitch: { letter: 'A', alter: 0, octave: 4 },
        link: 'change',
      },
    ],
    meterInForce: METER,
    endingCloses: false,
    opensRepeat: false,
    plays: 0,
    closesDouble: false,
    ...signs,
  };
}

/** Ids of bars as parts and form say they are played. */
function asKept(bars: readonly RawBar[], order: readonly string[] | null = null): string[] {
  const { parts, form } = structureOf(bars, order);
  const plays = new Map<string, number>();
  return form.flatMap((name) => {
    const play = (plays.get(name) ?? 0) + 1;
    plays.set(name, play);
    return parts
      .find((part) => part.name === name)!
      .events.flatMap((event) => (event.kind === 'bar' && (event.onPlays?.includes(play) ?? true) ? [event.id] : []));
  });
}

/**
 * Ids of bars as a player follows the signs with a finger on the paper: on at each bar, back at a repeat sign to where the
 * repeat began, past the endings that are not for this time.
 */
function asFollowed(bars: readonly RawBar[]): string[] {
  const played: string[] = [];
  let from = 0;
  let time = 1;
  let times = 1;
  for (let at = 0; at < bars.length;) {
    const here = bars[at]!;
    if (here.opensRepeat && at > from && time === 1) from = at;
    if (here.endingOpens && !here.endingOpens.includes(time)) {
      // On to the next ending, or to what follows the last one.
      do at += 1;
      while (at < bars.length && !bars[at - 1]!.endingCloses && !bars[at]!.endingOpens);
      continue;
    }
    played.push(here.id);
    times = Math.max(times, here.plays);
    const later = bars[at + 1]?.endingOpens;
    if (here.plays > 0 && time < Math.max(times, ...(later ?? []))) {
      time += 1;
      at = from;
      continue;
    }
    at += 1;
    if (here.plays > 0 && !later) [from, time, times] = [at, 1, 1];
    else if (here.endingCloses && !later) [from, time, times] = [at, 1, 1];
  }
  return played;
}

/** A score of sections: played once, repeated, repeated with endings, with or without pickups. */
function inventedScore(seed: number): RawBar[] {
  const random = seeded(seed);
  const below = (most: number) => Math.floor(random() * most);
  const bars: RawBar[] = [];
  const next = (signs: Partial<RawBar> = {}, quarters = 4) => bars.push(bar(`b${bars.length}`, signs, quarters));
  const sections = 1 + below(4);
  for (let s = 0; s < sections; s++) {
    const kind = below(4);
    const length = 1 + below(4);
    if (kind === 0) {
      for (let i = 0; i < length; i++)
        next({ closesDouble: i === length - 1 }, i === 0 && length > 1 && s === 0 ? 1 : 4);
      // What follows a section that is played once begins with a sign of its own.
      if (s === sections - 1) continue;
      bars.push(bar(`b${bars.length}`, { opensRepeat: true, plays: 2 }));
      continue;
    }
    for (let i = 0; i < length; i++) {
      const isLast = i === length - 1 && kind !== 2;
      next({ opensRepeat: i === 0, plays: isLast ? 2 + below(2) : 0 }, i === 0 && below(3) === 0 && !isLast ? 1 : 4);
    }
    if (kind !== 2) continue;
    const endings = 2 + below(2);
    for (let e = 1; e <= endings; e++) {
      const deep = 1 + below(2);
      for (let i = 0; i < deep; i++) {
        const closes = i === deep - 1;
        next({
          ...(i === 0 ? { endingOpens: [e] } : {}),
          plays: closes && e < endings ? 2 : 0,
          endingCloses: closes,
          closesDouble: closes && e === endings,
        });
      }
    }
  }
  return bars;
}

test.each(Array.from({ length: 300 }, (_, seed) => seed))(
  'score %i is played bar for bar as by one who follows its signs',
  (seed) => {
    const bars = inventedScore(seed);
    expect(asKept(bars)).toEqual(asFollowed(bars));
  },
);

describe('parts', () => {
  test('a first repeat without its opening sign goes back to the beginning, a later one to the sign before it', () => {
    const bars = [bar('1'), bar('2', { plays: 2 }), bar('3'), bar('4', { plays: 2 })];
    expect(asKept(bars)).toEqual(['1', '2', '1', '2', '3', '4', '3', '4']);
    expect(structureOf(bars, null).form).toEqual(['A', 'A', 'B', 'B']);
  });

  test('a pickup before the opening sign is played the first time only, one behind it each time', () => {
    const before = [bar('0', {}, 1), bar('1', { opensRepeat: true }), bar('2', { plays: 2 })];
    expect(asKept(before)).toEqual(['0', '1', '2', '1', '2']);
    expect(structureOf(before, null).parts.map(({ name }) => name)).toEqual(['A']);
    const behind = [bar('0', { opensRepeat: true }, 1), bar('1'), bar('2', { plays: 2 })];
    expect(asKept(behind)).toEqual(['0', '1', '2', '0', '1', '2']);
  });

  test('a whole bar before the opening sign is an introduction, a part of its own', () => {
    const { parts, form } = structureOf([bar('0'), bar('1', { opensRepeat: true, plays: 2 })], null);
    expect(parts.map(({ name }) => name)).toEqual(['A', 'B']);
    expect(form).toEqual(['A', 'B', 'B']);
  });

  test('a double bar inside a repeat is only a line, outside it ends a part', () => {
    const inside = [bar('1', { opensRepeat: true, closesDouble: true }), bar('2', { plays: 2 })];
    expect(structureOf(inside, null).form).toEqual(['A', 'A']);
    const outside = [bar('1', { closesDouble: true }), bar('2', { closesDouble: true })];
    expect(structureOf(outside, null).form).toEqual(['A', 'B']);
  });

  test('an ending for two times is played at both of them', () => {
    const bars = [
      bar('1', { opensRepeat: true }),
      bar('x', { endingOpens: [1, 3], endingCloses: true, plays: 3 }),
      bar('y', { endingOpens: [2, 4], endingCloses: true, closesDouble: true }),
    ];
    expect(asKept(bars)).toEqual(['1', 'x', '1', 'y', '1', 'x', '1', 'y']);
  });

  test('beyond Z the letters begin again with a number', () => {
    const bars = Array.from({ length: 28 }, (_, i) => bar(`${i}`, { closesDouble: true }));
    const names = structureOf(bars, null).parts.map(({ name }) => name);
    expect([names[25], names[26], names[27]]).toEqual(['Z', 'A2', 'B2']);
    expect(new Set(names).size).toBe(28);
  });
});

describe('labels', () => {
  const labelled = [bar('1', { label: 'A', plays: 2 }), bar('2', { label: 'B' }), bar('3', { label: 'C' })];

  test('name the parts, and an order plays them as it says', () => {
    expect(asKept(labelled, ['B', 'A', 'B'])).toEqual(['2', '1', '1', '2']);
  });

  test('a letter of the order that no part has is passed over; with none left the written order holds', () => {
    expect(structureOf(labelled, ['C', 'Q', 'B']).form).toEqual(['C', 'B']);
    expect(structureOf(labelled, ['Q']).form).toEqual(['A', 'A', 'B', 'C']);
  });

  test('what stands before the first letter comes first, whatever the order', () => {
    const bars = [bar('0', { closesDouble: true }), ...labelled];
    expect(asKept(bars, ['C', 'B'])).toEqual(['0', '3', '2']);
  });

  test('under one letter every repeat sign begins a part of its own, played where the letter is', () => {
    const bars = [bar('1', { label: 'A', plays: 2 }), bar('2', { plays: 2 }), bar('3', { label: 'B' })];
    expect(structureOf(bars, null).parts.map(({ name }) => name)).toEqual(['Aa', 'Ab', 'B']);
    expect(asKept(bars, ['A', 'B', 'A'])).toEqual(['1', '1', '2', '2', '3', '1', '1', '2', '2']);
  });
});

describe('playing orders', () => {
  test.each([
    ['AABB', 'AABB'],
    ['A2B2', 'AABB'],
    ['A(AB)3C', 'AABABABC'],
    ['A.B.A', 'ABA'],
    ['((AB)2C)2', 'ABABCABABC'],
    [' A , B ', 'AB'],
    ['A0B', 'B'],
  ])('%s plays %s', (text, played) => {
    expect(readOrder(text)?.join('')).toBe(played);
  });

  test.each(['', '(AB', 'AB)', '2A', 'A-B', 'A999', '(((((((((A)))))))))', '(A100)100'])('%j is none', (text) => {
    expect(readOrder(text)).toBeNull();
  });
});
