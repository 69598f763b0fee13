import { type Schools, USUAL_SCHOOLS } from '#core/schools';
import { formatFraction } from '#core/base';
import { bowNotes, setLinks } from '#core/bowing';
import { armPlan, type Plane } from '#core/crossing';
import { FULL_SIZE } from '#core/instrument';
import { type DanceType, type Link, type Meter, unroll } from '#core/tune';
import { part, tune } from '../testing/tunes';
import { defaultTempo } from './bands';
import { beatUnit, wholeNoteSeconds } from './beat';
import { danceCheck } from './danceCheck';
import { crossingTime, limitsWith } from './limits';
import { noteTimes, timing } from './noteTimes';

const meter = (text: string): Meter => {
  const [num, den] = text.split('/').map(Number);
  return { num: num!, den: den! };
};

test.each([
  ['reel', '4/4', '1/2'],
  ['reel', '2/2', '1/2'],
  ['reel', '2/4', '1/4'],
  ['hornpipe', '4/4', '1/2'],
  ['hoedown', '2/4', '1/4'],
  ['jig', '6/8', '3/8'],
  ['slip jig', '9/8', '3/8'],
  ['slide', '12/8', '3/8'],
  ['march', '6/8', '3/8'],
  ['march', '2/4', '1/4'],
  ['polka', '2/4', '1/4'],
  ['strathspey', '4/4', '1/4'],
  ['waltz', '3/4', '1/4'],
  ['air', '9/8', '3/8'],
  ['air', '3/8', '3/8'],
  ['waltz', '3/2', '1/2'],
  ['waltz', '3/8', '1/8'],
  ['mazurka', '3/8', '1/8'],
  ['schottische', '4/4', '1/2'],
  [null, '4/4', '1/4'],
  [null, '2/2', '1/2'],
  [null, '3/2', '1/2'],
] as const)('the beat of a %s in %s is %s', (type, time, expected) => {
  expect(formatFraction(beatUnit(type as DanceType | null, meter(time)))).toBe(expected);
});

test('the default tempo is the middle of the band', () => {
  expect(defaultTempo('reel')).toBe(109);
  expect(defaultTempo('air')).toBe(63);
});

test('a bar of a reel at 109 half notes a minute lasts 60/109 of two seconds', () => {
  expect(wholeNoteSeconds(109, { n: 1, d: 2 })).toBeCloseTo(120 / 109, 12);
});

describe('dance check', () => {
  function check(line: string, planes: Plane[], links: [string, Link][], bpm = 109, schools: Schools = USUAL_SCHOOLS) {
    const unrolled = unroll(setLinks(tune([part('A', line)]), new Map(links)));
    const { notes } = unrolled;
    const times = noteTimes(unrolled, { n: 1, d: 2 });
    const bowed = bowNotes(notes, 'down');
    const { crossings } = armPlan(notes, bowed, planes, FULL_SIZE);
    return danceCheck({
      bowed,
      crossings,
      moves: notes.map(() => null),
      marks: notes.map(({ note }) => note.marks),
      times,
      timing: timing(times, bpm),
      bpm,
      limits: limitsWith(),
      schools,
      hairCm: 63,
    });
  }

  test('a slur over a skipped string needs 166 ms, has 138 and stands to 90', () => {
    const { ceiling } = check('F5 F#4 A4:2', [['E'], ['D'], ['D']], [['A2', 'slur']]);
    expect(ceiling).toMatchObject({ kind: 'crossing', index: 1 });
    expect(ceiling!.neededMs).toBeCloseTo(1.25 * (70 + 2 * 31.476), 1);
    expect(ceiling!.availableMs).toBeCloseTo(137.615, 2);
    expect(ceiling!.ceilingBpm).toBeCloseTo(90.25, 1);
  });

  test('where the bow stops for a turn, a crossing has half the note before', () => {
    const stopping = check('D4 A4', [['D'], ['A']], [], 109, { ...USUAL_SCHOOLS, turn: 'stop' });
    const merged = check('D4 A4', [['D'], ['A']], []);
    const crossing = (found: typeof merged) => found.events[1]!.find(({ kind }) => kind === 'crossing')!;
    expect(crossing(stopping).availableMs).toBeCloseTo(crossing(merged).availableMs / 2, 9);
    expect(crossing(stopping).neededMs).toBe(crossing(merged).neededMs);
  });

  test('off the string a skip needs no less than a retake, in a slur it is as before', () => {
    const off: Schools = { ...USUAL_SCHOOLS, skips: 'off-string' };
    const needs = (links: [string, Link][], schools?: Schools) =>
      check('F5 F#4', [['A'], ['G']], links, 109, schools).events[1]!.find(({ kind }) => kind === 'crossing')!.neededMs;
    // Two strings down the bow turns 31.5 degrees: 133 ms of its own.
    expect(needs([], off)).toBeCloseTo(70 + 2 * 31.476, 1);
    expect(needs([['A2', 'slur']], off)).toBe(needs([['A2', 'slur']]));
    const slowHands = limitsWith({ retakeMs: { value: 200, source: 'measured' } });
    const lifted = crossingTime({ degrees: 31.476, skips: 1, inSlur: false, turns: true }, 0.2, 0.2, 0, slowHands, off);
    expect(lifted.neededMs).toBe(200);
  });

  test('a rest between gives a crossing more time, but not inside a slur', () => {
    const plain = check('D4 z A4 D4', [['D'], ['A'], ['D']], []);
    expect(plain.events[1]!.find(({ kind }) => kind === 'crossing')!.availableMs).toBeCloseTo(2 * 137.615, 1);
    const slurred = check('D4 z A4 D4', [['D'], ['A'], ['D']], [['A3', 'slur']]);
    expect(slurred.events[1]!.find(({ kind }) => kind === 'crossing')!.availableMs).toBeCloseTo(137.615, 1);
  });

  test('at its ceiling the binding event has just the time it needs, above it less', () => {
    const line = 'D4 A4 E5 A4';
    const planes: Plane[] = [['D'], ['A'], ['E'], ['A']];
    const { ceiling } = check(line, planes, []);
    const at = check(line, planes, [], ceiling!.ceilingBpm);
    expect(Math.min(...at.headroom.filter((room) => room !== null))).toBeCloseTo(1, 9);
    expect(
      Math.min(...check(line, planes, [], ceiling!.ceilingBpm * 1.01).headroom.filter((room) => room !== null)),
    ).toBeLessThan(1);
  });

  test('nothing that binds only above 400 is called a ceiling', () => {
    const { ceiling, tightest } = check('D4:8', [['D']], []);
    expect(ceiling).toBeNull();
    expect(tightest).toHaveLength(1);
  });

  test('the floor is the tempo at which the longest stroke, drawn at 5 cm a second, fills the hair', () => {
    const { floor } = check('D4:8', [['D']], []);
    // A whole note lasts 120/bpm seconds; 63 cm at 5 cm/s last 12.6 s.
    expect(floor!.bpm).toBeCloseTo(120 / 12.6, 9);
  });
});
