import { reportTune } from '#core/report';
import { mistakeAt, placesOf, simulate, type SimulateOptions } from '#core/simulatedPlayer';
import { marked, takeReel } from '../testing/takeTrials';
import {
  checkInBlocks,
  type CheckOptions,
  DEFAULT_THRESHOLDS as thresholds,
  expectedOf,
  Listener,
  type MistakeKind,
  type TakeCheck,
} from '.';

const RATE = 22050;
const plain = reportTune(takeReel(), { bpm: 84 });
const full = reportTune(marked(takeReel()), { bpm: 84 });
const SPAN = { from: 0, to: 40 };
const COUNT = full.unrolled.notes.length;

/** A place for a mistake, with a span of thirty notes about it. */
function around(kind: MistakeKind) {
  const places = placesOf(full, kind);
  const index = places.find((i) => i > 6) ?? places[0]!;
  const from = Math.max(0, Math.min(COUNT - 30, index - 8));
  return { index, span: { from, to: from + 30 } };
}

function check(
  report: typeof plain,
  options: SimulateOptions,
  { a4, ...more }: CheckOptions & { readonly a4?: number } = {},
): TakeCheck {
  const { samples } = simulate(report, {
    sampleRate: RATE,
    signalToNoise: 32,
    room: 0.15,
    player: 'steady',
    ...options,
  });
  const expected = expectedOf(report, { span: options.span ?? null, ...(a4 !== undefined && { a4 }) });
  const steps = checkInBlocks(samples, expected, { sampleRate: RATE, bpm: report.settings.bpm, ...more });
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

test('the end of a loop is heard within a fifth of a second, and not before', () => {
  const span = { from: 0, to: 24 };
  const { samples, truth } = simulate(plain, { span, sampleRate: RATE, signalToNoise: 32, player: 'steady', seed: 6 });
  const end = truth.notes[23]!.end!;
  const listener = new Listener(expectedOf(plain, { span }), { sampleRate: RATE });
  let over: number | null = null;
  // Silence goes on after it, as it does in a room.
  const all = new Float32Array(samples.length + RATE);
  all.set(samples);
  const block = RATE / 50;
  for (let at = 0; at < all.length && over === null; at += block) {
    listener.push(all.subarray(at, at + block));
    if (listener.isOver) over = (at + block) / RATE;
  }
  expect(over! - end).toBeGreaterThan(-0.05);
  expect(over! - end).toBeLessThan(0.2);
});

const TUNED: readonly MistakeKind[] = ['wrong-note', 'added-note', 'skipped-string-sounds', 'sharp'];

test.each(TUNED)('on a fiddle tuned to 415 Hz, listened to at 415 Hz, %s is told and nothing else', (kind) => {
  const { index, span } = around(kind);
  const mistakes = [mistakeAt(kind, index)];
  const { findings } = check(full, { span, a4: 415, mistakes, seed: 2 }, { a4: 415 });
  expect(findings.map(({ code }) => code)).toEqual([kind]);
});

test('listened to at another pitch than it is tuned to, every stopped and open note is off by the same', () => {
  const { heard } = check(plain, { span: SPAN, a4: 442, seed: 3 });
  const off = heard.notes.filter((one) => one.heard).map(({ cents }) => cents);
  const expected = 1200 * Math.log2(442 / 440);
  expect(off.length).toBeGreaterThan(36);
  for (const cents of off) expect(Math.abs(cents - expected)).toBeLessThan(8);
});

test('a pass left out is told with its notes, whichever of two equal passes it was', () => {
  const [, second] = plain.unrolled.passes;
  const { findings } = check(plain, { mistakes: [mistakeAt('wrong-pass', second!.firstNote)], seed: 4 });
  const told = findings.filter(({ code }) => code === 'wrong-pass');
  expect(told.map(({ figure }) => figure)).toEqual([second!.endNote - second!.firstNote]);
});

test('two notes left out and one note wrong stay where they are', () => {
  const mistakes = [mistakeAt('left-out', 9), mistakeAt('left-out', 19), mistakeAt('wrong-note', 28)];
  const { findings } = check(plain, { span: SPAN, mistakes, seed: 8 });
  expect(findings.map(({ code, notes }) => [code, notes[0]])).toEqual([
    ['left-out', 9],
    ['left-out', 19],
    ['wrong-note', 28],
  ]);
});

test('a higher threshold passes over what a lower one tells', () => {
  const index = placesOf(plain, 'sharp').find((i) => i > 6)!;
  const told = (value: number) =>
    check(
      plain,
      { span: SPAN, mistakes: [mistakeAt('sharp', index)], seed: 2 },
      { thresholds: { ...thresholds, sharp: { value, unit: 'cents' } } },
    ).findings.map(({ code }) => code);
  expect(told(15)).toEqual(['sharp']);
  expect(told(40)).toEqual([]);
});

const DRILLS = [
  ['no-bump', 'bumped-drone', 'dB'],
  ['pair-plane', 'dropped-second', 'percent'],
  ['finger-before-bow', 'late-finger', 'ms'],
  ['skipped-string', 'skipped-string-sounds', 'ms'],
  ['pulse', 'pulse-stayed', 'dB'],
  ['bowed-triplet', 'uneven-triplet', 'percent'],
  ['turn-in-silence', 'rushed-turn', 'percent'],
] as const;

test.each(DRILLS)(
  'a take of the drill %s comes to its own figure, %s, larger where it is done badly',
  (drill, kind) => {
    const { index, span } = around(kind);
    const row = (mistakes: SimulateOptions['mistakes']) =>
      check(full, { span, ...(mistakes && { mistakes }), seed: 5 }, { drill }).rows.find(({ name }) => name === kind);
    const well = row([])?.value ?? 0;
    const badly = row([mistakeAt(kind, index)])!;
    expect(badly.value).toBeGreaterThan(well + 0.5 * mistakeAt(kind, index).size * 0.5);
    expect(badly.count).toBeGreaterThan(0);
  },
);

test('how long both strings sounded together without a break is told in seconds', () => {
  const { index, span } = around('dropped-second');
  const longest = (mistakes: SimulateOptions['mistakes']) =>
    check(full, { span, ...(mistakes && { mistakes }), seed: 5 }, { drill: 'pair-plane' }).rows.find(
      ({ name }) => name === 'unbroken-pair',
    )!.value;
  expect(longest([])).toBeGreaterThan(0.2);
  expect(longest([mistakeAt('dropped-second', index)])).toBeLessThan(longest([]));
});
