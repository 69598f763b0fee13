import { fraction } from '#core/base';
import { type NoteEvent, type Tune, unroll } from '#core/tune';
import { part, tune } from '../testing/tunes';
import { LILTS } from './lilts';
import { noteTimes, timing } from './noteTimes';
import { AS_PLANNED, learntFactors, meantFor } from './ownFactors';
import { freeLengths } from './rubato';

function freely(lines: Record<string, string>, form: string[], own: Record<string, Partial<NoteEvent>>): Tune {
  const plain = tune(
    Object.entries(lines).map(([name, line]) => part(name, line)),
    { form },
  );
  return {
    ...plain,
    parts: plain.parts.map((item) => ({
      ...item,
      events: item.events.map((event) => (event.kind === 'note' ? { ...event, ...own[event.id] } : event)),
    })),
  };
}

test('a tune without holds, breaths or paces is not played freely', () => {
  expect(freeLengths(unroll(tune([part('A', 'D4 E4 F#4 G4')])))).toBeNull();
});

test('a held note is as many times longer than its equals, and the pass keeps its length', () => {
  const { durations } = freeLengths(unroll(freely({ A: 'D4:2 E4:2 F#4:2 G4:2' }, ['A'], { A2: { hold: 2 } })))!;
  expect(durations).toEqual([0.2, 0.4, 0.2, 0.2].map((length) => expect.closeTo(length, 12) as number));
});

test('a breath is a silence before the next note, for which all make room', () => {
  const free = freeLengths(unroll(freely({ A: 'D4:2 E4:2 F#4:2 G4:2' }, ['A'], { A2: { breath: 0.25 } })))!;
  expect(free.rests).toEqual([0, 0, 0.2, 0].map((length) => expect.closeTo(length, 12) as number));
  expect(free.durations.every((length) => Math.abs(length - 0.2) < 1e-12)).toBe(true);
});

test('the pace glides between the notes that name one', () => {
  const own = { A1: { pace: 1 }, A5: { pace: 2 } };
  const { durations } = freeLengths(unroll(freely({ A: 'D4 E4 F#4 G4 A4 B4 A4 G4' }, ['A'], own)))!;
  const ratios = durations.map((length) => durations[0]! / length);
  expect(ratios).toEqual([1, 1.25, 1.5, 1.75, 2, 1, 1, 1].map((pace) => expect.closeTo(pace, 9) as number));
});

test('a note tied over into the next pass keeps both passes together', () => {
  const own = { A4: { tie: true as const, hold: 1.5 }, B1: { hold: 3 } };
  const unrolled = unroll(freely({ A: 'D4:2 E4:2 F#4:2 G4:2', B: 'G4:2 A4:2 B4:2 A4:2' }, ['A', 'B'], own));
  const free = freeLengths(unrolled)!;
  expect(free.onsets.length).toBe(7);
  expect(free.onsets.at(-1)! + free.durations.at(-1)!).toBeCloseTo(2, 12);
});

test('over random maps notes keep their order, passes their length, and every length its proportion to 1/tempo', () => {
  let seed = 11;
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  for (let round = 0; round < 60; round++) {
    const own: Record<string, Partial<NoteEvent>> = {};
    for (let i = 1; i <= 8; i++) {
      if (random() < 0.3) own[`A${i}`] = { hold: 0.5 + 3.5 * random() };
      if (random() < 0.3) own[`B${i}`] = { pace: 0.5 + 1.5 * random() };
      if (random() < 0.2) own[`A${i}`] = { ...own[`A${i}`], breath: random() };
    }
    own['A1'] = { ...own['A1'], pace: 0.8 };
    const t = freely({ A: 'D4 E4 z F#4 G4:3 A4 | D4:4 E4:4', B: 'z:2 E4 D4 E4 F#4 G4 A4' }, ['A', 'A', 'B', 'A'], own);
    const unrolled = unroll(t);
    const times = noteTimes(unrolled, fraction(1, 4), LILTS.at(-1));
    const [slow, quick] = [timing(times, 50), timing(times, 100)];
    let end = 0;
    for (const [i, onset] of slow.onsets.entries()) {
      expect(onset).toBeGreaterThan(end - 1e-9);
      expect(onset - end).toBeCloseTo(slow.rests[i]!, 9);
      expect(slow.durations[i]).toBeGreaterThan(0);
      expect(slow.durations[i]! / quick.durations[i]!).toBeCloseTo(2, 9);
      end = onset + slow.durations[i]!;
    }
    const whole = (4 * 60) / 50;
    for (const { firstNote, endNote, onset, end: to } of unrolled.passes) {
      expect(slow.onsets[firstNote]).toBeGreaterThan((whole * onset.n) / onset.d - 1e-9);
      expect(slow.onsets[endNote - 1]! + slow.durations[endNote - 1]!).toBeLessThan((whole * to.n) / to.d + 1e-9);
    }
  }
});

test('who holds for too short a time is shown longer holds, so that they come out as wished', () => {
  const wish = freely({ A: 'D4:2 E4:2 F#4:2 G4:2' }, ['A'], { A2: { hold: 2 }, A3: { breath: 0.2 } });
  const meant = meantFor(wish, { hold: 0.8, silence: 0.5 });
  const [, held, breath] = meant.parts[0]!.events.filter((event) => event.kind === 'note');
  expect(held!.hold! * 0.8).toBeCloseTo(2, 12);
  expect(breath!.breath! * 0.5).toBeCloseTo(0.2, 12);
  expect(meantFor(wish, AS_PLANNED)).toBe(wish);
});

test('own factors go on from those by which it was shown, and stay a habit', () => {
  const first = learntFactors(AS_PLANNED, { hold: 0.8, silence: null });
  expect(first).toEqual({ hold: 0.8, silence: 1 });
  // Shown a quarter longer the wish came out: nothing more is to be learnt.
  expect(learntFactors(first, { hold: 1, silence: null })).toEqual(first);
  expect(learntFactors(AS_PLANNED, { hold: 0.1, silence: 9 })).toEqual({ hold: 0.5, silence: 1.5 });
});
