import { hertzOf } from '#core/pitch';
import { reportTune } from '#core/report';
import { choosePlace, mistakeAt, placesOf, simulate, type SimulateOptions } from '#core/simulatedPlayer';
import { takeReel } from '../testing/takeTrials';
import { checkInBlocks, expectedOf, type MistakeKind, RATE, type TakeCheck } from '.';
import { median } from './measure';
import { pitchNear } from './pitchOf';
import { Resampler } from './resample';
import { tempoCurve } from './tempoCurve';

const report = reportTune(takeReel(), { bpm: 76 });
const SPAN = { from: 0, to: 48 };

function check(
  options: SimulateOptions,
  sampleRate = 22050,
): TakeCheck & { truth: ReturnType<typeof simulate>['truth'] } {
  const { samples, truth } = simulate(report, { span: SPAN, sampleRate, signalToNoise: 30, room: 0.2, ...options });
  const steps = checkInBlocks(samples, expectedOf(report, { span: SPAN, loops: options.loops }), {
    sampleRate,
    bpm: report.settings.bpm,
  });
  let step = steps.next();
  while (!step.done) step = steps.next();
  return { ...step.value, truth };
}

const clean = check({ player: 'steady', seed: 3 });

test('a steady take is clean, every note of it is heard, at the tempo that was played', () => {
  expect(clean.findings).toEqual([]);
  expect(clean.clean).toBe(true);
  expect(clean.figures.heardNotes).toBe(48);
  expect(clean.figures.tempo.bpm! / report.settings.bpm).toBeCloseTo(1, 1);
  expect(Math.abs(clean.figures.tempo.driftPercentPerMinute!)).toBeLessThan(4);
});

test('beginnings and pitches are those that were played', () => {
  const off = clean.heard.notes.map((one, i) => Math.abs(one.onset - clean.truth.notes[i]!.onset!));
  const cents = clean.heard.notes.map((one, i) => Math.abs(one.cents - clean.truth.notes[i]!.cents));
  expect(1000 * median(off)).toBeLessThan(8);
  expect(Math.max(...off)).toBeLessThan(0.025);
  expect(median(cents)).toBeLessThan(5);
  expect(Math.max(...cents)).toBeLessThan(15);
});

test('the same take gives the same figures, whatever the size of its blocks', () => {
  expect(check({ player: 'steady', seed: 3 }).heard.notes.map(({ onset }) => onset)).toEqual(
    clean.heard.notes.map(({ onset }) => onset),
  );
});

const ON_NOTES: readonly MistakeKind[] = [
  'sharp',
  'flat',
  'wrong-note',
  'left-out',
  'added-note',
  'late-finger',
  'scratch',
];

test.each(ON_NOTES)('%s is found where it was made, and nothing else is told', (kind) => {
  const index = choosePlace(report, kind, 5, { from: 8, to: 40 })!;
  const { findings } = check({ player: 'steady', seed: 7, mistakes: [mistakeAt(kind, index)] });
  expect(findings.map(({ code }) => code)).toEqual([kind]);
  expect(Math.abs(findings[0]!.notes[0]! - index)).toBeLessThanOrEqual(1);
});

test('a stumble with a new start is told with the notes that were played again, and what follows is in its place', () => {
  const { findings, heard, truth } = check({ player: 'plain', seed: 2, mistakes: [mistakeAt('started-again', 24)] });
  expect(findings.find(({ code }) => code === 'started-again')).toMatchObject({ figure: 4, unit: 'notes' });
  for (const [i, one] of heard.notes.entries()) expect(Math.abs(one.onset - truth.notes[i]!.onset!)).toBeLessThan(0.06);
});

test('a tempo that falls by a fifth is a drift and no mistake, and no note is lost', () => {
  const { figures, findings } = check({ player: 'steady', seed: 4, driftPercent: 20 });
  expect(figures.heardNotes).toBe(48);
  expect(figures.tempo.driftPercentPerMinute!).toBeLessThan(-20);
  expect(findings).toEqual([]);
});

test('three times round are three takes of each note', () => {
  const { heard, figures } = check({ player: 'steady', seed: 5, loops: 3 });
  expect(figures.heardNotes).toBe(3 * 48);
  expect([...new Set(heard.notes.map(({ note }) => note.loop))]).toEqual([0, 1, 2]);
});

test('of silence and of noise nothing is heard, and it is not clean', () => {
  for (const samples of [
    new Float32Array(RATE * 4),
    Float32Array.from({ length: RATE * 4 }, (_, i) => 0.1 * Math.sin(i * i)),
  ]) {
    const steps = checkInBlocks(samples, expectedOf(report, { span: SPAN }), { sampleRate: RATE, bpm: 100 });
    let step = steps.next();
    while (!step.done) step = steps.next();
    expect(step.value.figures.heardNotes).toBeLessThan(6);
    expect(step.value.clean).toBe(false);
  }
});

test('a mistake that cannot be made anywhere has no place', () => {
  expect(placesOf(report, 'narrow-vibrato')).toEqual([]);
  expect(choosePlace(report, 'narrow-vibrato', 1)).toBeNull();
});

test.each([8000, 22050, 44100, 48000, 96000])('a tone at %i samples a second keeps its pitch and its level', (rate) => {
  const tone = Float32Array.from({ length: rate }, (_, n) => 0.5 * Math.sin((2 * Math.PI * 660 * n) / rate));
  const resampler = new Resampler(rate);
  const blocks = Array.from({ length: Math.ceil(rate / 777) }, (_, k) =>
    resampler.push(tone.subarray(k * 777, (k + 1) * 777)),
  );
  const all = [...blocks, resampler.end()].flatMap((block) => [...block]);
  expect(all.length / RATE).toBeCloseTo(1, 2);
  const middle = Float32Array.from(all.slice(RATE / 4, (3 * RATE) / 4));
  const rms = Math.sqrt(middle.reduce((sum, x) => sum + x * x, 0) / middle.length);
  expect(rms).toBeCloseTo(0.5 / Math.SQRT2, 2);
  expect(Math.abs(pitchNear(middle, 660, [], { from: 0.05, to: 0.4 })!.cents)).toBeLessThan(0.5);
});

test('what lies above half the rate is not heard as something lower', () => {
  const tone = Float32Array.from({ length: 96000 }, (_, n) => Math.sin((2 * Math.PI * 20000 * n) / 96000));
  const out = new Resampler(96000).push(tone).subarray(200);
  expect(Math.max(...out.map(Math.abs))).toBeLessThan(0.01);
});

test('a pitch is measured to the cent beside a string that sounds with it', () => {
  const [own, other] = [hertzOf(76 + 0.12), hertzOf(69)];
  const wave = (hertz: number, n: number) =>
    [1, 2, 3, 4, 5, 6].reduce((sum, k) => sum + Math.sin((2 * Math.PI * k * hertz * n) / RATE) / k, 0);
  const samples = Float32Array.from({ length: RATE / 2 }, (_, n) => 0.1 * (wave(own, n) + wave(other, n)));
  expect(pitchNear(samples, hertzOf(76), [other], { from: 0, to: 0.4 })!.cents).toBeCloseTo(12, 0);
  expect(pitchNear(samples, hertzOf(81), [hertzOf(69)], { from: 0, to: 0.4 })!.isShared).toBe(true);
});

test('the player’s own time is a line through the neighbours, whatever one note does', () => {
  const notes = Array.from({ length: 30 }, (_, i) => ({
    at: i / 4,
    onset: 1 + (1.1 * i) / 4 + (i === 14 ? 0.08 : 0),
    run: 0,
  }));
  const curve = tempoCurve(notes);
  expect(curve[14]!.own).toBeCloseTo(1 + (1.1 * 14) / 4, 6);
  expect(curve[13]!.slower).toBeCloseTo(1.1, 6);
  expect(tempoCurve(notes.slice(0, 3)).every(({ own }) => Number.isNaN(own))).toBe(true);
});
