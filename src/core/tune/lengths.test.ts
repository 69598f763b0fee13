import { add, type Fraction, fraction } from '#core/base';
import { cases } from '../testing/share';
import { part, seeded, tune } from '../testing/tunes';
import { lengthFault, LengthGuard, MUSIC_BOUNDS } from './lengths';
import type { Tune } from './tune';

/** A tune whose notes have these lengths, one bar after the other. */
function ofLengths(lengths: readonly Fraction[], form = ['A']): Tune {
  const plain = tune([part('A', lengths.map(() => 'D4').join(' '))], { form });
  let k = 0;
  return {
    ...plain,
    parts: plain.parts.map((own) => ({
      ...own,
      events: own.events.map((event) => (event.kind === 'bar' ? event : { ...event, duration: lengths[k++]! })),
    })),
  };
}

test('a note of 64 whole notes is the longest', () => {
  expect(lengthFault(ofLengths([fraction(64)]))).toBeNull();
  expect(lengthFault(ofLengths([fraction(1, 8), fraction(129, 2)]))).toEqual({
    code: 'too-long',
    found: 64.5,
    part: 0,
    event: 2,
  });
});

test('the notation of any tune is fine enough: 512ths with tuplets of 3, 5, 7 and 9 together', () => {
  const lengths = [fraction(1, 512), ...[3, 5, 7, 9].map((notes) => fraction(2, 8 * notes))];
  expect(lengthFault(ofLengths(lengths))).toBeNull();
  const odd = [7, 11, 13, 17, 19, 23].map((d) => fraction(1, d));
  expect(lengthFault(ofLengths(odd))).toMatchObject({ code: 'too-fine', part: 0, event: 5 });
});

test('what is played counts with all its repeats', () => {
  const wholes = Array.from({ length: 200 }, () => fraction(64));
  expect(lengthFault(ofLengths(wholes, Array<string>(1).fill('A')))).toBeNull();
  expect(lengthFault(ofLengths(wholes, Array<string>(2).fill('A')))).toEqual({
    code: 'too-much',
    found: 25_600,
    part: null,
    event: null,
  });
});

test('within the bounds every sum is exact: against whole numbers of any size', () => {
  for (let seed = 1; seed <= cases(60); seed++) {
    const random = seeded(seed);
    const guard = new LengthGuard();
    let [sum, exact, common] = [fraction(0), 0n, 1n];
    for (let i = 0; i < 400; i++) {
      const d = 1 + Math.floor(random() * 600);
      const length = fraction(1 + Math.floor(random() * MUSIC_BOUNDS.noteWholes * d), d);
      if (guard.fault(length)) continue;
      sum = add(sum, length);
      exact = exact * BigInt(length.d) + BigInt(length.n) * common;
      common *= BigInt(length.d);
      const shared = gcd(exact, common);
      [exact, common] = [exact / shared, common / shared];
    }
    expect([BigInt(sum.n), BigInt(sum.d)]).toEqual([exact, common]);
  }
});

function gcd(a: bigint, b: bigint): bigint {
  return b === 0n ? a : gcd(b, a % b);
}
