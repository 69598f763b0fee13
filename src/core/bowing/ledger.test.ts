import type { Direction, Tune } from '#core/tune';
import { unroll } from '#core/tune';
import { part, randomTune, takenUpAgain, tune } from '../testing/tunes';
import { makeGesture, setLinks } from './gestures';
import { bowingLedger } from './ledger';
import { lockConflicts } from './locks';
import { bowNotes, linkOnPass, startOf } from './strokes';

function prove(t: Tune, given: Direction | null = null) {
  const unrolled = unroll(t);
  const start = startOf(t, unrolled, given);
  const bowed = bowNotes(unrolled.notes, start.direction);
  return { unrolled, start, bowed, ledger: bowingLedger(unrolled, bowed) };
}

test('an even count of strokes comes back, an odd one flips the next pass', () => {
  const even = prove(tune([part('A', 'D4:2 E4:2 F#4:2 G4:2')], { form: ['A', 'A'] }));
  expect(even.ledger.passes.map(({ entry, next }) => [entry, next])).toEqual([
    ['down', 'down'],
    ['down', 'down'],
  ]);
  expect(even.ledger.comesRound).toBe(true);
  const odd = prove(tune([part('A', 'D4:2 (E4:2 F#4:2) G4:2')], { form: ['A', 'A'] }));
  expect(odd.ledger.passes.map(({ strokes, entry, next }) => [strokes, entry, next])).toEqual([
    [3, 'down', 'up'],
    [3, 'up', 'down'],
  ]);
  expect(odd.ledger.comesRound).toBe(false);
  expect(odd.ledger.flippedParts).toEqual(['A']);
  // Two odd passes bring the tune itself back.
  expect(odd.ledger.comesRoundAgain).toBe(true);
});

test('a part played once can come round by itself while the tune begun again does not', () => {
  const { ledger } = prove(tune([part('A', 'D4:4 E4:2 F#4:2')]));
  expect(ledger.flippedParts).toEqual([]);
  expect(ledger.comesRoundAgain).toBe(false);
  expect(ledger.comesRound).toBe(false);
});

test('without a start direction the first full bar begins on a down-bow, pickup counted back', () => {
  const one = prove(tune([part('A', 'A4 | D4:4 E4:4')]));
  expect(one.start).toEqual({ direction: 'up', because: 'first-bar-down' });
  expect(one.ledger.passes[0]).toMatchObject({ pickup: 'up', entry: 'down' });
  const pair = prove(tune([part('A', '(A4 B4) | D4:4 E4:4')]));
  expect(pair.start.direction).toBe('up');
  const two = prove(tune([part('A', 'A4 B4 | D4:4 E4:4')]));
  expect(two.start.direction).toBe('down');
});

test('a lock on the first note sets the start, a given direction beats it', () => {
  const t = tune([part('A', 'D4:4 E4:4')]);
  const locked: Tune = {
    ...t,
    parts: [
      {
        ...t.parts[0]!,
        events: t.parts[0]!.events.map((e) => (e.id === 'A1' && e.kind === 'note' ? { ...e, lock: 'up' as const } : e)),
      },
    ],
  };
  expect(prove(locked).start).toEqual({ direction: 'up', because: 'locked' });
  const given = prove(locked, 'down');
  expect(given.start).toEqual({ direction: 'down', because: 'given' });
  expect(lockConflicts(given.unrolled, given.bowed)).toMatchObject([{ id: 'A1', lock: 'up', passes: ['A1'] }]);
});

test('a hook and a slur stay in the stroke, a retake begins one the same way', () => {
  const t = setLinks(
    tune([part('A', 'D4 E4 F#4 G4 A4')]),
    new Map([
      ['A2', 'slur'],
      ['A3', 'hook'],
      ['A4', 'retake'],
    ] as const),
  );
  const { bowed } = prove(t);
  expect(bowed.map(({ bow, stroke, inStroke }) => [bow, stroke, inStroke])).toEqual([
    ['down', 1, 1],
    ['down', 1, 2],
    ['down', 1, 3],
    ['down', 2, 1],
    ['up', 3, 1],
  ]);
});

test('a rest neither turns nor resets', () => {
  const { bowed } = prove(tune([part('A', 'D4 z E4 z:2 F#4 G4:2')]));
  expect(bowed.map(({ bow }) => bow)).toEqual(['down', 'up', 'down', 'up']);
});

test('an entry at a rest is the direction of the next stroke; a note held over the bar line still sounds there', () => {
  const rest = prove(tune([part('A', 'A4 | z:2 D4:6')]));
  expect(rest.ledger.passes[0]).toMatchObject({ pickup: 'up', entry: 'down' });
  const held = tune([part('A', 'A4 | A4:4 D4:4')]);
  const tied: Tune = {
    ...held,
    parts: [
      {
        ...held.parts[0]!,
        events: held.parts[0]!.events.map((e) =>
          e.id === 'A1' && e.kind === 'note' ? { ...e, tie: true as const } : e,
        ),
      },
    ],
  };
  expect(prove(tied).ledger.passes[0]).toMatchObject({ pickup: 'down', entry: 'down' });
});

test('a link changed for one pass makes a planned difference, an odd count an accidental one', () => {
  const accident = prove(tune([part('A', 'D4:2 (E4:2 F#4:2) G4:2')], { form: ['A', 'A'] })).ledger;
  expect(accident.oneDirection).toBe(false);
  expect(accident.differs).toHaveLength(4);
  expect(accident.differs[0]).toEqual({ id: 'A1', directions: { A1: 'down', A2: 'up' }, planned: false });
  const even = tune([part('A', 'D4:2 E4:2 F#4:2 G4:2')], { form: ['A', 'A'] });
  const planned = prove(setLinks(even, new Map([['A3', 'slur'] as const]), 2)).ledger;
  expect(planned.differs.map(({ id, planned: isPlanned }) => [id, isPlanned])).toEqual([
    ['A3', true],
    ['A4', true],
  ]);
});

/** Walks the links one by one with none of the code under test: directions as +1 and -1. */
function walk(t: Tune, start: number): number[] {
  let sign = start;
  return unroll(t).notes.map(({ index, note, pass }) => {
    const link = linkOnPass(note, pass);
    if (index > 0 && (link === 'change' || link === 'start')) sign = -sign;
    return sign;
  });
}

test('on random tunes the ledger agrees with a walk of the tune played twice over', () => {
  for (let seed = 1; seed <= 300; seed++) {
    const once = randomTune(seed);
    const { unrolled, bowed, ledger, start } = prove(once);
    if (unrolled.notes.length === 0) continue;
    const sign = start.direction === 'down' ? 1 : -1;
    const signs = walk(once, sign);
    expect([seed, bowed.map(({ bow }) => (bow === 'down' ? 1 : -1))]).toEqual([seed, signs]);
    // The note at which it is taken up again: reached by its own link on pass 1, as a turn where that is the start.
    const index = takenUpAgain(unrolled);
    const again = linkOnPass(unrolled.notes[index]!.note, 1);
    const back = again === 'start' || again === 'change' ? -signs[signs.length - 1]! : signs[signs.length - 1]!;
    expect([seed, ledger.comesRoundAgain]).toEqual([seed, back === signs[index]]);
    for (const [i, pass] of ledger.passes.entries()) {
      expect(pass.next).toBe(i + 1 < ledger.passes.length ? ledger.passes[i + 1]!.entry : pass.next);
      expect(pass.strokes).toBe(
        bowed.slice(unrolled.passes[i]!.firstNote, unrolled.passes[i]!.endNote).filter(({ inStroke }) => inStroke === 1)
          .length,
      );
    }
    const total = ledger.passes.reduce((sum, { turns }) => sum + turns, 0);
    expect([seed, signs[signs.length - 1]]).toEqual([seed, sign * (total % 2 === 0 ? 1 : -1)]);
  }
});

describe('gestures', () => {
  const t = tune([part('A', 'D4 E4 E4 F#4')]);
  const linksOf = (edited: Tune) => edited.parts[0]!.events.flatMap((e) => (e.kind === 'note' ? [e.link] : []));

  test('on one note a gesture speaks of the link before it, on several of the links among them', () => {
    expect(linksOf(makeGesture(t, ['A2'], 'slur'))).toEqual(['start', 'slur', 'change', 'change']);
    expect(linksOf(makeGesture(t, ['A1', 'A2'], 'slur'))).toEqual(['start', 'slur', 'change', 'change']);
  });

  test('a slur over one pitch is a hook', () => {
    expect(linksOf(makeGesture(t, ['A2', 'A3', 'A4'], 'slur'))).toEqual(['start', 'change', 'hook', 'slur']);
  });

  test('the first note of the tune has no link to change', () => {
    expect(linksOf(makeGesture(t, ['A1'], 'retake'))).toEqual(linksOf(t));
  });

  test('a gesture on all passes replaces what was changed for single ones', () => {
    const once = setLinks(t, new Map([['A2', 'slur'] as const]), 2);
    const all = makeGesture(once, ['A2'], 'change');
    expect(all.parts[0]!.events.some((e) => e.kind === 'note' && e.linkOnPass)).toBe(false);
  });
});

test('a part of rests does not flip, however often the parts beside it do', () => {
  const parts = [part('A', 'D4:2 E4:2 F#4:4'), part('B', 'z:8')];
  const { ledger } = prove(tune(parts, { form: ['A', 'B', 'A', 'B'] }));
  expect(ledger.flippedParts).toEqual(['A']);
  expect(ledger.passes.map(({ part: name, entry }) => [name, entry])).toEqual([
    ['A', 'down'],
    ['B', null],
    ['A', 'up'],
    ['B', null],
  ]);
});
