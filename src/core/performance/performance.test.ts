import { fraction } from '#core/base';
import { setLinks } from '#core/bowing';
import { reportTune } from '#core/report';
import { findLilt } from '#core/tempo';
import type { Link, NoteEvent, Tune } from '#core/tune';
import { unroll } from '#core/tune';
import { cases } from '../testing/share';
import { hear, hertz, level } from '../testing/sounds';
import { part, randomTune, seeded, tune } from '../testing/tunes';
import { beatsOf, beatsUnderNotes, offbeatOf } from './beats';
import { type Layer, LAYERS } from './layers';
import { perform } from './perform';
import { bowVelocities } from './velocities';
import { PLAIN_WISH } from './wish';

/** At 120 half notes a minute an eighth lasts an eighth of a second. */
const BPM = 120;
const EIGHTH = 0.125;

function withNote(t: Tune, id: string, more: Partial<NoteEvent>): Tune {
  return {
    ...t,
    parts: t.parts.map((item) => ({
      ...item,
      events: item.events.map((event) => (event.kind === 'note' && event.id === id ? { ...event, ...more } : event)),
    })),
  };
}
const line = (text: string, links: [string, Link][] = []) => setLinks(tune([part('A', text)]), new Map(links));
const planFor = (t: Tune, wish: Partial<typeof PLAIN_WISH> = {}) =>
  perform(reportTune(t, { bpm: BPM }), { ...PLAIN_WISH, ...wish }).plan;
const only = (...layers: Layer[]) => ({ layers: new Set<Layer>(layers) });

const decibelsOver = (louder: number, softer: number) => 20 * Math.log10(louder / softer);

describe('strokes', () => {
  test('each is as long as its notes, and its sign is its bow', () => {
    const { strokes } = planFor(line('D4 E4 F#4:2 (G4 A4) B4:2'));
    expect(strokes.map(({ from, to, sign }) => [from / EIGHTH, to / EIGHTH, sign])).toEqual([
      [0, 1, 1],
      [1, 2, -1],
      [2, 4, 1],
      [4, 6, -1],
      [6, 8, 1],
    ]);
  });

  test('a hook is a stop of 30 ms before its note, a retake lifts the bow off the stroke before', () => {
    const { strokes } = planFor(
      line('D4:2 D4:2 E4:2 F#4:2', [
        ['A2', 'hook'],
        ['A4', 'retake'],
      ]),
    );
    expect(strokes[0]!.stops).toEqual([{ from: expect.closeTo(2 * EIGHTH - 0.03, 9) as number, to: 2 * EIGHTH }]);
    expect(strokes[1]!.to).toBeCloseTo(6 * EIGHTH - 0.07, 9);
    expect(strokes[2]!.sign).toBe(strokes[1]!.sign);
  });

  test('with the layer of bowing off every note is a stroke of its own', () => {
    const t = line('(D4 E4) (F#4 G4) A4:4');
    expect(planFor(t).strokes.length).toBe(3);
    expect(planFor(t, only('melody')).strokes.map(({ sign }) => sign)).toEqual([1, -1, 1, -1, 1]);
  });

  test('a bowed triplet is three strokes with a bite that end in the direction of one', () => {
    const t = withNote(line('D4:2 A4:2 B4:4'), 'A2', { marks: ['bowed-triplet'] });
    const { strokes } = planFor(t);
    expect(strokes.map(({ sign }) => sign)).toEqual([1, -1, 1, -1, 1]);
    expect(strokes.slice(1, 4).every(({ bite }) => bite > 2)).toBe(true);
    expect(strokes[3]!.to).toBeCloseTo(4 * EIGHTH, 9);
    // Each of the first two sounds six tenths of its third.
    for (const stroke of strokes.slice(1, 3)) expect(stroke.to - stroke.from).toBeCloseTo((0.6 * 2 * EIGHTH) / 3, 9);
    expect(planFor(t, only('melody', 'bowing')).strokes.length).toBe(3);
  });

  test('the quick single of three-and-one speaks: 3 dB over the slurred three, where neither is on the beat', () => {
    const bar = '(D4 E4 F#4) G4 (A4 G4 F#4) E4';
    const { strokes } = planFor(line(Array.from({ length: 32 }, () => bar).join(' | ')));
    const threes = strokes.filter((_, i) => i % 4 === 2).map(({ speed }) => speed);
    const singles = strokes.filter((_, i) => i % 4 === 3).map(({ speed }) => speed);
    const mean = (list: readonly number[]) => list.reduce((sum, one) => sum + one, 0) / list.length;
    // The threes at the half bar have the backbeat and the down-bow on their side, and are softer all the same.
    expect(decibelsOver(mean(singles), mean(threes))).toBeGreaterThan(3 - 1.5 - 0.7);
  });

  test('the beat is louder than the backbeat, the backbeat than the rest, and a down-bow a little than an up-bow', () => {
    const bar = 'D4 E4 F#4 G4 A4 G4 F#4 E4';
    const { strokes } = planFor(line(Array.from({ length: 8 }, () => bar).join(' | ')));
    const mean = (at: readonly number[]) => {
      const some = strokes.filter((_, i) => at.includes(i % 8)).map(({ speed }) => speed);
      return some.reduce((sum, one) => sum + one, 0) / some.length;
    };
    expect(decibelsOver(mean([0, 4]), mean([2, 6]))).toBeGreaterThan(0.4);
    expect(decibelsOver(mean([2, 6]), mean([1, 3, 5, 7]))).toBeGreaterThan(1);
  });
});

describe('strings and fingers', () => {
  test('the bow lies on the string of each note and leaves it for another', () => {
    const { contacts, pitches } = planFor(line('D4 E4 A4 B4 E5:4'));
    expect(contacts.map((list) => list.map(({ from, to }) => [from / EIGHTH, to / EIGHTH]))).toEqual([
      [],
      [[0, 2]],
      [[2, 4]],
      [[4, 8]],
    ]);
    expect(pitches[1]!.map((move) => move.hertz)).toEqual([hertz(62), hertz(64)]);
  });

  test('a drone and the other note of a double stop sound along, unless the second string is off', () => {
    const droned = withNote(line('B4:4 D4:4'), 'A1', { drone: 'lower' });
    expect(planFor(droned).contacts[1]).toEqual([
      { from: 0, to: 4 * EIGHTH, role: 'second' },
      { from: 4 * EIGHTH, to: 8 * EIGHTH, role: 'melody' },
    ]);
    expect(planFor(droned, only('melody')).contacts[1]!.length).toBe(1);
    const double = withNote(line('F#5:8'), 'A1', { stops: [{ letter: 'D', alter: 0, octave: 5 }] });
    const { contacts, pitches } = planFor(double);
    expect(contacts[2]![0]!.role).toBe('second');
    expect(pitches[2]![0]!.hertz).toBeCloseTo(hertz(74), 6);
  });

  test.each([
    ['cut', [73, 71]],
    ['turn', [73, 71, 69, 71]],
    ['mordent', [71, 69, 71]],
    ['roll', [71, 73, 71, 69, 71]],
  ] as const)('a %s goes through its pitches of the key and ends on its own', (mark, expected) => {
    const t = withNote(line('B4:3 D4:5'), 'A1', { marks: [mark] });
    const moves = planFor(t).pitches[2]!;
    expect(moves.map((move) => Math.round(69 + 12 * Math.log2(move.hertz / 440)))).toEqual(expected);
    expect(moves.every(({ at }, i) => i === 0 || at > moves[i - 1]!.at)).toBe(true);
    expect(moves.at(-1)!.at).toBeLessThan(3 * EIGHTH);
    expect(planFor(t, only('melody')).pitches[2]!.length).toBe(1);
  });

  test('a short roll on a quarter begins with its cut: four sounds', () => {
    const moves = planFor(withNote(line('B4:2 D4:6'), 'A1', { marks: ['roll'] })).pitches[2]!;
    expect(moves.map((move) => Math.round(69 + 12 * Math.log2(move.hertz / 440)))).toEqual([73, 71, 69, 71]);
  });

  test('grace notes come first and leave most of the note to it', () => {
    const t = withNote(line('B4:2 D4:6'), 'A1', { graceNotes: [{ letter: 'C', alter: 1, octave: 5 }] });
    const moves = planFor(t).pitches[2]!;
    expect(moves.length).toBe(2);
    expect(moves[1]!.at).toBeLessThanOrEqual(0.4 * 2 * EIGHTH);
  });

  test('staccato and snapped notes are shorter, pulses and flicks are where they are written', () => {
    const marked = (mark: 'staccato' | 'snap' | 'pulse' | 'flick') =>
      planFor(withNote(line('D4:2 E4:6'), 'A1', { marks: [mark] }));
    expect(marked('staccato').strokes[0]!.to).toBeCloseTo(0.55 * 2 * EIGHTH, 9);
    expect(marked('snap').strokes[0]!.to).toBeCloseTo(0.85 * 2 * EIGHTH, 9);
    expect(marked('pulse').swells).toEqual([{ from: 0, to: 2 * EIGHTH, decibels: 5, by: 'speed', returns: true }]);
    expect(marked('flick').touches[1]!.map(({ kind }) => kind)).toEqual(['flick']);
  });
});

test('a closing swell takes the neighbour in halfway, and the last note sounds on both strings', () => {
  const marked = withNote(line('F#4:2 D4:2 E4:2 D4:2'), 'A3', { marks: ['closing-swell'], drone: 'upper' });
  const { contacts, swells } = planFor(withNote(marked, 'A4', { drone: 'upper' }));
  expect(contacts[2]!.map(({ from, to, role }) => [from / EIGHTH, to / EIGHTH, role])).toEqual([[5, 8, 'second']]);
  expect(swells.map(({ from, to, returns }) => [from / EIGHTH, to / EIGHTH, returns])).toEqual([[4, 6, false]]);
});

test('a hand comes a little early or late, louder or softer, the same each time, and no note passes another', () => {
  const report = reportTune(line('D4 E4 F#4 G4 A4 B4 C#5 D5'), { bpm: BPM });
  const [even, human, again] = [false, true, true].map((isHuman) => perform(report, { ...PLAIN_WISH, isHuman }).plan);
  expect(again).toEqual(human);
  const off = human!.strokes.map(({ from }, i) => from - even!.strokes[i]!.from);
  expect(Math.max(...off.map(Math.abs))).toBeLessThanOrEqual(0.004);
  expect(new Set(off.map((seconds) => seconds.toFixed(5))).size).toBeGreaterThan(4);
  const louder = human!.strokes.map(({ speed }, i) => Math.abs(decibelsOver(speed, even!.strokes[i]!.speed)));
  expect(Math.max(...louder)).toBeLessThanOrEqual(0.8 + 1e-9);
  expect(Math.max(...louder)).toBeGreaterThan(0.2);
});

describe('time', () => {
  test('notes begin when the lilt says, and the plan ends with the tune', () => {
    const lilt = findLilt('dotted')!;
    const report = reportTune(line('D4 E4 F#4 G4 A4 B4 C#5 D5'), { bpm: 50, lilt });
    const { onsets, plan } = perform(report);
    expect(onsets).toEqual([...report.timing.onsets]);
    expect(plan.seconds).toBeCloseTo(2.4, 9);
  });

  test('a span begins at its first note and ends where the next one begins', () => {
    const t = line('D4 E4 F#4 G4 | A4 B4 C#5 D5');
    const { onsets, ends, begins, plan } = perform(reportTune(t, { bpm: BPM }), {
      ...PLAIN_WISH,
      span: { from: 2, to: 5 },
    });
    expect(onsets.map((onset) => onset / EIGHTH)).toEqual([0, 1, 2].map((n) => expect.closeTo(n, 9) as number));
    expect([begins, ends / EIGHTH, plan.strokes.length]).toEqual([0, expect.closeTo(3, 9), 3]);
  });

  test('an answer is a gap as long as the call', () => {
    const { ends, plan } = perform(reportTune(line('D4:2 E4:2 F#4:4'), { bpm: BPM }), { ...PLAIN_WISH, answer: true });
    expect(plan.seconds).toBeCloseTo(2 * ends, 9);
  });

  test.each([
    ['a whole bar', 'D4:2 E4:2 F#4:4', 1, 2, 1],
    ['a pickup is counted into its bar', 'E4:2 | D4:8 | E4:8', 1, 4, 1.75],
    ['two bars', 'D4:2 E4:2 F#4:4', 2, 4, 2],
  ])('the count-in of %s', (_name, text, bars, clicks, seconds) => {
    const { begins, plan, onsets } = perform(reportTune(line(text), { bpm: BPM }), { ...PLAIN_WISH, countIn: bars });
    expect(begins).toBeCloseTo(seconds, 9);
    expect(plan.clicks.length).toBe(clicks);
    expect(plan.clicks[0]!.at).toBe(0);
    expect(onsets[0]).toBeCloseTo(seconds, 9);
    // The next click would fall on the beat that follows.
    const period = 60 / BPM;
    const next = plan.clicks.length * period;
    const onBeat = text.startsWith('E4:2 |') ? onsets[1]! : onsets[0]!;
    expect(Math.abs(next - onBeat) % period).toBeCloseTo(0, 9);
  });

  test('beats of a pickup are counted back from the bar line', () => {
    const beats = beatsOf(unroll(line('E4:2 | D4:8 | E4:8')), fraction(1, 2));
    expect(beats.map(({ at, isFirst }) => [at, isFirst])).toEqual([
      [0.25, true],
      [0.75, false],
      [1.25, true],
      [1.75, false],
    ]);
    expect(offbeatOf(beats[0]!)).toBe(0.5);
  });
});

describe('backing and clicks', () => {
  test('bass on the beat, three notes of the chord on the offbeat', () => {
    const { plucks } = planFor(line('D4 F#4 A4 F#4 D4 F#4 A4 D5'), only('backing'));
    const at = (kind: string) => plucks.filter((pluck) => pluck.kind === kind).map((pluck) => pluck.at / EIGHTH);
    expect(at('bass')).toEqual([0, 4]);
    expect(at('chord')).toEqual([2, 2, 2, 6, 6, 6]);
  });

  test('in a waltz the bass has the first beat and the chord the others', () => {
    const t = tune([part('A', 'D4:2 F#4:2 A4:2 | D5:6')], { meter: { num: 3, den: 4 }, danceType: 'waltz' });
    const { plucks } = perform(reportTune(t, { bpm: 120 }), { ...PLAIN_WISH, ...only('backing') }).plan;
    expect(plucks.filter(({ kind }) => kind === 'bass').map(({ at }) => at)).toEqual([0, 1.5]);
    expect([...new Set(plucks.filter(({ kind }) => kind === 'chord').map(({ at }) => at))]).toEqual([0.5, 1, 2, 2.5]);
  });

  test('clicks mark bars, beats and offbeats', () => {
    const { clicks } = planFor(line('D4:8 | E4:8'), only('click'));
    expect(clicks.map(({ kind }) => kind)).toEqual([
      ...['bar', 'offbeat', 'beat', 'offbeat'],
      ...['bar', 'offbeat', 'beat', 'offbeat'],
    ]);
  });

  test('compound beats are clicked in three, where the lilt has them', () => {
    const t = tune([part('A', 'D4:3 E4:3')], { meter: { num: 6, den: 8 }, danceType: 'jig' });
    const report = reportTune(t, { bpm: 60, lilt: findLilt('dotted')! });
    const { clicks } = perform(report, { ...PLAIN_WISH, ...only('click') }).plan;
    expect(clicks.map(({ at }) => Math.round(100 * at) / 100)).toEqual([0, 0.44, 0.67, 1, 1.44, 1.67]);
  });

  test('the tone is the tonic, and each layer can be off', () => {
    expect(planFor(line('D4:8'), only('tone')).toneHertz).toBeCloseTo(hertz(62), 6);
    const silent = planFor(line('D4:8'), only());
    expect([silent.toneHertz, silent.plucks.length, silent.clicks.length]).toEqual([null, 0, 0]);
    expect(silent.contacts.flat()).toEqual([]);
  });
});

test('velocities follow the bow: slurred notes are softer, accents harder, all within 1 and 127', () => {
  const t = withNote(line('(D4 E4) F#4 G4 A4:4'), 'A4', { marks: ['accent'] });
  const [first, slurred, , accented] = bowVelocities(reportTune(t));
  expect(slurred).toBeLessThan(first! - 8);
  expect(accented).toBeGreaterThan(first! - 8);
  expect(bowVelocities(reportTune(randomTune(3))).every((v) => v >= 1 && v <= 127)).toBe(true);
});

test('random tunes with all layers make plans in order of time, whatever the tempo, and sound within full scale', () => {
  const random = seeded(8);
  for (let seed = 1; seed <= cases(25); seed++) {
    const bpm = 30 + 170 * random();
    const report = reportTune(randomTune(seed), { bpm });
    const count = report.unrolled.notes.length;
    const from = Math.floor(random() * Math.max(1, count - 6));
    const span = count > 0 ? { from, to: Math.min(count, from + 5) } : null;
    const { plan } = perform(report, {
      layers: new Set(LAYERS),
      span,
      countIn: 1,
      answer: random() < 0.5,
      isHuman: true,
    });
    const rising = (times: readonly number[]) =>
      times.every((time, i) => time >= 0 && (i === 0 || time >= times[i - 1]! - 1e-9));
    expect(rising(plan.strokes.map((stroke) => stroke.from))).toBe(true);
    for (const [i, { from: begin, to }] of plan.strokes.entries()) {
      expect(to).toBeGreaterThan(begin);
      expect(to).toBeLessThanOrEqual((plan.strokes[i + 1]?.from ?? Infinity) + 1e-9);
    }
    for (const place of [0, 1, 2, 3]) {
      expect(rising(plan.contacts[place]!.map((contact) => contact.from))).toBe(true);
      expect(rising(plan.pitches[place]!.map((move) => move.at))).toBe(true);
    }
    expect(rising(plan.plucks.map(({ at }) => at)) && rising(plan.clicks.map(({ at }) => at))).toBe(true);
    const { out } = hear({ ...plan, seconds: Math.min(2, plan.seconds) });
    expect(out.every((sample) => Math.abs(sample) <= 1)).toBe(true);
    if (count > 0) expect(level(out, 0, 2)).toBeGreaterThan(-60);
  }
});

describe('beats under notes', () => {
  const under = (t: Tune, lilt = 'straight') =>
    beatsUnderNotes(reportTune(t, { bpm: 50, lilt: findLilt(lilt)! })).map((beats) =>
      beats.map(({ isBeat, share }) => `${isBeat ? 'b' : 'o'}${Math.round(100 * share) / 100}`).join(' '),
    );

  test('fall on the notes that begin there, and within those that last over them', () => {
    expect(under(line('D4:2 E4:2 F#4:4'))).toEqual(['b0', 'o0', 'b0 o0.5']);
    expect(under(line('D4:8'))).toEqual(['b0 o0.25 b0.5 o0.75']);
  });

  test('in a rest belong to the note before it, with their share of the way to the next', () => {
    expect(under(line('D4 z:3 E4:4'))).toEqual(['b0 o0.5', 'b0 o0.5']);
  });

  test('of a lilted beat are where the lilt puts them: on its own notes', () => {
    const t = tune([part('A', 'D4 E4 F#4 G4')], { meter: { num: 2, den: 4 }, danceType: 'polka' });
    expect(under(t, 'dotted')).toEqual(['b0', 'o0', 'b0', 'o0']);
  });
});

test('on a fiddle tuned to another A everything that has a pitch goes with it, in all layers', () => {
  const report = reportTune(tune([part('A', 'A4 B4 c#5 A4')]), { bpm: BPM });
  const wish = { ...PLAIN_WISH, layers: new Set(LAYERS) };
  const usual = perform(report, wish).plan;
  const low = perform(report, { ...wish, a4: 415 }).plan;
  const pitchesOf = (plan: typeof usual) => [
    ...plan.openHertz,
    ...plan.pitches.flat().map((move) => move.hertz),
    ...plan.plucks.map((pluck) => pluck.hertz),
    plan.toneHertz!,
  ];
  const ratios = pitchesOf(low).map((hz, i) => hz / pitchesOf(usual)[i]!);
  expect(ratios.length).toBeGreaterThan(8);
  for (const ratio of ratios) expect(ratio).toBeCloseTo(415 / 440, 12);
  expect(low.strokes).toEqual(usual.strokes);
});
