import { droneLine } from '#core/drones';
import { searchFingering } from '#core/fingering';
import { harmonyOf } from '#core/harmony';
import { midiOf } from '#core/pitch';
import { droneSceneOf, reportTune, type TuneReport } from '#core/report';
import { adoptBowing, DEFAULT_WISHES, proposeBowings } from '#core/search';
import { type DanceType, type NoteEvent, type RestEvent, type Tune, writtenBars } from '#core/tune';
import { readAbc } from '#formats/abc';
import { PLAIN_TUNES } from '../core/testing/plainTunes';
import { cases, some } from '../core/testing/share';

const read = readAbc(PLAIN_TUNES).tunes;
const reports = read.map(({ tune }) => reportTune(tune));

/**
 * Ceilings of plain tunes in single strokes, in each dance's own beat. None lies below the slow end of its band, since such
 * tunes are danced to; none lies where nobody plays: 85 ms a stroke are eighths of a reel at 176, of a jig at 235.
 */
const CEILINGS: Partial<Record<DanceType, readonly [number, number]>> = {
  reel: [105, 180],
  jig: [150, 240],
  'slip jig': [150, 240],
  hornpipe: [80, 180],
  strathspey: [119, 180],
  polka: [128, 360],
  slide: [133, 240],
  march: [94, 360],
  waltz: [110, 400],
  air: [76, 400],
  hoedown: [90, 180],
};

test('sixty tunes are read without a message', () => {
  expect(read).toHaveLength(60);
  for (const { tune, messages } of read) expect([tune.title, messages]).toEqual([tune.title, []]);
});

test('ceilings are where players of each dance find them', () => {
  for (const { tune, figures } of reports) {
    const [low, high] = CEILINGS[tune.danceType!]!;
    const { ceilingBpm } = figures.check.ceiling!;
    expect([tune.title, ceilingBpm >= low && ceilingBpm <= high]).toEqual([tune.title, true]);
  }
});

test('plain tunes but for hoedowns that leap stand at the middle of their band', () => {
  for (const { tune, figures, settings } of reports)
    if (tune.danceType !== 'hoedown')
      expect([tune.title, figures.check.ceiling!.ceilingBpm >= settings.bpm]).toEqual([tune.title, true]);
});

test('the only problems of plain tunes are strokes that do not come round, and places above their ceiling', () => {
  for (const { tune, findings, figures, settings } of reports) {
    const problems = findings.filter(({ severity }) => severity === 'problem').map(({ code }) => code);
    const isPressed = figures.check.ceiling!.ceilingBpm < settings.bpm;
    const told = ['part-flips', 'tune-flips-again', ...(isPressed ? ['crossing-too-fast'] : [])];
    expect([tune.title, problems.filter((code) => !told.includes(code))]).toEqual([tune.title, []]);
    expect(findings.filter(({ severity }) => severity === 'note').length).toBeLessThanOrEqual(3);
  }
});

test('three strings sawed by skips at 130 do not stand, nor does a slur over a skipped string at 109', () => {
  const of = (bars: string, tempo: string) =>
    reportTune(readAbc(`X:1\nT:T\nR:reel\nM:4/4\nL:1/8\nQ:1/2=${tempo}\nK:D\n|:${bars}:|\n`).tunes[0]!.tune).figures
      .check.ceiling!.ceilingBpm;
  expect(of('DAeD AeDA|DAeD AeDA', '130')).toBeLessThan(130);
  expect(of('(eD)FA d2fd|ABAF D4', '109')).toBeLessThan(109);
});

const barsOf = (tune: Tune) => [...writtenBars(tune).values()].flat();
const shape = (events: readonly (NoteEvent | RestEvent)[]) =>
  events.flatMap((event, i) => (event.kind === 'note' && i > 0 ? [event.link] : [])).join(' ');

test('proposed bowings keep equal bars alike, tuplets whole, and begin most bars down', () => {
  let [equal, alike, bars, down] = [0, 0, 0, 0];
  // Too few would tell nothing of a share: every fourth at least.
  for (const report of reports.filter((_, i) => i % (cases(4) === 4 ? 1 : 4) === 0))
    for (const found of proposeBowings(report, DEFAULT_WISHES, 3)) {
      const adopted = adoptBowing(report.tune, found);
      const { unrolled, figures } = reportTune(adopted);
      const shapes = new Map<string, string>();
      for (const { events } of barsOf(adopted)) {
        const music = JSON.stringify(events.map((event) => [event.duration, event.kind === 'note' && event.pitch]));
        if (shapes.has(music)) {
          equal += 1;
          if (shapes.get(music) === shape(events)) alike += 1;
        } else shapes.set(music, shape(events));
        for (const event of events)
          if (event.kind === 'note' && event.tuplet && !event.tuplet.first) expect(event.link).not.toBe('change');
      }
      for (const { index, bar, beat } of unrolled.notes)
        if (bar > 0 && beat === 1 && report.tune.danceType !== 'waltz' && report.tune.danceType !== 'air') {
          bars += 1;
          if (figures.bowed[index]!.bow === 'down') down += 1;
        }
    }
  expect(alike / equal).toBeGreaterThanOrEqual(0.85);
  expect(down / bars).toBeGreaterThanOrEqual(0.7);
});

test('fingered afresh no finger slides, and nothing leaves first position without need', () => {
  for (const { tune, unrolled, settings } of some(reports, 5)) {
    const { notes } = searchFingering(tune, unrolled, settings.hand, settings.instrument);
    let before: { place: string; finger: number; semitones: number } | null = null;
    for (const { note } of unrolled.notes) {
      const [top] = notes.get(note.id)!.chord;
      const slides =
        before !== null && before.place === top!.place && before.finger === top!.finger && top!.finger > 0
          ? Math.abs(before.semitones - top!.semitones)
          : 0;
      expect([tune.title, slides <= 1]).toEqual([tune.title, true]);
      before = top!;
    }
  }
});

/** Whether the drones of a line belong to the chords that the backing plays. */
function inChord(report: TuneReport): [number, number] {
  const { tune, unrolled, settings } = report;
  const spans = harmonyOf(tune, unrolled, settings.beat);
  let [all, fitting] = [0, 0];
  const { choices } = droneLine(droneSceneOf(report), { from: 0, to: unrolled.notes.length }, 'stressed');
  for (const [i, choice] of choices.entries()) {
    if (choice.kind === 'none' || choice.kind === 'stopped') continue;
    all += 1;
    const { n, d } = unrolled.notes[i]!.onset;
    const chord = spans.findLast(({ from }) => from <= n / d + 1e-9)!.chord;
    if ([chord.root, chord.third, chord.fifth].some((tone) => (midiOf(choice.drone.pitch) - tone + 120) % 12 === 0))
      fitting += 1;
  }
  return [all, fitting];
}

test('of the drones on stressed notes nine in ten lie in the chord of the moment', () => {
  let [all, fitting] = [0, 0];
  for (const report of reports) {
    const [a, f] = inChord(report);
    all += a;
    fitting += f;
  }
  expect(all).toBeGreaterThan(500);
  expect(fitting / all).toBeGreaterThanOrEqual(0.9);
});
