import { bowNotes } from '#core/bowing';
import { droneScene } from '#core/drones';
import { fingerTune } from '#core/fingering';
import { beatUnit, limitsWith } from '#core/tempo';
import { type Tune, unroll, writtenNotes } from '#core/tune';
import { part, tune } from '../testing/tunes';
import { ORNAMENTS } from './kinds';
import { ornamentFacts, type OrnamentScene } from './ornamentFacts';
import { leaveOff, ornament, type OrnamentRule, ornamentSpots } from './rules';

/** A scene at a tempo given by the seconds of a whole note. */
function sceneOf(t: Tune, whole = 1.1): OrnamentScene {
  const unrolled = unroll(t);
  return {
    drones: droneScene(t, unrolled, fingerTune(t, unrolled, 'open'), beatUnit(t.danceType, t.meter)),
    bowed: bowNotes(unrolled.notes, 'down'),
    durations: unrolled.notes.map(({ duration }) => (whole * duration.n) / duration.d),
    limits: limitsWith(),
    tripletSeconds: whole / 4,
  };
}

const facts = (line: string, kind: (typeof ORNAMENTS)[number], index = 0, whole?: number) =>
  ornamentFacts(sceneOf(tune([part('A', line)]), whole), index, kind);

describe('the left hand', () => {
  test('a roll has no place on an open string, and none above the fourth finger', () => {
    expect(facts('A4:3 D4', 'roll').obstacles).toEqual(['open-string']);
    expect(facts('B5:3 D4', 'roll').obstacles).toEqual(['no-finger-above']);
    expect(facts('B4:3 D4', 'roll').obstacles).toEqual([]);
  });

  test('a roll is long on a dotted quarter and short on a quarter: five sounds or four', () => {
    expect(facts('B4:3 D4', 'roll').time!.neededMs).toBe(320);
    expect(facts('B4:2 D4', 'roll').time!.neededMs).toBe(260);
    expect(facts('B4:2 D4', 'roll', 0, 0.8).obstacles).toEqual(['too-short']);
  });

  test.each([
    ['A4', 3],
    ['B4', 3],
    ['C#5', 3],
    ['D5', 4],
    ['B5', null],
  ] as const)('a flick on %s is for finger %s', (pitch, finger) => {
    const found = facts(`${pitch}:2 D4`, 'flick');
    expect(found.finger).toBe(finger);
    expect(found.obstacles).toEqual(finger === null ? ['no-finger-above'] : []);
  });

  test('a touch a fourth above the sounding note lies on the quarter node; a shorter touch does not ring', () => {
    // The third finger at home is a fourth above the open string, where it rings two octaves up.
    expect(facts('A4:2 D4', 'flick').harmonic).toBe('1/4');
    expect(facts('B4:2 D4', 'flick').harmonic).toBeNull();
    const quick = sceneOf(tune([part('A', 'A4:2 D4')]));
    const limits = limitsWith({ flickMs: { value: 25, source: 'measured' } });
    expect(ornamentFacts({ ...quick, limits }, 0, 'flick').harmonic).toBeNull();
  });

  test('a slide needs room: none from the semitone below on its string', () => {
    expect(facts('C#5 D5', 'slide', 1).obstacles).toEqual(['no-room']);
    expect(facts('B4 D5', 'slide', 1).obstacles).toEqual([]);
    expect(facts('B4 D5 E5', 'slide', 2).obstacles).toEqual(['open-string']);
    expect(facts('C#5 D5', 'pressed-in', 1).obstacles).toEqual([]);
  });

  test('vibrato wants a stopped note that lasts', () => {
    expect(facts('A4:4', 'vibrato').obstacles).toEqual(['open-string']);
    expect(facts('B4:4', 'vibrato').obstacles).toEqual([]);
    expect(facts('B4', 'vibrato-growing').obstacles).toEqual(['too-short']);
  });
});

describe('the bow', () => {
  test('a bowed triplet is three strokes for one: the count keeps its parity; in the middle of a slur it adds four', () => {
    expect(facts('D4:2 E4', 'bowed-triplet').strokesAdded).toBe(2);
    expect(facts('(D4 E4 F#4)', 'bowed-triplet', 1).strokesAdded).toBe(4);
    // At the end of a slurred pair: the note before keeps a stroke of its own.
    expect(facts('(D4 E4) F#4', 'bowed-triplet', 1).strokesAdded).toBe(3);
  });

  test('inside a slur a bowed triplet does not fit: the slur must be split', () => {
    expect(facts('(D4 E4 F#4)', 'bowed-triplet', 1, 2).obstacles).toEqual(['in-slur']);
    expect(facts('D4 E4:2 F#4', 'bowed-triplet', 1, 2).obstacles).toEqual([]);
  });

  test('its three strokes share the time of two running notes, and take hair by time and speed', () => {
    const { time, hairCm } = facts('D4:2 E4', 'bowed-triplet', 0, 0.72);
    expect(time).toEqual({ availableMs: 60, neededMs: 60 });
    // To and fro: the reach is one stroke's.
    expect(hairCm).toBeCloseTo(1.5, 9);
    expect(facts('D4:6', 'bowed-triplet').time!.availableMs).toBeCloseTo((1000 * 1.1) / 4 / 3, 9);
  });

  describe('a closing swell is two notes', () => {
    const ending = (last: string) => `D4:8 | D4:8 | D4:8 | ${last}`;

    test('the first on an up-bow, the last a beat or more at the end of a phrase', () => {
      expect(facts(ending('E4:2 F#4:2 D4:4'), 'closing-swell', 4).obstacles).toEqual(['not-up-bow']);
      expect(facts(ending('F#4:2 E4:2 A4:4'), 'closing-swell', 3).obstacles).toContain('not-at-phrase-end');
      expect(facts(ending('(F#4:2 G4) E4 D4:4'), 'closing-swell', 5).obstacles).toEqual(['not-up-bow']);
      expect(facts(ending('F#4 G4 E4:2 D4:4'), 'closing-swell', 5).obstacles).toEqual([]);
    });

    test('it takes the neighbour in on both: one pair of strings, and taken off the drones go with it', () => {
      const plain = tune([part('A', ending('F#4 G4 E4:2 D4:4'))]);
      const swelled = ornament(sceneOf(plain), ['A6'], 'closing-swell');
      const notes = writtenNotes(swelled);
      expect(notes.map(({ drone }) => drone)).toEqual([...Array<undefined>(5), 'upper', 'upper']);
      expect(notes[5]!.marks).toEqual(['closing-swell']);
      expect(leaveOff(sceneOf(swelled), ['A6'], 'closing-swell')).toEqual(plain);
    });

    test('by rule it is marked on the note before the end of each phrase', () => {
      const t = tune([part('A', ending('F#4 G4 E4:2 D4:4'))]);
      expect(ornamentSpots(sceneOf(t), { ornament: 'closing-swell', spot: 'phrase-ends', mostInPhrase: 1 })).toEqual([
        'A6',
      ]);
    });
  });

  test('a fade needs time to slow down, lift and move outward together', () => {
    expect(facts('D4:8', 'fade').obstacles).toEqual([]);
    expect(facts('D4:2', 'fade').obstacles).toEqual(['too-short']);
  });

  test('a staccato is lifted no longer than half its note, the height that of a fall for half that time', () => {
    const { liftCm, hair } = facts('D4 E4', 'staccato', 0, 0.8);
    // Half of 100 ms in the air: up and down in 25 ms each.
    expect(liftCm).toBeCloseTo((981 * 0.025 ** 2) / 2, 9);
    expect(hair).toBe('flat');
    expect(facts('D4:4', 'staccato').hair).toBe('tilted');
  });

  test('a snap stands before a longer note, a run before a strong one', () => {
    expect(facts('D4 E4:3', 'snap').obstacles).toEqual([]);
    expect(facts('D4 E4', 'snap').obstacles).toEqual(['not-before-longer']);
    expect(facts('D4:3 E4 F#4', 'passing-triplet', 1).obstacles).toEqual([]);
    expect(facts('D4 E4 F#4', 'brushed-run', 0).obstacles).toEqual(['not-into-strong']);
  });
});

describe('by rule', () => {
  const t = tune([part('A', 'B4:3 A4 F#4:3 E4 | B4:3 A4 D4:4 | B4:3 C#5 F#4:3 E4 | D4:8')], { form: ['A', 'A'] });
  const rule: OrnamentRule = { ornament: 'flick', spot: 'dotted-quarters', mostInPhrase: 9 };

  test('flick each dotted quarter on the beat: just those, each written note once', () => {
    expect(ornamentSpots(sceneOf(t), rule)).toEqual(['A1', 'A3', 'A5', 'A8', 'A10']);
  });

  test('the density of a phrase is kept, and what is decorated fits', () => {
    expect(ornamentSpots(sceneOf(t), { ...rule, mostInPhrase: 2 })).toHaveLength(2);
    for (const kind of ORNAMENTS)
      for (const place of ['dotted-quarters', 'on-beat', 'offbeat', 'long-notes', 'phrase-ends'] as const) {
        const scene = sceneOf(t);
        for (const id of ornamentSpots(scene, { ornament: kind, spot: place, mostInPhrase: 3 })) {
          const indices = scene.drones.unrolled.notes.filter(({ note }) => note.id === id).map(({ index }) => index);
          for (const index of indices) expect(ornamentFacts(scene, index, kind).obstacles).toEqual([]);
        }
      }
  });

  test('no note is chosen because it is long: a phrase is decorated evenly', () => {
    const plain = tune([part('A', 'B4 A4 F#4 E4 B4 A4 F#4:2 | B4 A4 F#4 E4 B4 A4 F#4 E4')]);
    const ids = ornamentSpots(sceneOf(plain), { ornament: 'cut', spot: 'on-beat', mostInPhrase: 2 });
    expect(ids).toEqual(['A1', 'A8']);
  });

  test('the offbeat is halfway through the dance beat, in compound time its last third', () => {
    const rule = { ornament: 'cut', spot: 'offbeat', mostInPhrase: 9 } as const;
    // Half notes are the beat of a reel: halfway are the second and fourth quarter.
    expect(ornamentSpots(sceneOf(tune([part('A', 'B4 A4 F#4 E4 B4 A4 F#4 E4')])), rule)).toEqual(['A3', 'A7']);
    const jig = tune([part('A', 'B4 A4 F#4 E4 F#4 A4')], { danceType: 'jig', meter: { num: 6, den: 8 } });
    expect(ornamentSpots(sceneOf(jig), rule)).toEqual(['A3', 'A6']);
  });

  test('a bowed triplet is on nothing longer than a quarter, and a waltz is pulsed on one', () => {
    const long = tune([part('A', 'B4:3 A4 F#4:2 E4:2')]);
    const triplet = { ornament: 'bowed-triplet', spot: 'on-beat', mostInPhrase: 9 } as const;
    expect(ornamentSpots(sceneOf(long), triplet)).toEqual(['A3']);
    const waltz = tune([part('A', 'B4:2 A4:2 F#4:2 | E4:2 F#4:2 A4:2')], {
      danceType: 'waltz',
      meter: { num: 3, den: 4 },
    });
    const pulse = { ornament: 'pulse', spot: 'on-beat', mostInPhrase: 9 } as const;
    expect(ornamentSpots(sceneOf(waltz), pulse)).toEqual(['A1', 'A4']);
  });

  test('twice by the same rule is as once', () => {
    const ids = ornamentSpots(sceneOf(t), rule);
    const once = ornament(sceneOf(t), ids, 'flick');
    expect(ornament(sceneOf(once), ids, 'flick')).toBe(once);
    expect(writtenNotes(once).filter(({ marks }) => marks?.includes('flick')).length).toBe(ids.length);
  });
});
