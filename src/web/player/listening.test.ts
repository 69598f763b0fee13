import { reportTune } from '#core/report';
import { part, tune } from '../../core/testing/tunes';
import { comparedReport, comparisonsOf } from './comparisons';
import { readListenSettings, writeListenSettings } from './listenSettings';
import { barsAround, loopedWords, passStart, spanOf } from './spans';
import { tapTempo } from './tapTempo';

const report = reportTune(tune([part('A', 'D4 E4 F#4 G4'), part('B', 'A4:2 B4:2')], { form: ['A', 'A', 'B', 'A'] }));

describe('what is played', () => {
  test('without a loop from the chosen note on the pass in view to the end', () => {
    expect(spanOf(report, ['A3'], {}, false)).toEqual({ from: 2, to: 14 });
    expect(spanOf(report, ['A3'], { A: 2 }, false)).toEqual({ from: 6, to: 14 });
    expect(spanOf(report, ['A3'], { A: 3 }, false)).toEqual({ from: 12, to: 14 });
  });

  test('the whole from its first note, and with nothing chosen', () => {
    expect(spanOf(report, ['A1'], {}, false)).toBeNull();
    expect(spanOf(report, [], {}, false)).toBeNull();
    expect(spanOf(report, ['gone'], {}, true)).toBeNull();
  });

  test('a loop of several notes is just them, over parts too where they follow each other; of one it is its time through the part', () => {
    expect(spanOf(report, ['A2', 'A3'], { A: 2 }, true)).toEqual({ from: 5, to: 7 });
    expect(spanOf(report, ['A3', 'A4', 'B1'], { A: 2 }, true)).toEqual({ from: 6, to: 9 });
    expect(spanOf(report, ['A3', 'A4', 'B1'], { A: 3 }, true)).toBeNull();
    expect(spanOf(report, ['A3'], { A: 2 }, true)).toEqual({ from: 4, to: 8 });
    expect(spanOf(report, [], {}, true)).toBeNull();
  });

  test('what is tried is heard in its bars and the next, or at the beginning', () => {
    const four = reportTune(tune([part('A', 'D4:8 | E4:8 | F#4:8 | G4:8 | A4:8 | B4:8')], { form: ['A', 'A'] }));
    expect(barsAround(four, ['A2'], {})).toEqual({ from: 1, to: 3 });
    expect(barsAround(four, ['A2', 'A3'], { A: 2 })).toEqual({ from: 7, to: 10 });
    expect(barsAround(four, ['A6'], {})).toEqual({ from: 5, to: 6 });
    expect(barsAround(four, [], {})).toEqual({ from: 0, to: 4 });
  });

  test('a loop says what it would play', () => {
    expect(loopedWords(report, ['A2', 'A3'], {})).toBe('bar 1 of A');
    expect(loopedWords(report, ['B1'], {})).toBe('part B');
    expect(loopedWords(report, [], {})).toBe('the whole tune');
  });

  test('a pass begins with its first note', () => {
    expect([passStart(report, 'A', 2), passStart(report, 'B', 1), passStart(report, 'C', 1)]).toEqual([4, 8, null]);
  });
});

describe('tapping', () => {
  test('three taps and more give their mean tempo', () => {
    const tap = tapTempo();
    expect([0, 600, 1200].map(tap)).toEqual([null, null, 100]);
    expect(tap(1700)).toBeCloseTo(180000 / 1700, 9);
  });

  test('a pause begins anew, and only the last taps count', () => {
    const tap = tapTempo();
    [0, 1000, 2000].map(tap);
    expect(tap(6000)).toBeNull();
    const times = Array.from({ length: 12 }, (_, i) => 6500 + 500 * i);
    expect(times.map(tap).at(-1)).toBeCloseTo(120, 9);
  });
});

describe('how it is listened to', () => {
  beforeEach(() => localStorage.clear());

  test('is kept in the browser', () => {
    const settings = { ...readListenSettings(), loop: true, climb: 4, layers: ['melody' as const] };
    writeListenSettings(settings);
    expect(readListenSettings()).toEqual(settings);
  });

  test.each(['', 'nonsense', '{"layers":["trumpet"]}', '{"loop":true}'])(
    '%p in its place is as if nothing were kept',
    (kept) => {
      const usual = readListenSettings();
      localStorage.setItem('morrin.listen', kept);
      expect(readListenSettings()).toEqual(usual);
    },
  );
});

describe('by turns with another way', () => {
  const pulsed = reportTune({
    ...report.tune,
    parts: report.tune.parts.map((item) => ({
      ...item,
      events: item.events.map((event) =>
        event.kind === 'note' && event.id === 'A1' ? { ...event, marks: ['pulse' as const] } : event,
      ),
    })),
  });

  test('lilts other than its own, patterns, and pulses where it has some', () => {
    const keys = comparisonsOf(report).map(({ key }) => key);
    expect(keys).toContain('lilt:dotted');
    expect(keys).not.toContain('lilt:straight');
    expect(keys).not.toContain('pulse:other');
    expect(comparisonsOf(pulsed).map(({ key }) => key)).toContain('pulse:other');
  });

  test('each gives a plan that differs as it says, and the tune stays', () => {
    expect(comparedReport(report, 'lilt:dotted')!.timing.durations).not.toEqual(report.timing.durations);
    expect(comparedReport(report, 'pattern:pair-first-shuffle')!.tune).not.toBe(report.tune);
    expect(comparedReport(pulsed, 'pulse:other')!.settings.schools.pulse).not.toBe(pulsed.settings.schools.pulse);
    expect(comparedReport(report, 'lilt:gone')).toBeNull();
    expect(comparedReport(report, 'what')).toBeNull();
    for (const { key } of comparisonsOf(pulsed)) expect(comparedReport(pulsed, key)).not.toBeNull();
  });
});
