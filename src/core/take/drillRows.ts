import type { DrillKind } from '#core/drills';
import { bowFindings } from './bowFindings';
import type { TakeFinding } from './finding';
import { decibels, envelope, median } from './measure';
import { type FigureUnit, MISTAKE_KINDS, type MistakeKind, type Thresholds } from './mistakes';
import { distinctPartials, envelopeOf, tracksOf } from './partials';
import { pitchFindings } from './pitchFindings';
import { pitchNear } from './pitchOf';
import type { TakeScene } from './scene';
import { secondFindings } from './secondFindings';
import { lineThrough } from './tempoCurve';
import { entryFindings } from './timeFindings';

/** A figure that a drill is about, over a whole take of it. */
export interface DrillRow {
  readonly name: DrillRowName;
  readonly value: number;
  readonly unit: FigureUnit | 's' | 'perSecond' | 'dBPerSecond' | 'hertz';
  /** How often it was measured. */
  readonly count: number;
}
export type DrillRowName =
  MistakeKind | 'unbroken-pair' | 'unison-beats' | 'fifth-apart' | 'fade-slope' | 'vibrato-rate' | 'pulse-rise';

/** By which mistake's figure a drill is measured: the worst of all its notes. */
const MEASURED_BY: Partial<Record<DrillKind, readonly MistakeKind[]>> = {
  'no-bump': ['bumped-drone'],
  'pair-plane': ['dropped-second'],
  'turn-in-silence': ['rushed-turn'],
  'skipped-string': ['skipped-string-sounds'],
  'early-arm': ['skipped-string-sounds'],
  'finger-before-bow': ['late-finger'],
  hop: ['late-finger'],
  flick: ['flick-became-note'],
  'bowed-triplet': ['uneven-triplet'],
  pulse: ['pulse-stayed'],
  'closing-swell': ['dropped-second'],
  staccato: ['staccato-runs-together'],
  vibrato: ['narrow-vibrato'],
  'tone-match': ['sharp', 'flat'],
  shift: ['sharp', 'flat'],
  'stretch-pair': ['sharp', 'flat'],
  'falling-run': ['late-finger'],
  'start-place': ['scratch'],
  'bow-amount': ['scratch'],
};

const STEP = 0.01;
const WINDOW = 0.04;
/** Both strings sound while the softer is within so many dB of the louder. */
const TOGETHER = 24;

/** Every figure is told: no threshold is passed over. */
const ALL_TOLD = (thresholds: Thresholds) =>
  Object.fromEntries(
    MISTAKE_KINDS.map((kind) => [
      kind,
      { ...thresholds[kind], value: thresholds[kind].isLeast ? Infinity : -Infinity },
    ]),
  ) as unknown as Thresholds;

/** What a take of a drill comes to, in the drill's own figures; a figure that was not heard has no row. */
export function drillRows(kind: DrillKind, scene: TakeScene): DrillRow[] {
  return [...worstOf(kind, scene), ...(OWN_ROWS[kind]?.(scene) ?? [])];
}

function worstOf(kind: DrillKind, scene: TakeScene): DrillRow[] {
  const codes = MEASURED_BY[kind] ?? [];
  if (codes.length === 0) return [];
  const open = { ...scene, thresholds: ALL_TOLD(scene.thresholds) };
  const all: readonly TakeFinding[] = [
    ...pitchFindings(open),
    ...bowFindings(open),
    ...secondFindings(open),
    ...entryFindings(open),
  ];
  return codes.flatMap((code) => {
    const figures = all.filter((one) => one.code === code).map(({ figure }) => figure);
    if (figures.length === 0) return [];
    const { unit, isLeast } = scene.thresholds[code];
    const value = isLeast ? Math.min(...figures) : Math.max(0, ...figures);
    return [{ name: code, value, unit, count: figures.length }];
  });
}

type OwnRow = (scene: TakeScene) => DrillRow[];

const OWN_ROWS: Partial<Record<DrillKind, OwnRow>> = {
  'pair-plane': (scene) => [unbrokenPair(scene)],
  'no-bump': (scene) => [unbrokenPair(scene)],
  'doubling-approach': unisonBeats,
  'one-finger-across': fifthApart,
  fade: fadeSlope,
  pulse: pulseRise,
  vibrato: vibratoRate,
};

/** The longest stretch in which two strings sounded together without a break, s. */
function unbrokenPair({ samples, heard }: TakeScene): DrillRow {
  let [longest, now, count, last] = [0, 0, 0, -1];
  for (const one of heard.notes) {
    const { note, onset, soundsUntil } = one;
    if (!one.heard || note.secondHertz === null || soundsUntil - onset < 0.1) continue;
    const [second, own] = [
      distinctPartials(note.secondHertz, [note.hertz]),
      distinctPartials(note.hertz, [note.secondHertz]),
    ];
    if (second.length === 0 || own.length === 0) continue;
    const span = { from: onset, to: soundsUntil, step: STEP, window: WINDOW };
    const [low, high] = [
      envelopeOf(tracksOf(samples, note.secondHertz, second, span)),
      envelopeOf(tracksOf(samples, note.hertz, own, span)),
    ];
    count += 1;
    if (onset - last > 0.1) now = 0;
    for (let i = 0; i < low.length; i++) {
      now = Math.abs(decibels(low[i]! / Math.max(1e-9, high[i]!))) < TOGETHER ? now + STEP : 0;
      longest = Math.max(longest, now);
    }
    last = soundsUntil;
  }
  return { name: 'unbroken-pair', value: longest, unit: 's', count };
}

/** Beats a second of a doubled pitch: the ups and downs of its level. */
function unisonBeats({ samples, heard }: TakeScene): DrillRow[] {
  const rates = heard.notes.flatMap(({ heard: isHeard, note, onset, soundsUntil }) => {
    const isUnison = note.secondHertz !== null && Math.abs(Math.log2(note.secondHertz / note.hertz)) < 0.03;
    if (!isHeard || !isUnison || soundsUntil - onset < 0.6) return [];
    const span = { from: onset + 0.12, to: soundsUntil - 0.08, step: STEP, window: 0.03 };
    const level = envelope(samples, note.hertz, [], span);
    const middle = median(level);
    let crossings = 0;
    for (let i = 1; i < level.length; i++) if (level[i - 1]! < middle !== level[i]! < middle) crossings += 1;
    return [crossings / 2 / (span.to - span.from)];
  });
  return rates.length > 0
    ? [{ name: 'unison-beats', value: median(rates), unit: 'perSecond', count: rates.length }]
    : [];
}

/** How far apart the two pitches under one finger are, beyond a fifth as the strings are tuned, cents. */
function fifthApart({ samples, heard }: TakeScene): DrillRow[] {
  const apart = heard.notes.flatMap(({ heard: isHeard, note, pitch, onset, soundsUntil }) => {
    if (!isHeard || note.secondHertz === null || note.secondIsOpen || pitch === null) return [];
    const other = pitchNear(samples, note.secondHertz, [note.hertz], { from: onset, to: soundsUntil });
    return other === null || other.isShared ? [] : [Math.abs(pitch.cents - other.cents)];
  });
  return apart.length > 0
    ? [{ name: 'fifth-apart', value: Math.max(...apart), unit: 'cents', count: apart.length }]
    : [];
}

/** How evenly notes that fade go down, dB a second. */
function fadeSlope({ samples, heard }: TakeScene): DrillRow[] {
  const slopes = heard.notes.flatMap(({ heard: isHeard, note, onset, soundsUntil }) => {
    if (!isHeard || !note.marks.includes('fade') || soundsUntil - onset < 0.4) return [];
    const span = { from: onset + 0.1, to: soundsUntil - 0.05, step: STEP, window: WINDOW };
    const level = envelope(samples, note.hertz, [], span);
    return [lineThrough([...level].map((value, i) => ({ x: i * STEP, y: decibels(value) }))).slope];
  });
  return slopes.length > 0
    ? [{ name: 'fade-slope', value: median(slopes), unit: 'dBPerSecond', count: slopes.length }]
    : [];
}

/** How far pulses rise, dB: the middle of the note against its beginning. */
function pulseRise({ samples, heard }: TakeScene): DrillRow[] {
  const rises = heard.notes.flatMap(({ heard: isHeard, note, onset, soundsUntil }) => {
    const length = soundsUntil - onset;
    if (!isHeard || !note.marks.includes('pulse') || length < 0.18) return [];
    const level = (from: number, to: number) =>
      median(
        envelope(samples, note.hertz, [], {
          from: onset + from * length,
          to: onset + to * length,
          step: STEP / 2,
          window: 0.018,
        }),
      );
    return [decibels(level(0.4, 0.6) / level(0.12, 0.25))];
  });
  return rises.length > 0 ? [{ name: 'pulse-rise', value: median(rises), unit: 'dB', count: rises.length }] : [];
}

/** How quickly the finger shakes, Hz: the pitch's crossings of its own middle. */
function vibratoRate({ heard }: TakeScene): DrillRow[] {
  const rates = heard.notes.flatMap(({ heard: isHeard, note, pitch, onset }) => {
    if (!isHeard || pitch === null || pitch.isShared || !note.marks.some((mark) => mark.startsWith('vibrato')))
      return [];
    const late = pitch.curve.filter(({ time }) => time > onset + 0.3);
    if (late.length < 20) return [];
    const middle = median(late.map(({ cents }) => cents));
    let crossings = 0;
    for (let i = 1; i < late.length; i++) if (late[i - 1]!.cents < middle !== late[i]!.cents < middle) crossings += 1;
    return [crossings / 2 / (late[late.length - 1]!.time - late[0]!.time)];
  });
  return rates.length > 0 ? [{ name: 'vibrato-rate', value: median(rates), unit: 'hertz', count: rates.length }] : [];
}
