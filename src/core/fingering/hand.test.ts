import { FULL_SIZE } from '#core/instrument';
import { midiOf, parsePitch, pitchName } from '#core/pitch';
import type { Schools } from '#core/schools';
import { type Tune, unroll, writtenNotes } from '#core/tune';
import { parseTuning } from '#core/tuning';
import { note, part, tune } from '../testing/tunes';
import { fingerTune } from './fingerTune';
import { foldIntoFirstPosition } from './foldOctave';
import { FREE_HAND, type Hand } from './hand';
import { handMoves } from './handMoves';
import { handPlan } from './handPlan';
import { centsToMm, nutDistance } from './nut';
import { handHome, stopsOnString } from './positions';

const STANDARD = parseTuning('G3 D4 A4 E5')!;

test('an octave halves the string, a fifth leaves two thirds of it within a fortieth of a millimetre each 100 mm', () => {
  expect(nutDistance(12, 328)).toBeCloseTo(164, 9);
  expect(nutDistance(0, 328)).toBe(0);
  // The tempered fifth is 2 cents narrow of 3:2.
  expect(nutDistance(7, 300)).toBeCloseTo(100 - centsToMm(1.955, 7, 300), 3);
  expect(nutDistance(2, 328)).toBeCloseTo(35.785, 3);
});

test('millimetres of a few cents are the slope of the nut distance', () => {
  for (const n of [0, 2, 5, 7, 12])
    expect(centsToMm(1, n, 328)).toBeCloseTo(nutDistance(n + 0.005, 328) - nutDistance(n - 0.005, 328), 4);
  // A comma is 21.5 cents: 3.6 mm with the first finger on a full-size fiddle.
  expect(centsToMm(21.5, 2, 328)).toBeCloseTo(3.63, 2);
});

const at = (pitch: string, place: 'G' | 'D' | 'A' | 'E') =>
  stopsOnString(parsePitch(pitch)!, place, STANDARD)
    .filter(({ substitute, extended }) => !substitute && !extended)
    .map(({ finger, position }) => `${finger}@${position}`);

test.each([
  ['A4', 'D', ['4@1', '3@2', '2@3', '1@4']],
  ['E4', 'D', ['2@0.5', '1@1']],
  ['Eb4', 'D', ['1@0.5', '1@1']],
  ['D#4', 'D', ['1@0.5', '1@1']],
  ['D5', 'D', ['4@4', '3@5']],
  ['B5', 'E', ['4@1', '3@2', '2@3', '1@4']],
  ['C6', 'E', ['4@2', '3@3', '2@4']],
] as const)('%s on the %s string lies under %j', (pitch, place, expected) => {
  const found = at(pitch, place);
  for (const way of expected) expect(found).toContain(way);
});

test('the hand at rest spans a fourth in every position', () => {
  for (const position of [0.5, 1, 2, 3, 4, 5] as const) expect(handHome(position, 4) - handHome(position)).toBe(5);
});

function planOf(t: Tune, led: Schools['guide'] = 'lowest-finger', hold: Schools['fingers'] = 'hold') {
  const { notes } = unroll(t);
  const fingers = fingerTune(t, unroll(t), 'open');
  const whole = 1;
  const onsets = notes.map(({ onset }) => (whole * onset.n) / onset.d);
  const durations = notes.map(({ duration }) => (whole * duration.n) / duration.d);
  return handPlan(t, notes, fingers, {
    timing: { onsets, durations },
    instrument: FULL_SIZE,
    schools: { guide: led, fingers: hold },
  });
}

test('a hop is one finger on two strings after each other; marked as a barre it is none', () => {
  const moves = (line: string, marks?: 'barre') => {
    const t = tune([part('A', line)]);
    const marked: Tune = marks
      ? {
          ...t,
          parts: [
            { name: 'A', events: t.parts[0]!.events.map((e) => (e.kind === 'note' ? { ...e, marks: [marks] } : e)) },
          ],
        }
      : t;
    const un = unroll(marked);
    return handMoves(un.notes, fingerTune(marked, un, 'open'), FULL_SIZE).map((move) => move?.hop ?? null);
  };
  expect(moves('E4 B4')[1]).toMatchObject({ finger: 1, from: 'D', to: 'A', couldBarre: true });
  expect(moves('F#4 C5')[1]).toMatchObject({ finger: 2, couldBarre: false });
  expect(moves('E4 A4')[1]).toBeNull();
  expect(moves('E4 F#4')[1]).toBeNull();
  expect(moves('E4 B4', 'barre')[1]).toBeNull();
});

test('a finger is free from the end of its last use, and may stay while the notes lie above it', () => {
  const plan = planOf(tune([part('A', 'E4 F#4 G4 A4 E4')]));
  expect(plan[0]!.staysThrough).toBe(4);
  expect(plan[1]!.staysThrough).toBe(3);
  // First finger free from 1/8 to 4/8.
  expect(plan[4]!.preparation).toBeCloseTo(3 / 8, 9);
  expect(plan[3]!.preparation).toBeNull();
});

test('a finger may lie from where nothing sounds on its string that it would stop', () => {
  // G on D may lie all the while the A string sounds, and not while E is stopped below it.
  expect(planOf(tune([part('A', 'A4 B4 A4 G4')]))[3]!.mayLieFrom).toBe(0);
  expect(planOf(tune([part('A', 'A4 E4 A4 G4')]))[3]!.mayLieFrom).toBe(2);
  expect(planOf(tune([part('A', 'A4 D4 G4')]))[2]!.mayLieFrom).toBe(2);
});

test('those who lift take a finger up where the span strains, or an open neighbour must ring', () => {
  const stays = (line: string, hold: Schools['fingers']) =>
    planOf(tune([part('A', line)]), 'lowest-finger', hold)[0]!.staysThrough;
  expect([stays('F#4 A4 G4', 'hold'), stays('F#4 A4 G4', 'lift')]).toEqual([2, null]);
  expect([stays('E4 F#4 G4', 'hold'), stays('E4 F#4 G4', 'lift')]).toEqual([2, 2]);
  // A raised third finger over the first: 14 mm further than at rest.
  expect([stays('E4 G#4', 'hold'), stays('E4 G#4', 'lift')]).toEqual([1, null]);
});

test('where a run falls on one string its fingers are set together, and lifted one by one', () => {
  const sets = (line: string) => planOf(tune([part('A', line)])).map(({ sets: fingers }) => fingers?.join(' ') ?? '');
  expect(sets('G4 F#4 E4 D4')).toEqual(['3 2 1', '', '', '']);
  expect(sets('E4 G4 F#4 E4')).toEqual(['', '3 2 1', '', '']);
  // Rising, over a rest, or over two strings there is nothing to set.
  expect(sets('E4 F#4 G4')).toEqual(['', '', '']);
  expect(sets('B4 A4 G4')).toEqual(['', '', '']);
  expect(sets('G4 z F#4 E4')).toEqual(['', '', '']);
});

test('a held finger can sound on as a drone while the notes on one neighbour string agree with it', () => {
  // F sharp on D under A and D: third and sixth. C sharp wants the same finger.
  const plan = planOf(tune([part('A', 'F#4 A4 D5 C#5 E5')]));
  expect(plan[0]!.dronesThrough).toBe(2);
  expect(planOf(tune([part('A', 'F#4 A4 E5')]))[0]!.dronesThrough).toBeNull();
  expect(planOf(tune([part('A', 'F#4 B4 G4')]))[0]!.dronesThrough).toBeNull();
});

test('a finger leans to the side that does not sound; with a drone above only to the lower one', () => {
  const droned = tune([
    { name: 'A', events: [{ kind: 'bar', id: 'b' }, note('n1', 'E4', 1, { drone: 'upper' }), note('n2', 'E4', 1)] },
  ]);
  expect(planOf(droned).map(({ lean }) => lean)).toEqual(['lower', 'either']);
});

test('a shift tells its guide note, whether it is heard, and the way back', () => {
  const t = tune([
    {
      name: 'A',
      events: [
        { kind: 'bar', id: 'b' },
        note('n1', 'F#5', 1),
        note('n2', 'D6', 1, { position: 3, link: 'slur' }),
        note('n3', 'C#6', 1, { position: 3 }),
        note('n4', 'F#5', 1, { position: 1 }),
      ],
    },
  ]);
  const { shift } = planOf(t)[1]!;
  expect(shift).toMatchObject({ from: 1, to: 3, isAudible: true, wayBack: 3 });
  // The first finger of the third position lies on A.
  expect(pitchName(shift!.guide!)).toBe('A5');
  expect(shift!.mm).toBeCloseTo(nutDistance(5, 328) - nutDistance(2, 328), 9);
});

test('the guide is the lowest finger of the new position, or the one that was down, and never the note itself', () => {
  const shifted = (from: string, to: string, led: Schools['guide']) => {
    const t = tune([
      {
        name: 'A',
        events: [{ kind: 'bar', id: 'b' }, note('n1', from, 1, { position: 1 }), note('n2', to, 1, { position: 3 })],
      },
    ]);
    const { guide } = planOf(t, led)[1]!.shift!;
    return guide && pitchName(guide);
  };
  // E:3 in first position to E:4 in third: the first finger there lies on A, the third on C sharp.
  expect(shifted('A5', 'D6', 'lowest-finger')).toBe('A5');
  expect(shifted('A5', 'D6', 'travelling-finger')).toBe('C#6');
  // To the first finger itself.
  expect(shifted('F#5', 'A5', 'lowest-finger')).toBeNull();
  expect(shifted('F#5', 'A5', 'travelling-finger')).toBeNull();
});

test('the rule of first position stands wherever it has the note; only what lies beyond is searched for', () => {
  const t = tune([part('A', 'D4 A4 B5 D6 A4')]);
  const fingers = fingerTune(t, unroll(t), 'open');
  const call = (id: string) => `${fingers.get(id)!.place}:${fingers.get(id)!.finger}@${fingers.get(id)!.position}`;
  expect(['A1', 'A2', 'A3', 'A5'].map(call)).toEqual(['D:0@1', 'A:0@1', 'E:4@1', 'A:0@1']);
  expect(fingers.get('A4')).toMatchObject({ reachable: true, place: 'E' });
  expect(fingers.get('A4')!.position).toBeGreaterThan(1);
});

test('a reported pain refingers what it touches and nothing else; a pin on it is kept and told', () => {
  const t = tune([part('A', 'D4 F#4 A4 B4')]);
  const hand: Hand = { ...FREE_HAND, bans: [{ finger: 1, place: 'A', reason: 'pain', date: '2026-11-20' }] };
  const before = fingerTune(t, unroll(t), 'open');
  const after = fingerTune(t, unroll(t), 'open', hand, FULL_SIZE);
  const changed = writtenNotes(t).filter(({ id }) => {
    const [a, b] = [before.get(id)!, after.get(id)!];
    return a.place !== b.place || a.finger !== b.finger;
  });
  expect(changed.map(({ id }) => id)).toEqual(['A4']);
  const pinned: Tune = {
    ...t,
    parts: [
      {
        name: 'A',
        events: t.parts[0]!.events.map((e) =>
          e.kind === 'note' && e.id === 'A4' ? { ...e, finger: 1, place: 'A' as const } : e,
        ),
      },
    ],
  };
  expect(fingerTune(pinned, unroll(pinned), 'open', hand, FULL_SIZE).get('A4')).toMatchObject({
    finger: 1,
    place: 'A',
    goesAgainst: true,
  });
});

test('a small hand changes only the notes on either side of what it cannot span', () => {
  // From the first finger to the fourth on D are 73 mm; the rest of the tune asks for less.
  const t = tune(
    [part('A', 'F#4 G4 B4 C#5 E4 A4 E5 C#5')].map((p) => ({
      ...p,
      events: p.events.map((e) => (e.kind === 'note' && e.id === 'A6' ? { ...e, place: 'D' as const } : e)),
    })),
  );
  const plain = fingerTune(t, unroll(t), 'open');
  const small = fingerTune(t, unroll(t), 'open', { ...FREE_HAND, largestSpanMm: 60 }, FULL_SIZE);
  const same = (id: string) => JSON.stringify(plain.get(id)) === JSON.stringify(small.get(id));
  for (const id of ['A1', 'A2', 'A3', 'A4', 'A7', 'A8']) expect([id, same(id)]).toEqual([id, true]);
  expect(same('A5') && same('A6')).toBe(false);
  expect(fingerTune(t, unroll(t), 'open', { ...FREE_HAND, largestSpanMm: 80 }, FULL_SIZE)).toEqual(plain);
});

test('folding brings all into first position, as few notes as the joins allow, and keeps what is there', () => {
  const t = tune([part('A', 'A5 B5 D6 E6 D6 B5 A5 F#5')]);
  const folded = foldIntoFirstPosition(t);
  const fingers = fingerTune(folded.tune, unroll(folded.tune), 'open');
  for (const { id } of writtenNotes(folded.tune))
    expect(fingers.get(id)).toMatchObject({ reachable: true, position: 1 });
  // Every note keeps its letter; those that moved went a whole octave.
  const before = writtenNotes(t);
  for (const [i, after] of writtenNotes(folded.tune).entries()) {
    const way = midiOf(after.pitch) - midiOf(before[i]!.pitch);
    expect(way === (folded.moved.includes(after.id) ? -12 : 0)).toBe(true);
  }
  const low = tune([part('A', 'D4 E4')]);
  expect(foldIntoFirstPosition(low)).toEqual({ tune: low, moved: [] });
});
