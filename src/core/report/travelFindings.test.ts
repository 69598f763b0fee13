import { setBowLengths, setLinks } from '#core/bowing';
import { instrumentWith } from '#core/instrument';
import { DEFAULT_SCHOOLS, type Schools } from '#core/schools';
import { type Tune, writtenNotes } from '#core/tune';
import { note, part, randomTune, tune } from '../testing/tunes';
import type { Finding } from './finding';
import { type Gain, linkEditsOf } from './mend';
import { mendTune } from './mendTune';
import { reportTune, type TuneReport } from './report';

function finding<C extends Finding['code']>(report: TuneReport, code: C): Extract<Finding, { code: C }> | undefined {
  return report.findings.find((candidate) => candidate.code === code) as Extract<Finding, { code: C }> | undefined;
}

describe('hair', () => {
  test('a pattern that creeps at even speed is no finding: the hair is shared out', () => {
    const jig = tune([part('A', '(D4 E4) F#4 (G4 A4) B4 | (A4 G4) F#4 (E4 D4) E4')], {
      form: ['A', 'A', 'A', 'A'],
      meter: { num: 6, den: 8 },
      danceType: 'jig',
    });
    const report = reportTune(jig);
    const { hairCm } = report.settings.instrument;
    expect(report.figures.travel.some(({ bowEndCm }) => bowEndCm > hairCm || bowEndCm < 0)).toBe(true);
    for (const { fromCm, toCm } of report.sharedStrokes())
      for (const at of [fromCm, toCm]) expect(at >= 0 && at <= hairCm).toBe(true);
    expect(report.findings.filter(({ code }) => ['runs-out-of-hair', 'window-left', 'jerk'].includes(code))).toEqual(
      [],
    );
  });

  test('a stroke that lasts longer than the slowest bow over all the hair runs out, and a split mends it', () => {
    const held = tune([part('A', 'D4:8 | (D4:8 | E4:8) | D4:8')], { tempoBpm: 16 });
    const report = reportTune(held);
    const found = finding(report, 'runs-out-of-hair')!;
    // Two whole notes of 7.5 s at 5 cm a second.
    expect(found).toMatchObject({ cause: 'slow', seconds: 15, cm: 75, hairCm: 63, severity: 'problem' });
    const [split] = found.mends;
    expect(finding(reportTune(mendTune(held, split!, found)), 'runs-out-of-hair')).toBeUndefined();
  });

  test('a stroke that is wished longer than the hair runs out however the hair is shared', () => {
    const wished = setBowLengths(tune([part('A', 'D4:8 | E4:8')], { tempoBpm: 20 }), new Map([['A1', 2.5]]));
    const found = finding(reportTune(wished), 'runs-out-of-hair')!;
    expect(found.cause).toBe('asked');
    const less = found.mends.find(({ deed }) => deed === 'less-bow')!;
    expect(finding(reportTune(mendTune(wished, less, found)), 'runs-out-of-hair')).toBeUndefined();
  });
});

describe('the working window', () => {
  // Long down-bows and short up-bows: the hand begins by the frog and ends far out, though the hair would do.
  const drifting = tune([part('A', Array.from({ length: 16 }, () => 'D4:7 E4').join(' | '))], { start: 'down' });

  test('strokes that stay far out are told with how many and how far', () => {
    const found = finding(reportTune(drifting), 'window-left')!;
    expect(['tip', 'frog']).toContain(found.end);
    expect(found.share).toBeGreaterThan(0.25);
    expect(found.cm).toBeGreaterThan(0);
  });

  test('a mend leaves as many strokes outside as it says', () => {
    const report = reportTune(drifting);
    const found = finding(report, 'window-left')!;
    expect(found.mends.length).toBeGreaterThan(0);
    for (const mend of found.mends) {
      const after = reportTune(mendTune(drifting, mend, found));
      const { instrument } = after.settings;
      const outside = after
        .sharedStrokes()
        .filter(
          ({ fromCm, toCm }) => Math.abs((fromCm + toCm) / 2 - instrument.sweetSpotCm) > instrument.windowHalfCm,
        ).length;
      expect(mend.gain).toEqual({ of: 'outside', left: outside });
      expect(after.figures.ledger.comesRound).toBe(mend.comesRound);
    }
  });

  test('even strokes about the sweet spot are not told', () => {
    const even = tune([part('A', 'D4 E4 F#4 G4 A4 B4 A4 F#4')], { form: ['A', 'A'] });
    expect(finding(reportTune(even), 'window-left')).toBeUndefined();
  });
});

describe('jerks', () => {
  const even = tune([part('A', 'D4 E4 F#4 G4 A4 B4 A4 F#4')], { start: 'down' });
  const cut = setBowLengths(even, new Map([['A4', 0.4]]));
  /** A long wish on little hair, so that a later stroke must hurry. */
  const hurried = setBowLengths(
    tune([part('A', 'D4:0.5 E4 F#4:6 G4:0.5 D4:2 E4:2 F#4:4 G4:6')], { start: 'down', tempoBpm: 70 }),
    new Map([['A3', 2.5]]),
  );
  const options = { instrument: instrumentWith({ hairCm: 20 }) };

  test('a stroke much quicker than its neighbour is told with both speeds', () => {
    const found = finding(reportTune(hurried, options), 'jerk')!;
    expect(Math.max(found.from, found.to) / Math.min(found.from, found.to)).toBeGreaterThan(2.2);
  });

  test('what the rhythm asks is none: long and short strokes by turns go over the same hair', () => {
    for (const line of ['D4:7 E4 F#4:7 G4 A4:7 B4 A4:7 F#4', 'D4:1.5 E4:0.5 F#4:1.5 G4:0.5 A4:1.5 B4:0.5 A4:2'])
      expect(finding(reportTune(tune([part('A', line)], { start: 'down', tempoBpm: 70 })), 'jerk')).toBeUndefined();
  });

  test('a length that the player wishes is meant, and so is an accent', () => {
    expect(finding(reportTune(cut), 'jerk')).toBeUndefined();
    const found = finding(reportTune(hurried, options), 'jerk')!;
    const accent = found.mends.find(({ deed }) => deed === 'accent') ?? found.mends[0]!;
    const left = finding(reportTune(mendTune(hurried, accent, found), options), 'jerk');
    expect(left?.spot).not.toEqual(found.spot);
  });

  test('what the three-and-one wants is no jerk', () => {
    const threes = tune([part('A', '(D4 E4 F#4) G4 (A4 B4 A4) F#4 | (D4 E4 F#4) G4 (A4 B4 A4) F#4')], {
      start: 'down',
      tempoBpm: 60,
    });
    expect(finding(reportTune(threes), 'jerk')).toBeUndefined();
  });
});

describe('planes', () => {
  // Between the open D and A strings: fifths, fourths, sixths and thirds with the open neighbour.
  const rocking = tune([part('A', 'D4 A4 D4 A4 F#4 A4 F#4 A4 | E4:8')], { start: 'down', form: ['A', 'A'] });

  test('where both open strings agree the bow may stay on the pair, and its crossings go', () => {
    const report = reportTune(rocking);
    const found = finding(report, 'one-plane')!;
    expect(found.pair).toBe('D and A');
    expect(found.crossings).toBe(8);
    const [mend] = found.mends;
    const after = reportTune(mendTune(rocking, mend!, found));
    expect(after.figures.arm.sums.adjacent).toBeLessThan(report.figures.arm.sums.adjacent);
    expect(report.figures.arm.sums.armDegrees - after.figures.arm.sums.armDegrees).toBeCloseTo(
      (mend!.gain as Extract<Gain, { of: 'arm' }>).degreesSaved,
      9,
    );
    expect(after.figures.check.ceiling?.ceilingBpm ?? null).toBe(mend!.ceilingBpm);
    expect(finding(after, 'one-plane')).toBeUndefined();
  });

  test('a second with the open string is no reason to stay', () => {
    const seconds = tune([part('A', 'G4 A4 G4 A4 G4 A4 G4 A4')], { start: 'down' });
    expect(finding(reportTune(seconds), 'one-plane')).toBeUndefined();
  });

  test('on the string a skip may sound, off the string it is no matter', () => {
    const skipping = tune([part('A', 'D4 E5 D4 E5')], { start: 'down' });
    expect(finding(reportTune(skipping), 'skip-may-sound')).toMatchObject({ from: 'D', to: 'E', others: 2 });
    const off = reportTune(skipping, { schools: { ...DEFAULT_SCHOOLS, skips: 'off-string' } });
    expect(finding(off, 'skip-may-sound')).toBeUndefined();
    const slurred = setLinks(
      skipping,
      new Map([
        ['A2', 'slur'],
        ['A3', 'slur'],
        ['A4', 'slur'],
      ]),
    );
    expect(finding(reportTune(slurred), 'skip-may-sound')).toBeUndefined();
  });
});

test('a mend’s promised figures are those of the report after it is made, whatever the finding', () => {
  const counts = new Map<string, number>();
  for (let seed = 1; seed <= 60; seed++) {
    const played = seed % 3 === 0 ? withLocks(randomTune(seed), seed) : randomTune(seed);
    const bpm = seed % 2 ? 109 : 240;
    const schools: Schools = { ...DEFAULT_SCHOOLS, ovals: 'lower-down' };
    const report = reportTune(played, { bpm, schools });
    for (const found of report.findings)
      for (const mend of found.mends) {
        if (mend.deed === 'slower') continue;
        const after = reportTune(mendTune(played, mend, found), { bpm, schools });
        const { ledger, check } = after.figures;
        expect({
          seed,
          code: found.code,
          deed: mend.deed,
          comesRound: ledger.comesRound,
          flippedParts: ledger.flippedParts,
          ceiling: rounded(check.ceiling?.ceilingBpm ?? null),
        }).toEqual({
          seed,
          code: found.code,
          deed: mend.deed,
          comesRound: mend.comesRound,
          flippedParts: mend.flippedParts,
          ceiling: rounded(mend.ceilingBpm),
        });
        counts.set(found.code, (counts.get(found.code) ?? 0) + 1);
      }
  }
  for (const code of ['part-flips', 'skip-may-sound', 'crossing-too-fast', 'lock-contradicted'])
    expect([code, (counts.get(code) ?? 0) > 5]).toEqual([code, true]);
});

const rounded = (bpm: number | null) => bpm && Math.round(bpm * 1e6) / 1e6;

function withLocks(played: Tune, seed: number): Tune {
  return {
    ...played,
    parts: played.parts.map((item) => ({
      ...item,
      events: item.events.map((event, i) =>
        event.kind === 'note' && (i + seed) % 7 === 0
          ? note(event.id, 'A4', 1, { ...event, lock: i % 2 ? 'up' : 'down' })
          : event,
      ),
    })),
  };
}

test('a stroke of thousands of notes is split about its middle, and no more places than a few are tried', () => {
  const line = Array.from({ length: 500 }, () => 'D4 E4 F#4 G4 A4 B4 C#5 D5').join(' | ');
  const plain = tune([part('A', line)]);
  const slurred = setLinks(
    plain,
    new Map(
      writtenNotes(plain)
        .slice(1)
        .map(({ id }) => [id, 'slur' as const]),
    ),
  );
  let tried = 0;
  const report = reportTune(slurred);
  const finding = report.findings.find(({ code }) => code === 'runs-out-of-hair')!;
  for (const mend of finding.mends)
    for (const { id } of linkEditsOf(mend)) {
      tried += 1;
      const at = writtenNotes(slurred).findIndex((note) => note.id === id);
      expect(Math.abs(at - 2000)).toBeLessThan(30);
    }
  expect(tried).toBeGreaterThan(0);
});
