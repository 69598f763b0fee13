import { FREE_HAND } from '#core/fingering';
import { GUESSED_LIMITS, limitsWith, type TimedEvent } from '#core/tempo';
import type { NoteEvent, NoteMark, Tune } from '#core/tune';
import { part, tune } from '../testing/tunes';
import { type Gain, linkEditsOf } from './mend';
import { mendTune } from './mendTune';
import { reportTune } from './report';
import { droneSceneOf, handOf, ornamentSceneOf } from './scenes';

/** At 120 half notes a minute a whole note lasts a second, an eighth 125 ms. */
const BPM = 120;
const EIGHTH = 125;

function withNotes(t: Tune, change: (note: NoteEvent) => Partial<NoteEvent>): Tune {
  return {
    ...t,
    parts: t.parts.map((p) => ({
      ...p,
      events: p.events.map((e) => (e.kind === 'note' ? { ...e, ...change(e) } : e)),
    })),
  };
}

function eventsAt(t: Tune, index: number): Partial<Record<TimedEvent['kind'], readonly [number, number]>> {
  const { events } = reportTune(t, { bpm: BPM }).figures.check;
  return Object.fromEntries(events[index]!.map(({ kind, availableMs, neededMs }) => [kind, [availableMs, neededMs]]));
}

const marked = (line: string, id: string, mark: NoteMark) =>
  withNotes(tune([part('A', line)]), (note) => (note.id === id ? { marks: [mark] } : {}));

describe('what the hand needs time for', () => {
  test('a hop has the shorter of the two notes and a rest between, and needs 110 ms', () => {
    expect(eventsAt(tune([part('A', 'F#4:2 C5')]), 1).hop).toEqual([EIGHTH, GUESSED_LIMITS.hopMs]);
    expect(eventsAt(tune([part('A', 'F#4:2 z C5')]), 1).hop).toEqual([2 * EIGHTH, GUESSED_LIMITS.hopMs]);
    expect(eventsAt(tune([part('A', 'F#4 C#5')]), 1)).toMatchObject({ barre: [EIGHTH, GUESSED_LIMITS.barreMs] });
    expect(eventsAt(tune([part('A', 'F#4 C#5')]), 1).hop).toBeUndefined();
    expect(eventsAt(tune([part('A', 'F#4 G4')]), 1).hop).toBeUndefined();
  });

  test('one finger laid across both strings is no hop', () => {
    expect(eventsAt(marked('E4 B4', 'A2', 'barre'), 1).hop).toBeUndefined();
  });

  test('a shift has the note before and a rest, and needs 120 ms and one for each millimetre', () => {
    const t = withNotes(tune([part('A', 'F#5 A5:4')]), ({ id }) => (id === 'A2' ? { position: 3 } : {}));
    const mm = 328 * (2 ** (-2 / 12) - 2 ** (-5 / 12));
    const [available, needed] = eventsAt(t, 1).shift!;
    expect(available).toBe(EIGHTH);
    expect(needed).toBeCloseTo(GUESSED_LIMITS.shiftMs + mm, 9);
  });

  test('a retake has half the note before and a rest, and needs 120 ms', () => {
    const retaken = (line: string, id: string) =>
      withNotes(tune([part('A', line)]), (note) => (note.id === id ? { link: 'retake' } : {}));
    expect(eventsAt(retaken('D4:2 D4', 'A2'), 1).retake).toEqual([EIGHTH, GUESSED_LIMITS.retakeMs]);
    expect(eventsAt(retaken('D4 z D4', 'A3'), 1).retake).toEqual([1.5 * EIGHTH, GUESSED_LIMITS.retakeMs]);
  });

  test.each([
    ['cut', 'B4:2', 'cut', 2 * EIGHTH, GUESSED_LIMITS.cutMs],
    ['flick', 'B4', 'flick', EIGHTH, GUESSED_LIMITS.flickMs],
    ['pulse', 'B4:2', 'pulse', 2 * EIGHTH, GUESSED_LIMITS.pulseMs],
    ['roll', 'B4:2', 'short-roll', 2 * EIGHTH, GUESSED_LIMITS.shortRollMs],
    ['roll', 'B4:3', 'long-roll', 3 * EIGHTH, GUESSED_LIMITS.longRollMs],
    ['bowed-triplet', 'B4:2', 'bowed-triplet', (2 * EIGHTH) / 3, GUESSED_LIMITS.tripletStrokeMs],
    // A longer note gives a bowed triplet no more than two running notes.
    ['bowed-triplet', 'B4:6', 'bowed-triplet', (2 * EIGHTH) / 3, GUESSED_LIMITS.tripletStrokeMs],
  ] as const)('a %s on %s is held against its limit as a %s', (mark, line, kind, available, needed) => {
    const [has, needs] = eventsAt(marked(`${line} D4`, 'A1', mark), 0)[kind]!;
    expect(has).toBeCloseTo(available, 9);
    expect(needs).toBe(needed);
  });

  test('marks that take no time of their own have no event', () => {
    for (const mark of ['snap', 'staccato', 'vibrato', 'accent'] as const)
      expect(Object.keys(eventsAt(marked('B4:2 D4', 'A1', mark), 0))).toEqual(['stroke']);
  });
});

describe('their findings and mends', () => {
  const found = (t: Tune, code: string, bpm = BPM) =>
    reportTune(t, { bpm }).findings.find((finding) => finding.code === code);

  test('a finger without time to be laid across is mended by lying there already, and the event goes', () => {
    const limits = limitsWith({ barreMs: { value: 300, source: 'measured' } });
    const t = tune([part('A', 'E4 B4 E4 B4 D4:2')]);
    const report = reportTune(t, { bpm: BPM, limits });
    const finding = report.findings.find(({ code }) => code === 'hop-too-fast')!;
    const barre = finding.mends.find(({ deed }) => deed === 'barre')!;
    const after = mendTune(t, barre, finding);
    expect(eventsAt(after, 1).barre).toBeUndefined();
    expect(reportTune(after, { bpm: BPM, limits }).figures.check.ceiling?.ceilingBpm ?? null).toBe(barre.ceilingBpm);
  });

  test('a shift without time is mended by another fingering where one lifts the place', () => {
    const t = withNotes(tune([part('A', 'D5 E5:0.5 A5:0.5 B5 A5')]), ({ id }) =>
      id === 'A3' ? { position: 5, place: 'A' } : {},
    );
    const finding = found(t, 'shift-too-fast')!;
    const mend = finding.mends.find(({ deed }) => deed === 'refinger')!;
    const { bpm } = mend.gain as Extract<Gain, { of: 'spot' }>;
    expect(bpm === null || bpm > (finding as { standsTo: number }).standsTo).toBe(true);
    expect(found(mendTune(t, mend, finding), 'shift-too-fast')?.ids ?? []).not.toEqual(finding.ids);
  });

  test('an ornament without time is left off', () => {
    const t = marked('B4 D4 E4 D4', 'A1', 'roll');
    const finding = found(t, 'ornament-too-fast')!;
    expect(finding).toMatchObject({ event: 'short-roll', availableMs: EIGHTH });
    expect(mendTune(t, finding.mends[0]!, finding).parts[0]!.events[1]).not.toHaveProperty('marks.0');
  });

  test('a bowed triplet in a slur is given strokes of its own on both sides', () => {
    const t = marked('(D4 E4:2 F#4) D4', 'A2', 'bowed-triplet');
    const finding = found(t, 'ornament-misfits', 60)!;
    const split = finding.mends.find(({ deed }) => deed === 'split')!;
    expect(linkEditsOf(split).map(({ id, link }) => `${id} ${link}`)).toEqual(['A2 change', 'A3 change']);
    expect(found(mendTune(t, split, finding), 'ornament-misfits', 60)).toBeUndefined();
  });

  test('a slide without room is pressed in instead', () => {
    const t = marked('C#5 D5 A4:4', 'A2', 'slide');
    const finding = found(t, 'ornament-misfits')!;
    expect(finding.mends[0]!.deed).toBe('press-in');
    const after = mendTune(t, finding.mends[0]!, finding);
    expect(after.parts[0]!.events[2]).toMatchObject({ marks: ['pressed-in'] });
    expect(found(after, 'ornament-misfits')).toBeUndefined();
  });

  test('a drone a second away that does not resolve grates; on the other string it is a fourth', () => {
    const t = withNotes(tune([part('A', 'G4:4 G4:4')]), ({ id }) => (id === 'A1' ? { drone: 'upper' } : {}));
    const finding = found(t, 'drone-grates')!;
    expect(finding).toMatchObject({ drone: 'A4', interval: 'major second', ids: ['A1'] });
    const after = mendTune(t, finding.mends[0]!, finding);
    expect(after.parts[0]!.events[1]).toMatchObject({ drone: 'lower' });
    expect(found(after, 'drone-grates')).toBeUndefined();
  });

  test('a finger kept from the hand that a pin asks for is told, and the pin stays', () => {
    const t = withNotes(tune([part('A', 'A4 E5')]), ({ id }) => (id === 'A1' ? { finger: 4, place: 'D' } : {}));
    const hand = { ...FREE_HAND, bans: [{ finger: 4 as const, place: null, reason: 'pain' as const }] };
    const report = reportTune(t, { hand });
    expect(report.findings.find(({ code }) => code === 'hand-forbids')).toMatchObject({
      ids: ['A1'],
      severity: 'problem',
    });
    expect(report.fingers.get('A1')).toMatchObject({ place: 'D', finger: 4 });
  });
});

test('scenes of a report are counted once and kept with it', () => {
  const report = reportTune(tune([part('A', 'D4 E4 F#4')]));
  expect(handOf(report)).toBe(handOf(report));
  expect(ornamentSceneOf(report).drones).toBe(droneSceneOf(report));
  expect(handOf(report)).toHaveLength(3);
});
