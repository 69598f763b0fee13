import { FULL_SIZE } from '#core/instrument';
import { type NoteEvent, type Tune, unroll, writtenNotes } from '#core/tune';
import { parseTuning } from '#core/tuning';
import { cases } from '../testing/share';
import { note, part, randomTune, seeded, tune } from '../testing/tunes';
import { choicesOf } from './choices';
import { FREE_HAND, type Hand } from './hand';
import { HAND_COSTS, type HandChord, moveCost, stopCost } from './handCosts';
import { handGround } from './handGround';
import { searchFingering, stepsOf } from './searchFingering';

const GROUND = handGround(tune([part('A', 'D4')]), FULL_SIZE);

function search(t: Tune, hand: Hand = FREE_HAND, held?: ReadonlyMap<string, HandChord>) {
  return searchFingering(t, unroll(t), hand, FULL_SIZE, held);
}

const calls = (t: Tune, hand?: Hand) =>
  writtenNotes(t).map(({ id }) => {
    const [top] = search(t, hand).notes.get(id)?.chord ?? [];
    return top ? `${top.place}:${top.finger}${top.position === 1 ? '' : `@${top.position}`}` : 'none';
  });

/** The least sum over every combination of choices: what the search must equal. */
function exhaustive(t: Tune, hand: Hand): { cost: number; withChoice: Map<string, number[]> } {
  const steps = stepsOf(t, unroll(t));
  const ground = handGround(t, FULL_SIZE);
  const choices = steps.map((step) => choicesOf(step.note, t.tuning, hand).chords);
  let least = Infinity;
  const withChoice = new Map(steps.map(({ note: { id } }, i) => [id, choices[i]!.map(() => Infinity)]));
  const picked: number[] = [];
  const go = (i: number, cost: number): void => {
    if (i === steps.length) {
      least = Math.min(least, cost);
      for (const [k, s] of picked.entries()) {
        const list = withChoice.get(steps[k]!.note.id)!;
        list[s] = Math.min(list[s]!, cost);
      }
      return;
    }
    const { before, note: own, following } = steps[i]!;
    const isLong = (own.duration.n / own.duration.d) * 8 >= 3;
    for (const [s, chord] of choices[i]!.entries()) {
      picked[i] = s;
      const move =
        before < 0 ? 0 : moveCost(choices[before]![picked[before]!]![0]!, chord[0]!, hand, following, ground);
      go(i + 1, cost + stopCost(chord, hand, isLong, ground) + move);
    }
  };
  go(0, 0);
  return { cost: least, withChoice };
}

const PITCHES = ['A3', 'B3', 'D4', 'E4', 'F#4', 'A4', 'C#5', 'D5', 'E5', 'G5', 'B5', 'D6'];

/** Few choices a note, so that all combinations of eight can be tried. */
function smallTune(seed: number): Tune {
  const random = seeded(seed);
  const notes = Array.from({ length: 8 }, (_, i): NoteEvent => {
    const pitch = PITCHES[Math.floor(random() * PITCHES.length)]!;
    const place = (['G', 'D', 'A', 'E'] as const)[Math.floor(random() * 4)]!;
    const pinned = random() < 0.6 ? { place } : {};
    const made = note(`n${i}`, pitch, random() < 0.2 ? 3 : 1, { link: random() < 0.3 ? 'slur' : 'change' });
    const isHad = choicesOf({ ...made, ...pinned }, tune([part('A', 'D4')]).tuning, FREE_HAND);
    return isHad.pinMisfits || isHad.chords.length > 12 ? { ...made, position: 1 } : { ...made, ...pinned };
  });
  const first = { name: 'A', events: [{ kind: 'bar' as const, id: 'b1' }, ...notes] };
  return tune([first], { form: ['A', 'A'] });
}

test('the search finds what trying all finds, and so do its alternatives, on tunes of eight notes', () => {
  let tried = 0;
  for (let seed = 1; seed <= 24 && tried < cases(10); seed++) {
    const t = smallTune(seed);
    const hand: Hand = { ...FREE_HAND, vibrato: seed % 2 === 0, largestSpanMm: seed % 3 === 0 ? 60 : null };
    const steps = stepsOf(t, unroll(t));
    const combinations = steps.reduce((sum, s) => sum * choicesOf(s.note, t.tuning, hand).chords.length, 1);
    if (combinations > 300_000) continue;
    tried += 1;
    const found = search(t, hand);
    const all = exhaustive(t, hand);
    expect(found.cost).toBeCloseTo(all.cost, 6);
    for (const { note: own } of steps) {
      const least = [...all.withChoice.get(own.id)!].sort((a, b) => a - b).map((cost) => cost - all.cost);
      const told = found.notes
        .get(own.id)!
        .alternatives.map(({ costsMore }) => costsMore)
        .sort((a, b) => a - b);
      expect(told.length).toBe(least.length);
      for (const [k, cost] of told.entries()) expect(cost).toBeCloseTo(least[k]!, 6);
    }
  }
  expect(tried).toBeGreaterThanOrEqual(cases(5));
});

test('two endings both follow the bar before them', () => {
  const t = tune(
    [
      {
        name: 'A',
        events: [
          { kind: 'bar', id: 'b1' },
          note('n1', 'E5', 1, { place: 'A', position: 3, finger: 2 }),
          { kind: 'bar', id: 'b2', ending: true, onPlays: [1] },
          note('n2', 'F#5', 1),
          { kind: 'bar', id: 'b3', ending: true, onPlays: [2] },
          note('n3', 'D5', 1),
        ],
      },
    ],
    { form: ['A', 'A'] },
  );
  const steps = stepsOf(t, unroll(t));
  expect(steps.map(({ note: { id }, before }) => [id, before])).toEqual([
    ['n1', -1],
    ['n2', 0],
    ['n3', 0],
  ]);
  // The hand that is already in third position stays there for either.
  for (const id of ['n2', 'n3']) expect(search(t).notes.get(id)!.chord[0]).toMatchObject({ place: 'A', position: 3 });
});

test('a plain tune lies in first position, most of it as called out', () => {
  expect(calls(tune([part('A', 'D4 F#4 A4 F#4 D5 C#5 B4 A4')]))).toEqual([
    'D:0',
    'D:2',
    'A:0',
    'D:2',
    'A:3',
    'A:2',
    'A:1',
    'A:0',
  ]);
});

test('what lies above first position takes a shift and comes back; what no position reaches is named', () => {
  const t = tune([part('A', 'A5 B5 D6 C#6 A5 E5 z:2 G7 F3')]);
  const found = search(t);
  const chord = (id: string) => found.notes.get(id)!.chord[0]!;
  expect(chord('A3').position).toBeGreaterThan(1);
  expect(chord('A3').place).toBe('E');
  expect(found.unfingered).toEqual([
    { id: 'A8', because: 'out-of-reach' },
    { id: 'A9', because: 'out-of-reach' },
  ]);
});

test('a pinned note stays, and the hand goes there', () => {
  const t = tune([
    {
      name: 'A',
      events: [{ kind: 'bar', id: 'b' }, note('n1', 'A4', 1, { place: 'G', position: 5 }), note('n2', 'B4', 1)],
    },
  ]);
  expect(calls(t)[0]).toBe('G:4@5');
  expect(search(t).notes.get('n2')!.alternatives.length).toBeGreaterThan(5);
});

test('a banned finger is in no choice of any note; a pin on it is kept and told', () => {
  for (let seed = 1; seed <= cases(60); seed++) {
    const t = randomTune(seed);
    const finger = ((seed % 4) + 1) as 1 | 2 | 3 | 4;
    const hand: Hand = { ...FREE_HAND, bans: [{ finger, place: seed % 2 ? null : 'A', reason: 'pain' }] };
    for (const { alternatives } of search(t, hand).notes.values())
      for (const { chord } of alternatives)
        for (const stop of chord) expect(stop.finger === finger && (seed % 2 === 1 || stop.place === 'A')).toBe(false);
  }
  const pinned = tune([{ name: 'A', events: [{ kind: 'bar', id: 'b' }, note('n1', 'A4', 1, { finger: 4 })] }]);
  const kept = search(pinned, { ...FREE_HAND, bans: [{ finger: 4, place: null, reason: 'missing' }] }).notes.get('n1')!;
  expect(kept).toMatchObject({ pinBanned: true });
  expect(kept.chord[0]).toMatchObject({ place: 'D', finger: 4 });
});

test('with all four fingers kept from a hand only open strings are left, the rest is named as banned', () => {
  const bans = ([1, 2, 3, 4] as const).map((finger) => ({ finger, place: null, reason: 'banned' as const }));
  const found = search(tune([part('A', 'D4 E4 A4')]), { ...FREE_HAND, bans });
  expect(found.unfingered).toEqual([{ id: 'A2', because: 'banned' }]);
  expect(found.notes.get('A3')!.chord[0]).toMatchObject({ place: 'A', finger: 0 });
});

test('a long open note is stopped where vibrato is wanted, and only there', () => {
  const t = tune([part('A', 'B4 A4:4 B4 A4')]);
  expect(calls(t)).toEqual(['A:1', 'A:0', 'A:1', 'A:0']);
  expect(calls(t, { ...FREE_HAND, vibrato: true })[1]).not.toBe('A:0');
});

test('no span beyond the largest is asked for; where a chord leaves no other way it is named', () => {
  const narrow: Hand = { ...FREE_HAND, largestSpanMm: 50 };
  const wide = tune([part('A', 'E4 A4')], {});
  const pinned = {
    ...wide,
    parts: [
      {
        name: 'A',
        events: wide.parts[0]!.events.map((e) => (e.kind === 'note' ? { ...e, place: 'D' as const, position: 1 } : e)),
      },
    ],
  };
  // From the first finger to the fourth are 73 mm on a full-size fiddle.
  expect(search(pinned, narrow).forced).toEqual(['A2']);
  expect(search(pinned).forced).toEqual([]);
  expect(search(wide, narrow).forced).toEqual([]);
});

test('the same place on two neighbour strings is cheaper than a hop, a hop cheaper than a shift', () => {
  expect(HAND_COSTS.barre).toBeLessThan(HAND_COSTS.hop);
  expect(HAND_COSTS.hop).toBeLessThan(HAND_COSTS.shift);
  const at = (place: 'D' | 'A', finger: number, semitones: number) =>
    ({ place, finger, semitones, position: 1, extended: false, substitute: false }) as const;
  const barre = moveCost(at('D', 1, 2), at('A', 1, 2), FREE_HAND, 'turn', GROUND);
  const hop = moveCost(at('D', 2, 4), at('A', 2, 3), FREE_HAND, 'turn', GROUND);
  expect(hop - barre).toBe(HAND_COSTS.hop - HAND_COSTS.barre);
});

test('a double stop lies under one hand on neighbour strings', () => {
  const t = tune([
    {
      name: 'A',
      events: [{ kind: 'bar', id: 'b' }, note('n1', 'C#5', 2, { stops: [{ letter: 'E', alter: 0, octave: 4 }] })],
    },
  ]);
  expect(
    search(t)
      .notes.get('n1')!
      .chord.map(({ place, finger }) => `${place}:${finger}`),
  ).toEqual(['A:2', 'D:1']);
});

test('in any tuning what sounds is what is written', () => {
  for (const strings of ['A3 E4 A4 E5', 'D3 D4 A4 D5', 'G3 D4 G4 B4', 'A3 E4 A4 C#5']) {
    const tuning = parseTuning(strings)!;
    const t = { ...tune([part('A', 'D4 F#4 A4 D5 E5 A5 F#5 B4')]), tuning };
    for (const [id, { chord }] of search(t).notes) {
      const written = writtenNotes(t).find((n) => n.id === id)!;
      const open = tuning[['G', 'D', 'A', 'E'].indexOf(chord[0]!.place)]!;
      const midi = (p: { letter: string; alter: number; octave: number }) =>
        12 * p.octave + { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }[p.letter as 'C']! + p.alter;
      expect(midi(open) + chord[0]!.semitones).toBe(midi(written.pitch));
    }
  }
});

test('two notes on one string take two fingers, and no finger slides between them', () => {
  const inG = tune([part('A', 'D5:2 G5 F#5 D5:2 G5 F#5')], { key: { letter: 'G', alter: 0, mode: 'major' } });
  const { notes } = searchFingering(inG, unroll(inG), FREE_HAND, FULL_SIZE);
  const calls = [...notes.values()].map(({ chord: [top] }) => `${top!.place}:${top!.finger}`);
  expect(calls.slice(1, 3)).toEqual(['E:2', 'E:1']);
  expect(calls.slice(4, 6)).toEqual(['E:2', 'E:1']);
});

test('a tune in a flat key stays in first position', () => {
  const inF = tune([part('A', 'F4 G4 A4 Bb4 C5 D5 E5 F5 | F5 E5 D5 C5 Bb4 A4 G4 F4')], {
    key: { letter: 'F', alter: 0, mode: 'major' },
  });
  const { notes } = searchFingering(inF, unroll(inF), FREE_HAND, FULL_SIZE);
  expect(new Set([...notes.values()].map(({ chord: [top] }) => top!.position))).toEqual(new Set([1]));
});

test('the hand rests on the notes of the key: low first fingers of a flat key are no stretch', () => {
  const flat = handGround(tune([part('A', 'D4')], { key: { letter: 'F', alter: 0, mode: 'major' } }), FULL_SIZE);
  const stop = (place: 'A' | 'E', finger: number, semitones: number) =>
    ({ place, finger, semitones, position: 1, extended: false, substitute: false }) as const;
  // F on E under C on A: both where F major has them, so only the string is changed.
  const [low, second] = [stop('E', 1, 1), stop('A', 2, 3)];
  expect(moveCost(low, second, FREE_HAND, 'turn', flat)).toBe(HAND_COSTS.crossing);
  // D major has F sharp and C sharp there: over a low first finger that second is a stretch.
  expect(moveCost(low, stop('A', 2, 4), FREE_HAND, 'turn', flat)).toBeGreaterThan(HAND_COSTS.crossing);
  expect(moveCost(stop('E', 1, 2), stop('A', 2, 4), FREE_HAND, 'turn', GROUND)).toBe(HAND_COSTS.crossing);
});

test('an open string that rings is not stopped: the tonic, the fifth, and in a cross-tuning every one', () => {
  const rings = (t: Tune) =>
    (['G', 'D', 'A', 'E'] as const)
      .filter((place) => handGround(t, FULL_SIZE).ringsOpen({ place, semitones: 0 }))
      .join('');
  const line = [part('A', 'D4')];
  expect(rings(tune(line))).toBe('DA');
  expect(rings(tune(line, { key: { letter: 'F', alter: 0, mode: 'major' } }))).toBe('');
  expect(rings(tune(line, { tuning: parseTuning('A3 E4 A4 E5')! }))).toBe('GDAE');
});
