import { formatFraction } from '#core/base';
import { bowNotes, setLinks } from '#core/bowing';
import { armPlan, type Plane } from '#core/crossing';
import { FULL_SIZE } from '#core/instrument';
import { DEFAULT_SCHOOLS, type Schools } from '#core/schools';
import { type DanceType, type Link, type Meter, type Tune, unroll } from '#core/tune';
import { part, tune } from '../testing/tunes';
import { defaultTempo } from './bands';
import { beatUnit, wholeNoteSeconds } from './beat';
import { danceCheck } from './danceCheck';
import { crossingGaps } from './density';
import type { EventKind } from './eventKinds';
import { findLilt } from './lilts';
import { crossingNeeds, GUESSED_LIMITS, limitsWith } from './limits';
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
  const check = (
    line: string,
    planes: Plane[],
    links: [string, Link][],
    bpm = 109,
    schools: Schools = DEFAULT_SCHOOLS,
    lilt = 'straight',
  ) => checked(setLinks(tune([part('A', line)]), new Map(links)), planes, bpm, schools, lilt);

  function checked(t: Tune, planes: Plane[], bpm: number, schools: Schools, lilt = 'straight') {
    const unrolled = unroll(t);
    const { notes } = unrolled;
    const times = noteTimes(unrolled, { n: 1, d: 2 }, findLilt(lilt)!);
    const bowed = bowNotes(notes, 'down');
    const { crossings } = armPlan(notes, bowed, planes, FULL_SIZE, schools.arm);
    return danceCheck({
      bowed,
      crossings,
      moves: notes.map(() => null),
      marks: notes.map(({ note }) => note.marks),
      graces: notes.map(({ note }) => note.graceNotes?.length ?? 0),
      gaps: crossingGaps(crossings, times.played.onsets),
      times,
      timing: timing(times, bpm),
      bpm,
      limits: limitsWith(),
      schools,
      hairCm: 63,
    });
  }

  test('a slur over a skipped string needs 146 ms, has 138 and stands to 102', () => {
    const { ceiling } = check('F5 F#4 A4:2', [['E'], ['D'], ['D']], [['A2', 'slur']]);
    expect(ceiling).toMatchObject({ kind: 'crossing', index: 1 });
    expect(ceiling!.neededMs).toBeCloseTo(45 + 1.2 * 17.738 + 80, 1);
    expect(ceiling!.availableMs).toBeCloseTo(137.615, 2);
    expect(ceiling!.ceilingBpm).toBeCloseTo(102.5, 1);
  });

  test.each([
    // Adjacent and over one string; at a change and in a slur.
    ['early', [67, 54.6, 101.6, 146.3]],
    ['middle', [78.6, 63.9, 122.2, 162.8]],
  ] as const)(
    'an arm that is %s needs, to a neighbour and over a string, at a change and in a slur, %j ms',
    (arm, needs) => {
      const schools = { ...DEFAULT_SCHOOLS, arm };
      const need = (to: Plane, slurred: boolean) =>
        check('D4 D4', [['D'], to], slurred ? [['A2', 'slur']] : [], 109, schools).events[1]!.find(
          ({ kind }) => kind === 'crossing',
        )!.neededMs;
      const found = [need(['A'], false), need(['A'], true), need(['E'], false), need(['E'], true)];
      for (const [i, ms] of found.entries()) expect(ms).toBeCloseTo(needs[i]!, 0);
    },
  );

  test('a crossing has half of both notes together, so a short one beside a long one has more than its length', () => {
    const { events } = check('D4:3 A4', [['D'], ['A']], []);
    expect(events[1]!.find(({ kind }) => kind === 'crossing')!.availableMs).toBeCloseTo(2 * 137.615, 1);
  });

  test('each crossing within 0.6 s before it adds 8 % to its need, 40 % at most', () => {
    const line = Array.from({ length: 12 }, (_, i) => (i % 2 ? 'A4' : 'D4')).join(' ');
    const planes: Plane[] = Array.from({ length: 12 }, (_, i) => [i % 2 ? 'A' : 'D']);
    const { events } = check(line, planes, []);
    const needs = events.flatMap((own) =>
      own.filter(({ kind }) => kind === 'crossing').map(({ neededMs }) => neededMs),
    );
    // Eighths of 138 ms: four of them lie within 0.6 s.
    for (const [i, ms] of needs.entries()) expect(ms).toBeCloseTo(67 * (1 + 0.08 * Math.min(4, i)), 9);
    const quicker = check(line, planes, [], 140).events[11]!.find(({ kind }) => kind === 'crossing')!;
    expect(quicker.neededMs).toBeCloseTo(67 * 1.4, 9);
  });

  test('a ceiling that density sets is the highest tempo below which every crossing has its time', () => {
    for (const [name, line, planes] of [
      ['sawing on two strings', 'D4 A4 D4 A4 D4 A4 D4 A4', 'DADADADA'],
      ['rolling over three', 'D4:0.5 A4:0.5 E5:0.5 A4:0.5 D4:0.5 A4:0.5 E5:0.5 A4:0.5', 'DAEADAEA'],
      ['a crossing after a pause', 'D4:2 A4:0.5 D4:0.5 A4:0.5 D4:0.5 A4:4', 'DADADA'],
    ] as const)
      for (const lilt of ['straight', 'dotted']) {
        const on = [...planes].map((place): Plane => [place as 'D']);
        const at = (bpm: number) => check(line, on, [], bpm, DEFAULT_SCHOOLS, lilt);
        const { ceilingBpm } = at(109).ceiling!;
        const stands = (bpm: number) => at(bpm).headroom.every((room) => room === null || room >= 1 - 1e-9);
        expect([name, lilt, stands(ceilingBpm * 1.0001)]).toEqual([name, lilt, false]);
        for (let bpm = 30; bpm < ceilingBpm; bpm += 1.7) expect([name, bpm, stands(bpm)]).toEqual([name, bpm, true]);
      }
  });

  test('graces, slides and turns need time of the note that carries them', () => {
    const plain = tune([part('A', 'D4 E4 F#4:2')]);
    const marked = {
      ...plain,
      parts: plain.parts.map((own) => ({
        ...own,
        events: own.events.map((event) =>
          event.id === 'A2' && event.kind === 'note'
            ? { ...event, graceNotes: [event.pitch, event.pitch] }
            : event.id === 'A3' && event.kind === 'note'
              ? { ...event, marks: ['slide', 'turn'] as const }
              : event,
        ),
      })),
    };
    const { events } = checked(marked, [['D'], ['D'], ['D']], 109, DEFAULT_SCHOOLS);
    const need = (index: number, kind: EventKind) => events[index]!.find((event) => event.kind === kind)!.neededMs;
    expect(need(1, 'grace')).toBe(2 * 45);
    expect(need(2, 'slide')).toBe(80);
    expect(need(2, 'turn')).toBe(GUESSED_LIMITS.shortRollMs);
  });

  test('where the bow stops for a turn, a crossing has half the note before', () => {
    const stopping = check('D4 A4', [['D'], ['A']], [], 109, { ...DEFAULT_SCHOOLS, turn: 'stop' });
    const merged = check('D4 A4', [['D'], ['A']], []);
    const crossing = (found: typeof merged) => found.events[1]!.find(({ kind }) => kind === 'crossing')!;
    expect(crossing(stopping).availableMs).toBeCloseTo(crossing(merged).availableMs / 2, 9);
    expect(crossing(stopping).neededMs).toBe(crossing(merged).neededMs);
  });

  test('off the string a skip needs no less than a retake, in a slur it is as before', () => {
    const off: Schools = { ...DEFAULT_SCHOOLS, skips: 'off-string' };
    const needs = (links: [string, Link][], schools?: Schools) =>
      check('F5 F#4', [['A'], ['G']], links, 109, schools).events[1]!.find(({ kind }) => kind === 'crossing')!.neededMs;
    // Over one string 102 ms of its own, but 120 to be lifted.
    expect(needs([])).toBeCloseTo(101.6, 1);
    expect(needs([], off)).toBe(120);
    expect(needs([['A2', 'slur']], off)).toBe(needs([['A2', 'slur']]));
    const slowHands = limitsWith({ retakeMs: { value: 200, source: 'measured' } });
    expect(crossingNeeds({ turnDegrees: 17.7, skips: 1, inSlur: false }, slowHands, 'off-string')).toBe(200);
  });

  test('a rest between gives a crossing more time', () => {
    const plain = check('D4 z A4 D4', [['D'], ['A'], ['D']], []);
    expect(plain.events[1]!.find(({ kind }) => kind === 'crossing')!.availableMs).toBeCloseTo(2 * 137.615, 1);
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
