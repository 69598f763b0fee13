import { fingerTune, FREE_HAND } from '#core/fingering';
import { FULL_SIZE } from '#core/instrument';
import { midiOf } from '#core/pitch';
import { defaultSettings } from '#core/report';
import { PLACES, unroll, writtenNotes } from '#core/tune';
import { parseTuning, STANDARD_TUNING, TUNINGS } from '#core/tuning';
import { part, randomTune, tune } from '../testing/tunes';
import { changeTuning } from './changeTuning';
import { bestFirst, rankTuning, rankTunings, tiedWith, TUNING_TERMS } from './rankTunings';
import { ringOf } from './ring';

test('in another tuning every note sounds as before where it is had at all; what is lost is named', () => {
  for (const { tuning } of TUNINGS)
    for (let seed = 1; seed <= 12; seed++) {
      const t = randomTune(seed);
      const changed = changeTuning(t, tuning, FREE_HAND, FULL_SIZE);
      const fingers = fingerTune(changed.tune, unroll(changed.tune), 'open');
      for (const [i, { id, pitch }] of writtenNotes(changed.tune).entries()) {
        expect(pitch).toEqual(writtenNotes(t)[i]!.pitch);
        const { reachable, place, semitones } = fingers.get(id)!;
        if (!reachable) expect(changed.lost).toContain(id);
        else expect(midiOf(tuning[PLACES.indexOf(place)]!) + semitones).toBe(midiOf(pitch));
      }
    }
});

test('pins of the tuning before are let go, and what lies elsewhere is told with both places', () => {
  const t = tune([part('A', 'D4 E4 A4')]);
  const { refingered } = changeTuning(t, parseTuning('A3 E4 A4 E5')!, FREE_HAND, FULL_SIZE);
  expect(
    refingered.map(({ id, before, after }) => `${id} ${before.place}:${before.finger} ${after.place}:${after.finger}`),
  ).toEqual(['A1 D:0 G:3', 'A2 D:1 D:0']);
  expect(changeTuning(t, STANDARD_TUNING, FREE_HAND, FULL_SIZE).refingered).toEqual([]);
});

test('a drone that would sound another pitch is told', () => {
  const t = tune([part('A', 'A4')]);
  const droned = {
    ...t,
    parts: [
      { name: 'A', events: t.parts[0]!.events.map((e) => (e.kind === 'note' ? { ...e, drone: 'lower' as const } : e)) },
    ],
  };
  expect(changeTuning(droned, parseTuning('A3 E4 A4 E5')!, FREE_HAND, FULL_SIZE).droneChanges).toEqual(['A1']);
  expect(changeTuning(droned, parseTuning('A3 D4 A4 E5')!, FREE_HAND, FULL_SIZE).droneChanges).toEqual([]);
});

test('an octave over an open string rings more than its seventh; nothing rings by the string it is played on', () => {
  // D5 on A meets the second partial of the D string.
  expect(ringOf(74, STANDARD_TUNING, 2)).toBeGreaterThan(ringOf(73, STANDARD_TUNING, 2));
  const one = parseTuning('G3 D4 A4 E5')!;
  expect(ringOf(61, one, 1)).toBe(0);
});

test('the cost is the sum of its terms, each a figure times its weight', () => {
  const t = tune([part('A', 'A4 C#5 E5 A5 F#5 E5 C#5 A4')], { key: { letter: 'A', alter: 0, mode: 'major' } });
  for (const ranked of rankTunings(t, TUNINGS, STANDARD_TUNING, defaultSettings()))
    expect(TUNING_TERMS.reduce((sum, term) => sum + ranked.terms[term], 0)).toBeCloseTo(ranked.cost, 9);
});

test('a tune in A low on the fiddle likes its fourth and third string in A and E; one in D does not', () => {
  const crossed = TUNINGS.find(({ name }) => name === 'high bass and counter')!;
  const inA = tune([part('A', 'A3 C#4 E4 A4 C#5 E5 A5 E5 | A3:2 E4:2 A4:4')], {
    key: { letter: 'A', alter: 0, mode: 'major' },
  });
  const inD = tune([part('A', 'D4 F#4 A4 D5 D4:2 G3:2 | D4:4 A4:4')]);
  const settings = defaultSettings();
  const gain = (t: typeof inA) =>
    rankTuning(t, crossed, crossed.tuning, settings).cost - rankTuning(t, TUNINGS[0]!, STANDARD_TUNING, settings).cost;
  expect(gain(inA)).toBeLessThan(gain(inD));
  expect(gain(inD)).toBeGreaterThan(0);
});

test('other keys are tried too, and an implausible tuning is left out', () => {
  const t = tune([part('A', 'D4 F#4 A4')]);
  const wrong = { name: 'the wrong way round', tuning: parseTuning('E5 A4 D4 G3')! };
  const ranked = [
    ...rankTunings(t, [TUNINGS[0]!, wrong], STANDARD_TUNING, defaultSettings(), [t.key, { letter: 'G', alter: 0 }]),
  ];
  expect(ranked.map(({ name, key }) => `${name} ${key.letter}`)).toEqual(['standard D', 'standard G']);
  const costs = bestFirst(ranked).map(({ cost }) => cost);
  expect(costs).toEqual([...costs].sort((a, b) => a - b));
});

test('gaps too small to hear are ties, held against the first of them', () => {
  const costs = [1, 1.1, 1.14, 1.2, 1.6, 1.74].map((cost) => ({ cost }));
  expect(tiedWith(costs)).toEqual([false, true, true, false, false, true]);
});
