import { cases, some } from '../testing/share';
import { centsOff, defaultPlace, dipAt, hear, hertz, level, type PlannedNote, planOf, RATE } from '../testing/sounds';
import { seeded } from '../testing/tunes';
import { render } from './render';

const TUNINGS = [
  ['G3 D4 A4 E5', [55, 62, 69, 76]],
  ['A3 E4 A4 E5', [57, 64, 69, 76]],
  ['D3 D4 A4 D5', [50, 62, 69, 74]],
] as const;

describe.each([44100, 48000])('at %i samples a second', (rate) => {
  test.each(TUNINGS)('in %s every pitch is within 2 cents up to E7', (_name, tuning) => {
    const pitches: number[] = [];
    for (let midi: number = tuning[0]; midi <= 100; midi += midi < 60 ? 1 : 5) pitches.push(midi);
    for (const midi of some(pitches, rate / 100 + tuning[0])) {
      const { bridge } = hear(planOf([{ midi, from: 0, to: 1.2 }], {}, tuning), { rate });
      expect(Math.abs(centsOff(bridge, hertz(midi), 0.2, 1.1, rate))).toBeLessThan(2);
    }
  });
});

describe('strokes', () => {
  /** Notes a second, on one string by turns of a tone. */
  function run(rate: number, midi: number, slurred: boolean): { bridge: Float32Array; each: number } {
    const each = 1 / rate;
    const notes = Array.from({ length: 6 }, (_, i): PlannedNote => ({
      midi: midi + (i % 2 ? 2 : 0),
      place: defaultPlace(midi),
      from: i * each,
      to: (i + 1) * each,
      sign: i % 2 ? -1 : 1,
      slurred: slurred && i > 0,
    }));
    return { bridge: hear(planOf(notes)).bridge, each };
  }

  test.each([
    [4, 57],
    [8, 64],
    [10, 57],
    [10, 71],
    [10, 80],
  ])('%i notes a second from %i: a bow change dips by 10 dB or more, a slur by less than 6', (rate, midi) => {
    const [changed, slurred] = [run(rate, midi, false), run(rate, midi, true)];
    for (let i = 1; i < 5; i++) {
      expect(dipAt(changed.bridge, i * changed.each, changed.each)).toBeLessThan(-10);
      expect(dipAt(slurred.bridge, i * slurred.each, slurred.each)).toBeGreaterThan(-6);
    }
  });

  test('the wave is turned over with every stroke, and not within one', () => {
    // A falling saw spends its time rising and drops at once: the third moment of its slope tells which way it is.
    const wayAt = (bridge: Float32Array, time: number) => {
      let sum = 0;
      for (let i = Math.round((time - 0.03) * RATE); i < Math.round((time + 0.03) * RATE); i++)
        sum += (bridge[i]! - bridge[i - 1]!) ** 3;
      return Math.sign(sum);
    };
    const [changed, slurred] = [run(6, 64, false), run(6, 64, true)];
    const ways = (of: typeof changed) => [0, 1, 2, 3, 4, 5].map((i) => wayAt(of.bridge, (i + 0.5) * of.each));
    expect(ways(changed)).toEqual([-1, 1, -1, 1, -1, 1]);
    expect(new Set(ways(slurred)).size).toBe(1);
  });

  test.each([55, 57, 62, 69, 76, 83])('a note at %i speaks within 45 ms', (midi) => {
    const { bridge } = hear(planOf([{ midi, from: 0.1, to: 0.8 }]));
    const steady = level(bridge, 0.4, 0.7);
    expect(level(bridge, 0.14, 0.15)).toBeGreaterThan(steady - 3);
    expect(level(bridge, 0.03, 0.07)).toBeLessThan(-80);
  });

  /** When a note has half the level that it holds, after the lowest point about its beginning. */
  function halfLevelAt(bridge: Float32Array, planned: number, seconds: number): number {
    const held = level(bridge, planned + 0.45 * seconds, planned + 0.75 * seconds);
    let lowest = planned - 0.03;
    for (let t = planned - 0.03; t < planned + 0.02; t += 0.001)
      if (level(bridge, t - 0.004, t + 0.004) < level(bridge, lowest - 0.004, lowest + 0.004)) lowest = t;
    let t = lowest;
    while (level(bridge, t - 0.004, t + 0.004) < held - 6) t += 0.0005;
    return t;
  }

  test.each([
    [3, 55],
    [6, 57],
    [8, 64],
    [8, 71],
    [10, 80],
  ])('%i strokes a second on %i: each has half its level within 10 ms of its time', (rate, midi) => {
    const { bridge, each } = run(rate, midi, false);
    for (let i = 1; i < 5; i++) expect(Math.abs(halfLevelAt(bridge, i * each, each) - i * each)).toBeLessThan(0.01);
  });

  test('so has one on another string than the one before, by a turn of the bow or in a slur', () => {
    for (const slurred of [false, true]) {
      const notes = [64, 71, 64, 71].map((midi, i): PlannedNote => ({
        midi,
        from: i * 0.25,
        to: (i + 1) * 0.25,
        sign: !slurred && i % 2 ? -1 : 1,
        slurred: slurred && i > 0,
      }));
      const plan = planOf(notes);
      for (const i of [1, 2, 3]) {
        // Only the string of the note is heard.
        const place = defaultPlace(notes[i]!.midi);
        const contacts = plan.contacts.map((list, at) => (at === place ? list : []));
        const { bridge } = hear({ ...plan, contacts });
        expect(Math.abs(halfLevelAt(bridge, i * 0.25, 0.25) - i * 0.25)).toBeLessThan(0.01);
      }
    }
  });

  test('no two changes are alike, and they are the same each time', () => {
    const { bridge, each } = run(8, 69, false);
    const dips = [1, 2, 3, 4].map((i) => level(bridge, i * each - 0.012, i * each));
    expect(Math.max(...dips) - Math.min(...dips)).toBeGreaterThan(1);
    expect(run(8, 69, false).bridge).toEqual(bridge);
  });

  test('a hook is a gap in the stroke: the sound stops and the wave stays as it was', () => {
    const plan = planOf([
      { midi: 69, from: 0, to: 0.3 },
      { midi: 69, from: 0.3, to: 0.6, slurred: true },
    ]);
    const [stroke] = plan.strokes;
    const { bridge } = hear({ ...plan, strokes: [{ ...stroke!, stops: [{ from: 0.265, to: 0.3 }] }] });
    expect(level(bridge, 0.285, 0.297)).toBeLessThan(level(bridge, 0.1, 0.2) - 10);
    expect(level(bridge, 0.4, 0.5)).toBeCloseTo(level(bridge, 0.1, 0.2), 0);
  });
});

describe('colour', () => {
  test.each([
    ['speed', 0.2],
    ['speed', 0.6],
    ['weight', 0.2],
    ['weight', 0.6],
  ] as const)('a pulse by %s over %f s peaks 3 to 6 dB over the same plan without it', (by, seconds) => {
    const note = { midi: 64, from: 0, to: seconds };
    const plain = hear(planOf([note])).bridge;
    const swell = { from: 0, to: seconds, decibels: 5, by, returns: true };
    const pulsed = hear(planOf([note], { swells: [swell] })).bridge;
    const peak = (samples: Float32Array) => {
      let most = -Infinity;
      for (let t = 0.01; t < seconds - 0.01; t += 0.002) most = Math.max(most, level(samples, t - 0.01, t + 0.01));
      return most;
    };
    expect(peak(pulsed) - peak(plain)).toBeGreaterThan(3);
    expect(peak(pulsed) - peak(plain)).toBeLessThan(6);
    expect(level(pulsed, seconds * 0.9, seconds * 0.95)).toBeLessThan(level(plain, seconds * 0.9, seconds * 0.95) + 1);
  });

  test.each([57, 64, 71, 80])(
    'a flick at %i brushes the string: 6 dB down or more, and the note is there again',
    (midi) => {
      const note = { midi, from: 0, to: 0.5 };
      const touches = [0, 1, 2, 3].map((place) =>
        place === defaultPlace(midi) ? [{ kind: 'flick' as const, from: 0.2, to: 0.222 }] : [],
      );
      const [plain, flicked] = [hear(planOf([note])).bridge, hear(planOf([note], { touches })).bridge];
      let dip = 0;
      for (let t = 0.2; t < 0.23; t += 0.001)
        dip = Math.min(dip, level(flicked, t - 0.004, t + 0.004) - level(plain, t - 0.004, t + 0.004));
      expect(dip).toBeLessThan(-6);
      expect(level(flicked, 0.3, 0.4)).toBeCloseTo(level(plain, 0.3, 0.4), 0);
    },
  );

  test('a fade goes down all the way, and grows duller as it does', () => {
    const fade = { from: 0, to: 1.2, decibels: -10, by: 'fade' as const, returns: false };
    const { bridge } = hear(planOf([{ midi: 69, from: 0, to: 1.2 }], { swells: [fade] }));
    const levels = [0.1, 0.4, 0.7, 1, 1.15].map((t) => level(bridge, t - 0.03, t + 0.03));
    for (let i = 1; i < levels.length; i++) expect(levels[i]!).toBeLessThan(levels[i - 1]!);
    expect(levels[0]! - levels.at(-1)!).toBeGreaterThan(8);
    // Steps from sample to sample are small where the high partials are gone.
    const steps = bridge.map((sample, i) => sample - (bridge[i - 1] ?? 0));
    const bright = (t: number) => level(steps, t - 0.05, t + 0.05) - level(bridge, t - 0.05, t + 0.05);
    expect(bright(0.15)).toBeGreaterThan(bright(1.1) + 0.5);
  });

  test('an accent bites at once: loudest within 30 ms, 3 dB softer 80 ms later, with noise for 20 ms', () => {
    const note = { midi: 69, from: 0.2, to: 1 };
    const plain = hear(planOf([note])).bridge;
    const struck = hear(planOf([note], { accents: [{ at: 0.2, decibels: 3.5 }] })).bridge;
    const above = (t: number) => level(struck, t - 0.005, t + 0.005) - level(plain, t - 0.005, t + 0.005);
    expect(above(0.225)).toBeGreaterThan(3);
    expect(above(0.225) - above(0.31)).toBeGreaterThan(3);
    expect(above(0.6)).toBeCloseTo(0, 1);
    const noise = (from: number, to: number) =>
      level(
        struck.map((sample, i) => sample - plain[i]! * 10 ** (3.5 / 20)),
        from,
        to,
      ) - level(struck, from, to);
    expect(noise(0.202, 0.218)).toBeGreaterThan(-22);
    expect(noise(0.202, 0.218)).toBeLessThan(-14);
  });

  test('the hair hisses about 48 dB under the tone, and softer as the bow goes slower', () => {
    // Two seeds differ in nothing but their noise.
    const hissOf = (speed: number) => {
      const plan = planOf([{ midi: 69, from: 0, to: 1 }]);
      const strokes = plan.strokes.map((stroke) => ({ ...stroke, speed, force: 0.4 }));
      const [one, other] = [1, 2].map((seed) => hear({ ...plan, strokes }, { seed }).bridge);
      const noise = one!.map((sample, i) => (sample - other![i]!) / Math.SQRT2);
      return { under: level(noise, 0.3, 0.9) - level(one!, 0.3, 0.9), level: level(noise, 0.3, 0.9) };
    };
    expect(hissOf(0.35).under).toBeGreaterThan(-51);
    expect(hissOf(0.35).under).toBeLessThan(-45);
    expect(hissOf(0.35).level - hissOf(0.2).level).toBeGreaterThan(3);
  });

  test('a long note moves by a decibel or two and does not stand still', () => {
    const { bridge } = hear(planOf([{ midi: 69, from: 0, to: 3 }]));
    const levels = Array.from({ length: 26 }, (_, i) => level(bridge, 0.2 + 0.1 * i, 0.3 + 0.1 * i));
    const moved = Math.max(...levels) - Math.min(...levels);
    expect(moved).toBeGreaterThan(1);
    expect(moved).toBeLessThan(2);
  });

  test('weight at the beginning is heard there, weight in the middle there', () => {
    const leaning = (lean: 'start' | 'middle') => {
      const plan = planOf([{ midi: 69, from: 0, to: 0.6 }]);
      const { bridge } = hear({ ...plan, strokes: plan.strokes.map((stroke) => ({ ...stroke, lean })) });
      return [0.1, 0.3, 0.5].map((t) => level(bridge, t - 0.03, t + 0.03));
    };
    const [first, , last] = leaning('start');
    expect(first! - last!).toBeGreaterThan(0.8);
    const [before, middle, after] = leaning('middle');
    expect(Math.min(middle! - before!, middle! - after!)).toBeGreaterThan(0.5);
  });

  test.each([0.07, 0.1])(
    'the three strokes of a bowed triplet, sounded six tenths of %f s each, stand 12 dB apart',
    (each) => {
      const plan = planOf(
        [0, 1, 2].map((i): PlannedNote => ({
          midi: 69,
          from: 0.1 + i * each,
          to: 0.1 + (i + (i < 2 ? 0.6 : 1)) * each,
          sign: i % 2 ? -1 : 1,
        })),
      );
      const strokes = plan.strokes.map((stroke) => ({ ...stroke, bite: 2.2, biteSeconds: 0.012 }));
      const { bridge } = hear({ ...plan, strokes });
      for (const i of [1, 2]) expect(dipAt(bridge, 0.1 + i * each, each)).toBeLessThan(-12);
    },
  );

  test.each([0.07, 0.1])('the three strokes of a bowed triplet, %f s each, are three', (each) => {
    const plan = planOf([
      { midi: 66, from: 0, to: 0.3, sign: -1 },
      ...[0, 1, 2].map((i): PlannedNote => ({
        midi: 69,
        from: 0.3 + i * each,
        to: 0.3 + (i + 1) * each,
        sign: i % 2 ? -1 : 1,
      })),
    ]);
    const strokes = plan.strokes.map((stroke, i) => (i > 0 ? { ...stroke, bite: 2.2, biteSeconds: 0.012 } : stroke));
    const { bridge } = hear({ ...plan, strokes });
    for (const i of [1, 2]) expect(dipAt(bridge, 0.3 + i * each, each)).toBeLessThan(-6);
  });

  test('a slide comes from below and arrives', () => {
    const pitches = planOf([{ midi: 71, from: 0, to: 1.5 }]).pitches.map((list, place) =>
      place === 2
        ? [
            { at: 0, hertz: hertz(69.3), glide: 0 },
            { at: 0.02, hertz: hertz(71), glide: 0.1 },
          ]
        : list,
    );
    const { bridge } = hear(planOf([{ midi: 71, from: 0, to: 1.5 }], { pitches }));
    expect(Math.abs(centsOff(bridge, hertz(71), 0.3, 1.4))).toBeLessThan(2);
    expect(centsOff(bridge, hertz(70.5), 0.03, 0.1)).toBeLessThan(40);
  });

  test('vibrato rolls below the pitch and stays within its width', () => {
    const vibrato = [[], [], [{ from: 0, to: 2, rate: 5, cents: 40, grow: 0 }], []];
    const { bridge } = hear(planOf([{ midi: 71, from: 0, to: 2 }], { vibrato }));
    // Its middle lies half the width below the pitch that the finger stops.
    expect(Math.abs(centsOff(bridge, hertz(71 - 0.2), 0.4, 1.6))).toBeLessThan(2);
  });
});

describe('body and strings that ring along', () => {
  test.each(TUNINGS)('in %s the notes of the scale are within 6 dB, a D3 string 3 more', (_name, tuning) => {
    const levels = [];
    for (let midi = 55; midi <= 86; midi += 1)
      levels.push(level(hear(planOf([{ midi, from: 0, to: 0.8 }], {}, tuning)).out, 0.3, 0.7));
    expect(Math.max(...levels) - Math.min(...levels)).toBeLessThan(6);
    if (tuning[0] < 55) {
      const low = level(hear(planOf([{ midi: 50, from: 0, to: 0.8 }], {}, tuning)).out, 0.3, 0.7);
      expect(low).toBeGreaterThan(Math.min(...levels) - 3);
    }
  });

  test('a tuning that fits the note rings 20 dB more than one that does not', () => {
    const ringing = (tuning: readonly number[]) =>
      level(hear(planOf([{ midi: 81, from: 0, to: 1, place: 3 }], {}, tuning)).ringing, 0.6, 0.95);
    expect(ringing([57, 64, 69, 76]) - ringing([56, 61.5, 70.5, 77.4])).toBeGreaterThan(20);
  });

  test('what rings along stays below what drives it', () => {
    for (const midi of [57, 64, 69, 76, 81]) {
      const { bridge, ringing } = hear(planOf([{ midi, from: 0, to: 2 }], {}, [57, 64, 69, 76]));
      expect(level(ringing, 1.5, 1.9)).toBeLessThan(level(bridge, 1.5, 1.9));
    }
  });
});

describe('the whole', () => {
  test('over 200 random plans every sample is a number within full scale', () => {
    const random = seeded(41);
    for (let round = 0; round < cases(200); round++) {
      const each = 60 / (30 + 170 * random()) / 4;
      const notes = Array.from({ length: Math.ceil(0.7 / each) }, (_, i): PlannedNote => ({
        midi: 55 + Math.floor(40 * random()),
        from: i * each,
        to: (i + 1) * each,
        sign: random() < 0.5 ? 1 : -1,
        slurred: i > 0 && random() < 0.3,
      }));
      const plan = planOf(notes);
      const strokes = plan.strokes.map((stroke) => ({
        ...stroke,
        speed: 0.05 + 0.7 * random(),
        force: 1.5 * random(),
        bite: random() < 0.3 ? 2.2 : 1,
        biteSeconds: 0.012,
      }));
      const swells = [
        { from: 0.1, to: 0.1 + 0.4 * random(), decibels: 8 * random(), by: 'weight' as const, returns: true },
      ];
      const touches = [0, 1, 2, 3].map(() => [{ kind: 'flick' as const, from: 0.3 * random(), to: 0.4 }]);
      const { out } = hear({ ...plan, strokes, swells, touches }, { seed: round + 1 });
      let most = 0;
      for (const sample of out) most = Math.max(most, Math.abs(sample));
      expect(Number.isFinite(most)).toBe(true);
      expect(most).toBeLessThanOrEqual(1);
      expect(out.every((sample) => !Number.isNaN(sample))).toBe(true);
    }
  });

  const busy = () =>
    planOf(
      [69, 71, 73, 74].map((midi, i): PlannedNote => ({
        midi,
        from: i * 0.2,
        to: (i + 1) * 0.2,
        sign: i % 2 ? -1 : 1,
      })),
      {
        plucks: [
          { at: 0, hertz: 110, kind: 'bass' },
          { at: 0.2, hertz: 277, kind: 'chord' },
        ],
        clicks: [{ at: 0.1, kind: 'beat' }],
        toneHertz: 440,
      },
    );

  test('the same seed gives the same samples, whatever the blocks', () => {
    const [one, other, small] = [hear(busy()), hear(busy()), hear(busy(), { block: 37 })];
    expect(other.out).toEqual(one.out);
    expect(small.out).toEqual(one.out);
  });

  test('the whole at once is what the blocks are, and a tail that dies away', () => {
    const whole = render(busy());
    expect(whole.subarray(0, 35000)).toEqual(hear(busy()).out.subarray(0, 35000));
    expect(level(whole, 2, 2.2)).toBeLessThan(level(whole, 0.2, 0.6) - 6);
  });

  test('a balance of nothing is silence of that part', () => {
    const balance = { melody: 0, second: 0, backing: 0, click: 0, tone: 0 };
    expect(level(render(busy(), { balance }), 0.1, 0.7)).toBeLessThan(-80);
  });

  test('louder than full scale is held down', () => {
    const plan = busy();
    const loud = render({ ...plan, strokes: plan.strokes.map((stroke) => ({ ...stroke, speed: 9, force: 1.5 })) });
    let most = 0;
    for (const sample of loud) most = Math.max(most, Math.abs(sample));
    expect(most).toBeGreaterThan(0.8);
    expect(most).toBeLessThanOrEqual(1);
  });
});
