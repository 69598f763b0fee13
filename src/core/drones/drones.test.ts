import { fraction } from '#core/base';
import { fingerTune } from '#core/fingering';
import { FULL_SIZE } from '#core/instrument';
import { midiOf, pitchName } from '#core/pitch';
import { hertzOf } from '#core/pitch';
import { PLACES, type Tune, unroll, writtenNotes } from '#core/tune';
import { parseTuning, TUNINGS } from '#core/tuning';
import { cases } from '../testing/share';
import { part, randomTune, seeded, tune } from '../testing/tunes';
import { applyDrones, holdFinger } from './applyLine';
import { droneScene, openDrones, stoppedDoubles } from './candidates';
import { doublingOf, doublings } from './doublings';
import { droneLine, type DroneStep, droneSteps, type DroneWish, joinCost } from './droneLine';
import { intervalClass, pureCents, pureRatio } from './intervals';
import { intonationAgainst, LEADING_NOTE_CHOICES, openStringCents, unisonBeats } from './intonation';
import { type Answer, explained, fitEar, listeningPairs } from './listening';
import { DEFAULT_EAR, rankOf, rankTerms } from './rank';
import { pitchRoughness, relativeRoughness, roughnessOf, toneOf } from './roughness';
import { doubleStops } from './sounding';
import { threeStrings } from './threeStrings';

function sceneOf(t: Tune) {
  const unrolled = unroll(t);
  return droneScene(t, unrolled, fingerTune(t, unrolled, 'open'), fraction(1, 2));
}

describe('roughness', () => {
  /** Written another way: all partials in one list, each tone's own roughness taken off at the end. */
  function independent(f: number, g: number): number {
    const pile = (bases: number[]) => {
      const all = bases.flatMap((base) => [1, 2, 3, 4, 5, 6, 7].map((k) => [k * base, 0.88 ** (k - 1)] as const));
      all.sort((a, b) => a[0] - b[0]);
      let sum = 0;
      for (let i = 0; i < all.length; i++)
        for (let j = i + 1; j < all.length; j++) {
          const s = 0.24 / (0.0207 * all[i]![0] + 18.96);
          const d = all[j]![0] - all[i]![0];
          sum += Math.min(all[i]![1], all[j]![1]) * (Math.exp(-3.5 * s * d) - Math.exp(-5.75 * s * d));
        }
      return sum;
    };
    return pile([f, g]) - pile([f]) - pile([g]);
  }

  test('equals a sum over one pile of partials, from the lowest string to high on the E string', () => {
    for (const low of [50, 55, 62, 69, 76])
      for (let n = 0; n <= 19; n++)
        expect(pitchRoughness(low, low + n)).toBeCloseTo(independent(hertzOf(low), hertzOf(low + n)), 9);
  });

  test('has the tabulated values of a semitone, a fifth and a minor seventh over 440 Hz', () => {
    expect(pitchRoughness(69, 70)).toBeCloseTo(0.743274, 5);
    expect(pitchRoughness(69, 76)).toBeCloseTo(0.117945, 5);
    expect(pitchRoughness(69, 79)).toBeCloseTo(0.257857, 5);
  });

  test('over 440 Hz unison, octave, fifth, fourth and major sixth are the smoothest, seconds the roughest', () => {
    const order = Array.from({ length: 13 }, (_, n) => n).sort(
      (a, b) => pitchRoughness(69, 69 + a) - pitchRoughness(69, 69 + b),
    );
    expect(new Set(order.slice(0, 5))).toEqual(new Set([0, 12, 7, 5, 9]));
    expect(order.slice(-2)).toEqual([2, 1]);
  });

  test('does not ask which tone is named first, and two equal sine tones have none', () => {
    expect(pitchRoughness(62, 71)).toBe(pitchRoughness(71, 62));
    const sine = toneOf(440, 1);
    expect(roughnessOf(sine, sine)).toBe(0);
  });
});

describe('rank', () => {
  test('of two tones that are the same to the chord a seventh that does not resolve never outranks a third, on any string', () => {
    const roles = ['root', 'fifth', 'third', 'other'] as const;
    const total = (melody: number, drone: number, role: (typeof roles)[number]) => {
      const { roughness, class: own, role: tonal } = rankTerms(melody, drone, role, false);
      return roughness + own + tonal;
    };
    // Both neighbours of a note, as the fiddle has them: the same melody note against a lower and an upper string.
    for (const { tuning } of TUNINGS)
      for (let at = 1; at < 3; at++)
        for (let n = 0; n <= 8; n++) {
          const melody = midiOf(tuning[at]!) + n;
          const sides = [midiOf(tuning[at - 1]!), midiOf(tuning[at + 1]!)];
          for (const [third, seventh] of [sides, [...sides].reverse()]) {
            const isThird = [3, 4].includes(Math.abs(melody - third!) % 12);
            const isSeventh = [10, 11].includes(Math.abs(melody - seventh!) % 12);
            if (!isThird || !isSeventh) continue;
            for (const role of roles) expect(total(melody, third!, role)).toBeLessThan(total(melody, seventh!, role));
          }
        }
    // And over any one open string, from G up.
    for (let drone = 55; drone <= 76; drone++)
      for (const third of [3, 4])
        for (const seventh of [10, 11])
          expect(total(drone + third, drone, 'other')).toBeLessThan(total(drone + seventh, drone, 'other'));
  });

  test('a seventh that resolves counts as sweet; terms add up to the rank', () => {
    expect(rankTerms(72, 62, 'root', true).class).toBe(rankTerms(66, 62, 'root', false).class);
    for (const drone of openDrones(sceneOf(tune([part('A', 'E4 F#4 G4 A4')])), 2))
      expect(drone.terms.roughness + drone.terms.class + drone.terms.role).toBeCloseTo(drone.rank, 12);
  });

  test('a note on D has G below and A above, the E string nothing above', () => {
    const scene = sceneOf(tune([part('A', 'F#4 B5')]));
    expect(
      openDrones(scene, 0)
        .map(({ kind, pitch }) => [kind, pitchName(pitch)])
        .sort(),
    ).toEqual([
      ['lower', 'G3'],
      ['upper', 'A4'],
    ]);
    expect(openDrones(scene, 1).map(({ kind }) => kind)).toEqual(['lower']);
    expect(openDrones(scene, 0).find(({ kind }) => kind === 'upper')).toMatchObject({
      reachRisk: 'high',
      role: 'fifth',
    });
  });

  test('the chord of the moment charges its tones little and what lies outside it much', () => {
    const charge = (role: 'root' | 'fifth' | 'third' | 'other') => rankTerms(69, 62, role, false).role;
    expect([charge('root'), charge('fifth'), charge('third'), charge('other')]).toEqual([0, 0.05, 0.12, 0.45]);
    // Under A the open A is the root, under Em it lies outside: written chords win.
    const under = (chord: string) => {
      const t = tune([part('A', 'E5:4 C#5:4')]);
      const named = {
        ...t,
        parts: t.parts.map((own) => ({
          ...own,
          events: own.events.map((event) => (event.id === 'A1' ? { ...event, chord } : event)),
        })),
      };
      return openDrones(sceneOf(named as Tune), 0).find(({ pitch }) => pitchName(pitch) === 'A4')!.role;
    };
    expect([under('A'), under('D'), under('F'), under('Em')]).toEqual(['root', 'fifth', 'third', 'other']);
  });

  test('roughness is told against a fifth on the lower note, so that low strings are judged as high ones', () => {
    for (const low of [55, 62, 69, 76]) {
      expect(relativeRoughness(low, low + 7)).toBe(1);
      expect(relativeRoughness(low + 12, low)).toBeLessThan(0.3);
      for (const third of [3, 4])
        expect(rankOf(rankTerms(low + third, low, 'root', false))).toBeLessThan(
          rankOf(rankTerms(low + 10, low, 'root', false)),
        );
    }
  });

  test('a drone may be stopped above the melody: one finger across a fifth, or another finger', () => {
    const t = tune([part('A', 'E4 B4')]);
    const above = stoppedDoubles(sceneOf(t), 0).filter(({ stop }) => stop.place === 'A');
    expect(above.find(({ isBarre }) => isBarre)).toMatchObject({ semitones: 7, stop: { finger: 1 } });
    const written = applyDrones(t, new Map([['A1', { kind: 'stopped', double: above[0]! }]]));
    const fingering = fingerTune(written, unroll(written), 'open').get('A1')!;
    expect([fingering.place, fingering.stops[0]!.place]).toEqual(['D', 'A']);
    expect(doubleStops(sceneOf(written), 328).map(({ place, isOpen }) => [place, isOpen])).toEqual([['A', false]]);
  });

  test('a finger held beside the notes that follow is written, and stays where it lies', () => {
    const t = tune([part('A', 'F#4:2 A4 B4 C#5 A4 D4:2')]);
    const scene = sceneOf(t);
    const held = holdFinger(scene, 0, 2);
    const stops = writtenNotes(held).map((note) => note.stops?.map(pitchName).join());
    expect(stops).toEqual([undefined, 'F#4', 'F#4', undefined, undefined, undefined]);
    const fingers = fingerTune(held, unroll(held), 'open');
    for (const id of ['A2', 'A3']) expect(fingers.get(id)!.stops).toEqual([{ place: 'D', finger: 2, semitones: 4 }]);
  });

  test('a double stop with two stopped notes lies under one hand and in the key', () => {
    const t = tune([part('A', 'D5 C#5 B4')]);
    for (let i = 0; i < 3; i++)
      for (const { stop, pitch, isBarre } of stoppedDoubles(sceneOf(t), i)) {
        const below = ['E4', 'F#4', 'G4', 'A4', 'B4'];
        const above = ['F#5', 'G5', 'A5', 'B5'];
        expect(stop.place === 'D' ? below : above).toContain(pitchName(pitch));
        expect(isBarre).toBe(stop.finger === [3, 2, 1][i]);
      }
    // Under D, A below is its fifth; G, a fifth under one finger, lies outside it; F sharp below is a sixth.
    const doubles = stoppedDoubles(sceneOf(t), 0).filter(({ stop }) => stop.place === 'D');
    expect(doubles[0]).toMatchObject({ isBarre: false, semitones: 5 });
    expect(pitchName(doubles[0]!.pitch)).toBe('A4');
    expect(doubles.find(({ isBarre }) => isBarre)).toMatchObject({ semitones: 7 });
    expect(doubles.find(({ stop }) => stop.finger === 2)).toMatchObject({ semitones: 8 });
  });
});

describe('intonation', () => {
  test('open strings in pure fifths from A stand 2 and 4 cents off, and in a retuned one as its intervals have it', () => {
    const cents = openStringCents(parseTuning('G3 D4 A4 E5')!);
    for (const [i, expected] of [-3.91, -1.955, 0, 1.955].entries()) expect(cents[i]).toBeCloseTo(expected, 3);
    // E below A by a pure fourth is 2 cents high, its own fifth down A again level.
    const crossed = openStringCents(parseTuning('A3 E4 A4 E5')!);
    for (const [i, expected] of [0, 1.955, 0, 1.955].entries()) expect(crossed[i]).toBeCloseTo(expected, 3);
  });

  test('the first finger on A wants two places a comma apart, against D and against E', () => {
    const cents = openStringCents(parseTuning('G3 D4 A4 E5')!);
    const against = (midi: number, string: number) =>
      intonationAgainst({ midi: 71, semitones: 2 }, { midi, cents: cents[string]! }, 328);
    const apart = against(76, 3).pureCents - against(62, 1).pureCents;
    expect(apart).toBeCloseTo(1200 * Math.log2(81 / 80), 6);
    expect(against(76, 3).pureMm - against(62, 1).pureMm).toBeCloseTo(3.63, 2);
  });

  test('beats are the difference of the partials that nearly meet', () => {
    // A tempered fifth A4 E5 beats at 2·659.255 − 3·440 a second.
    const { beats } = intonationAgainst({ midi: 76, semitones: 7 }, { midi: 69, cents: 0 }, 328);
    expect(beats).toBeCloseTo(Math.abs(2 * 659.2551 - 3 * 440), 3);
    expect(unisonBeats(440, 0)).toBe(0);
    expect(unisonBeats(440, 1200)).toBeCloseTo(440, 9);
    expect(unisonBeats(440, 5)).toBeCloseTo(440 * (2 ** (5 / 1200) - 1), 12);
  });

  test('pure intervals have their known sizes, and an octave doubles the ratio', () => {
    expect(pureCents(7)).toBeCloseTo(701.955, 3);
    expect(pureCents(4)).toBeCloseTo(386.314, 3);
    expect(pureCents(19)).toBeCloseTo(1901.955, 3);
    expect(pureRatio(12)).toEqual({ upper: 2, lower: 1 });
    expect(intervalClass(-10)).toBe('sharp');
  });

  test('the leading note may stand about 14 cents low, or 8 high', () => {
    expect(LEADING_NOTE_CHOICES.map(({ cents }) => Math.round(cents))).toEqual([-14, 0, 8]);
  });
});

describe('drone line', () => {
  const WISHES: DroneWish[] = ['none', 'stressed', 'phrase-ends', 'one-pair'];

  function bruteForce(steps: DroneStep[][], wish: DroneWish): number {
    let least = Infinity;
    const go = (i: number, before: DroneStep | null, cost: number): void => {
      if (i === steps.length) least = Math.min(least, cost);
      else
        for (const step of steps[i]!) go(i + 1, step, cost + step.cost + (before ? joinCost(before, step, wish) : 0));
    };
    go(0, null, 0);
    return least;
  }

  test('equals trying every combination on lines of eight notes', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const random = seeded(seed);
      const pitches = ['D4', 'E4', 'F#4', 'G4', 'A4', 'B4', 'C#5', 'D5', 'E5', 'F#5', 'B3'];
      const line = Array.from(
        { length: 8 },
        () => `${pitches[Math.floor(random() * pitches.length)]}:${1 + Math.floor(random() * 2)}`,
      );
      const t = tune([part('A', line.join(' '))]);
      const scene = sceneOf(t);
      for (const wish of WISHES) {
        const steps = Array.from({ length: 8 }, (_, i) => droneSteps(scene, i, wish, DEFAULT_EAR));
        expect(droneLine(scene, { from: 0, to: 8 }, wish).cost).toBeCloseTo(bruteForce(steps, wish), 9);
      }
    }
  });

  test('no wish, no drones; one pair throughout keeps the bow on one pair where the strings agree', () => {
    const scene = sceneOf(tune([part('A', 'D4 F#4 A4 D5 B4 A4 F#4 D4')]));
    expect(droneLine(scene, { from: 0, to: 8 }, 'none').choices.every(({ kind }) => kind === 'none')).toBe(true);
    const held = droneLine(scene, { from: 0, to: 8 }, 'one-pair').choices;
    expect(held.filter(({ kind }) => kind !== 'none').length).toBeGreaterThan(5);
  });

  test('stopped partners come only where they are asked for, and on no note shorter than 250 ms', () => {
    for (let seed = 1; seed <= cases(20); seed++) {
      const t = randomTune(seed);
      const scene = sceneOf(t);
      const { notes } = scene.unrolled;
      const durations = notes.map(({ duration }) => (1.2 * duration.n) / duration.d);
      const stoppedIn = (partners: { readonly durations: readonly number[] } | null = null) =>
        droneLine(scene, { from: 0, to: notes.length }, 'throughout', { partners }).choices.flatMap(({ kind }, i) =>
          kind === 'stopped' ? [i] : [],
        );
      expect(stoppedIn()).toEqual([]);
      for (const i of stoppedIn({ durations })) expect(durations[i]).toBeGreaterThanOrEqual(0.25);
    }
    // Over B flat in B flat no open string is in the chord.
    const flat = tune([part('A', 'Bb4:8')], { key: { letter: 'B', alter: -1, mode: 'major' } });
    const [choice] = droneLine(sceneOf(flat), { from: 0, to: 1 }, 'throughout', {
      partners: { durations: [1] },
    }).choices;
    expect(choice).toMatchObject({
      kind: 'stopped',
      double: { role: 'root', pitch: { letter: 'B', alter: -1, octave: 5 } },
    });
  });

  test('a chosen drone is one of its candidates', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const t = randomTune(seed);
      const scene = sceneOf(t);
      const { choices } = droneLine(scene, { from: 0, to: scene.unrolled.notes.length }, 'stressed');
      for (const [i, choice] of choices.entries())
        if (choice.kind === 'lower' || choice.kind === 'upper')
          expect(openDrones(scene, i).map(({ kind }) => kind)).toContain(choice.kind);
    }
  });
});

describe('unison doubling', () => {
  test.each([
    ['G3 D4 A4 E5', ['D:4 on G', 'A:4 on D', 'E:4 on A']],
    ['A3 E4 A4 E5', ['D:4 on G', 'A:3 on D', 'E:4 on A']],
    ['A3 D4 A4 E5', ['D:3 on G', 'A:4 on D', 'E:4 on A']],
    ['D3 D4 A4 E5', ['none', 'A:4 on D', 'E:4 on A']],
    ['D3 D4 A4 D5', ['none', 'A:4 on D', 'E:3 on A']],
    ['G3 D4 G4 D5', ['D:4 on G', 'A:3 on D', 'E:4 on A']],
    ['G3 D4 G4 B4', ['D:4 on G', 'A:3 on D', 'E:2 on A']],
    ['A3 E4 A4 C#5', ['D:4 on G', 'A:3 on D', 'E:2 on A']],
  ])(
    '%s: a fifth is doubled by the fourth finger, a fourth by the third, a third by the second',
    (strings, expected) => {
      const tuning = parseTuning(strings)!;
      const told = (['D', 'A', 'E'] as const).map((open) => {
        const doubled = doublingOf(open, tuning);
        return doubled ? `${open}:${doubled.stop.finger} on ${doubled.stop.place}` : 'none';
      });
      expect(told).toEqual(expected);
      for (const open of PLACES) {
        const doubled = doublingOf(open, tuning);
        if (doubled)
          expect(midiOf(tuning[PLACES.indexOf(doubled.stop.place)]!) + doubled.stop.semitones).toBe(
            midiOf(tuning[PLACES.indexOf(open)]!),
          );
      }
    },
  );

  test('dotted pairs run in eighths, not in sixteenths: a short note of them is no running note', () => {
    const line = 'D4:1.5 E4:0.5 D4:1.5 E4:0.5 D4:1.5 E4:0.5 A4:1 F#4:1 | A4:1.5 B4:0.5 A4:1.5 B4:0.5 A4:4';
    const t = tune([part('A', line)], { danceType: 'hornpipe' });
    const unrolled = unroll(t);
    const found = doublings(
      t,
      unrolled,
      fingerTune(t, unrolled, 'open'),
      unrolled.notes.map(() => 0.3),
    );
    // Open strings of an eighth are the running note; those of a dotted eighth and more are longer.
    expect(found.map(({ id }) => id)).not.toContain('A7');
    expect(found.map(({ id }) => id)).toContain('A13');
  });

  test('only what sounds longer than the running note and at least 200 ms is doubled', () => {
    const t = tune([part('A', 'D4 E4 A4:2 F#4 A4 E5:4 z:2')]);
    const un = unroll(t);
    const found = (eighth: number) =>
      doublings(
        t,
        un,
        fingerTune(t, un, 'open'),
        un.notes.map(({ duration }) => (eighth * 8 * duration.n) / duration.d),
      ).map(({ id }) => id);
    expect(found(0.137)).toEqual(['A3', 'A6']);
    expect(found(0.09)).toEqual(['A6']);
    expect(doublingOf('A', t.tuning)!.approaches).toEqual([0, 1, 2, 3]);
  });
});

test('three strings are rolled through a neighbour angle, or pressed until the middle one gives way', () => {
  const { rollDegrees, pressMm } = threeStrings(FULL_SIZE);
  expect(rollDegrees).toBeCloseTo(15.74, 2);
  // Height of the arc over its chord: s² / 2R, to first order.
  expect(pressMm).toBeCloseTo(11.5 ** 2 / (2 * 42), 1);
});

describe('listening test', () => {
  const pairs = listeningPairs();
  const answered = (weights: typeof DEFAULT_EAR): Answer[] =>
    pairs.map(({ a, b }) => {
      const rank = ({ melody, drone, role }: (typeof pairs)[number]['a']) => {
        const terms = rankTerms(melody, drone, role, false, weights);
        return terms.roughness + terms.class + terms.role;
      };
      return rank(a) <= rank(b) ? { liked: a, other: b } : { liked: b, other: a };
    });

  test('answers of an ear are explained by the weights fitted to them, better than by others', () => {
    for (const ear of [DEFAULT_EAR, { roughness: 4, class: 0.2, role: 1 }, { roughness: 0.1, class: 3, role: 4 }]) {
      const answers = answered(ear);
      const fitted = fitEar(answers);
      expect(explained(answers, fitted)).toBeGreaterThanOrEqual(explained(answers, DEFAULT_EAR));
      expect(explained(answers, fitted)).toBeGreaterThanOrEqual(0.8);
    }
  });

  test('no answers leave the usual ear; weights are never negative', () => {
    expect(fitEar([])).toEqual(DEFAULT_EAR);
    const upsideDown = answered(DEFAULT_EAR).map(({ liked, other }) => ({ liked: other, other: liked }));
    for (const weight of Object.values(fitEar(upsideDown))) expect(weight).toBeGreaterThanOrEqual(0);
  });
});
