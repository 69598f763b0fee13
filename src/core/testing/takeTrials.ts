import { seeded } from '#core/base';
import { reportTune, type TuneReport } from '#core/report';
import { type Mistake, mistakeAt, placesOf, PLAYER_NAMES, simulate } from '#core/simulatedPlayer';
import {
  checkInBlocks,
  expectedOf,
  MISTAKE_KINDS,
  type MistakeKind,
  type TakeCheck,
  type TakeFinding,
} from '#core/take';
import type { NoteEvent, NoteMark, Tune } from '#core/tune';
import { part, tune } from './tunes';

/** A reel for takes: on all strings, with slurs, rests between phrases and strings passed over. */
export function takeReel(more: Partial<Tune> = {}): Tune {
  return tune(
    [
      part(
        'A',
        'D4:2 F#4 A4 (B4 A4) F#4 A4 | d5:2 e5 d5 (B4 A4) F#4 E4 | G4 B4 d5 B4 A4:2 z:2 | F#4 A4 d5 F#5 (e5 d5) B4 A4 | ' +
          'B3 D4 G3:2 (A3 B3) D4 E4 | F#4:2 D5 A4 (G4 F#4) E4 D4 | E4 F#5 e5 c#5 A4:2 z:2 | d5 B4 A4 F#4 D4:4',
      ),
      part(
        'B',
        'F#5:2 d5 F#5 (e5 d5) B4 d5 | A4 F#4 d5 F#4 e5:2 z:2 | G3 B3 D4 G4 (B4 A4) G4 B4 | A4:2 F#4 A4 d5:2 z:2 | ' +
          'F#5 e5 d5 B4 (A4 F#4) E4 F#4 | G4:2 e5 G4 (F#4 E4) D4 B3 | A3 C#4 E4 A4 c#5:2 z:2 | d5 A4 F#4 E4 D4:4',
      ),
    ],
    more,
  );
}

/** Lengths, seconds, of notes that get a mark or a drone in a marked version. */
const LONG = { vibrato: 0.6, drone: 0.28, mark: 0.19 } as const;
const CYCLE: readonly NoteMark[] = ['pulse', 'staccato', 'flick', 'bowed-triplet'];

/** A tune with marks and drones by rule, so that there is everything to hear. */
export function marked(plain: Tune): Tune {
  const { unrolled, timing, fingers } = reportTune(plain);
  const seconds = new Map(
    unrolled.notes.map(({ note }, i) => [note.id, (timing.onsets[i + 1] ?? timing.total) - timing.onsets[i]!]),
  );
  let count = 0;
  const withMark = (note: NoteEvent): NoteEvent => {
    if (note.marks?.length || note.graceNotes?.length || note.tie || note.drone || note.stops) return note;
    const length = seconds.get(note.id) ?? 0;
    count += 1;
    if (length >= LONG.vibrato && count % 2 === 1) return { ...note, marks: ['vibrato'] };
    if (length >= LONG.drone && count % 3 === 0)
      return { ...note, drone: fingers.get(note.id)?.place === 'G' ? 'upper' : 'lower' };
    return length >= LONG.mark && count % 2 === 1 ? { ...note, marks: [CYCLE[(count >> 1) % 4]!] } : note;
  };
  return {
    ...plain,
    parts: plain.parts.map((one) => ({
      ...one,
      events: one.events.map((event) => (event.kind === 'note' ? withMark(event) : event)),
    })),
  };
}

/** What came of many takes. */
export interface TakeTally {
  takes: number;
  notes: number;
  heard: number;
  /** Notes heard more than a tenth of a second from where they were. */
  derailed: number;
  readonly onsetMs: number[];
  readonly cents: number[];
  onsetsWithin: number;
  centsWithin: number;
  readonly made: Partial<Record<MistakeKind, number>>;
  readonly found: Partial<Record<MistakeKind, number>>;
  readonly falseAlarms: Partial<Record<MistakeKind, number>>;
}

export interface TakeTrials {
  readonly takes: number;
  /** Signal to noise, dB, lowest and highest. */
  readonly noise: readonly [number, number];
  readonly seed: number;
  /** How often each kind is made, where it can be. */
  readonly share?: number;
  readonly kinds?: readonly MistakeKind[];
  /** Only each so-manieth take, from one on: to share them out. */
  readonly lot?: { readonly first: number; readonly every: number };
}

const LONGEST_NOTES = 90;
const LEAST_NOTES = 50;
/** Mistakes are so many notes apart, so that one is not told for another. */
const APART = 7;
/** Notes of a take before and after a mistake; a tempo needs something to be compared with, and a stretch. */
const WITHIN = { before: 4, after: 4 } as const;
const STRETCH = { before: 12, after: 14 } as const;
/** So much of a threshold is a mistake of the player's own. */
const OWN = 0.8;
const SAMPLE_RATE = 44100;
const ALL = { first: 0, every: 1 } as const;

/** What came of takes of tunes in turn, at tempos from practice to dance, of all players, in rooms up to 0.4 s, with seeded mistakes. */
export function takeTrials(tunes: readonly Tune[], trials: TakeTrials): TakeTally {
  const tally: TakeTally = {
    takes: 0,
    notes: 0,
    heard: 0,
    derailed: 0,
    onsetMs: [],
    cents: [],
    onsetsWithin: 0,
    centsWithin: 0,
    made: {},
    found: {},
    falseAlarms: {},
  };
  for (const played of playedTakes(tunes, trials)) {
    tally.takes += 1;
    countTake(tally, checkPlayed(played), played);
  }
  return tally;
}

/** A take of a span of a plan, with the mistakes that were made in it. */
export interface PlayedTake {
  readonly report: TuneReport;
  readonly span: { readonly from: number; readonly to: number };
  readonly mistakes: readonly Mistake[];
  readonly samples: Float32Array;
  readonly truth: Truth;
}

/** The takes of a trial, one after the other. */
export function* playedTakes(
  tunes: readonly Tune[],
  { takes, noise, seed, share = 0.3, kinds = MISTAKE_KINDS, lot = ALL }: TakeTrials,
): Generator<PlayedTake, void> {
  for (let n = lot.first; n < takes; n += lot.every) {
    const random = seeded(seed * 100_003 + n);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
    const plain = tunes[n % tunes.length]!;
    const version = n % 3 === 0 ? plain : marked(plain);
    const report = reportTune(version, { bpm: reportTune(version).settings.bpm * (0.55 + 0.45 * random()) });
    const count = report.unrolled.notes.length;
    const length = Math.min(count, LEAST_NOTES + Math.floor(random() * (LONGEST_NOTES - LEAST_NOTES)));
    const from = Math.floor(random() * (count - length + 1));
    const chosen = { from, to: from + length };
    const mistakes = chooseMistakes(report, chosen, kinds, () => random() < share, pick);
    const span = mistakes.some(({ kind }) => kind === 'wrong-pass') ? toPassEnd(report, chosen) : chosen;
    const { samples, truth } = simulate(report, {
      span,
      mistakes,
      player: pick(PLAYER_NAMES),
      room: 0.4 * random(),
      signalToNoise: noise[0] + (noise[1] - noise[0]) * random(),
      driftPercent: pick([0, 0, 0, 5, 20]),
      seed: seed * 7919 + n,
      sampleRate: SAMPLE_RATE,
    });
    yield { report, span, mistakes, samples, truth };
  }
}

/** What is heard of it. */
export function checkPlayed({ report, span, samples }: PlayedTake): TakeCheck {
  const steps = checkInBlocks(samples, expectedOf(report, { span }), {
    sampleRate: SAMPLE_RATE,
    bpm: report.settings.bpm,
  });
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

/** Of equal passes one that is left out is told only by those that remain, so a span with one ends where a pass does. */
function toPassEnd({ unrolled: { passes } }: TuneReport, { from, to }: PlayedTake['span']): PlayedTake['span'] {
  return { from, to: passes.find(({ endNote }) => endNote >= to)?.endNote ?? to };
}

function chooseMistakes(
  report: TuneReport,
  { from, to }: { readonly from: number; readonly to: number },
  kinds: readonly MistakeKind[],
  isMade: () => boolean,
  pick: <T>(list: readonly T[]) => T,
): Mistake[] {
  const mistakes: Mistake[] = [];
  const has = (...some: readonly MistakeKind[]) => mistakes.some(({ kind }) => some.includes(kind));
  // Rare ones choose their places first.
  const order = [...kinds].filter(isMade).sort((a, b) => placesOf(report, a).length - placesOf(report, b).length);
  for (const kind of order) {
    if ((kind === 'rushing' || kind === 'dragging') && has('rushing', 'dragging')) continue;
    // Another pass moves everything after it: it is made by itself.
    if (kind === 'wrong-pass' && mistakes.length > 0) continue;
    if (has('wrong-pass')) break;
    const room = kind === 'started-again' ? APART + 4 : APART;
    const { before, after } = kind === 'rushing' || kind === 'dragging' ? STRETCH : WITHIN;
    const places = placesOf(report, kind).filter(
      (i) => i >= from + before && i < to - after && mistakes.every(({ index }) => Math.abs(index - i) >= room),
    );
    if (places.length > 0) mistakes.push(mistakeAt(kind, pick(places)));
  }
  return mistakes;
}

/** How near its place a kind must be told: a tempo lies over a stretch, a new start over what is played again, and equal passes are not told apart. */
const NEAR: Partial<Record<MistakeKind, number>> = {
  rushing: 14,
  dragging: 14,
  'started-again': 6,
  'wrong-pass': Infinity,
};
const DERAILED_MS = 100;

type Truth = ReturnType<typeof simulate>['truth'];

function countTake(tally: TakeTally, check: TakeCheck, take: PlayedTake): void {
  countNotes(tally, check, take);
  const { told, missed, invented } = judged(check, take);
  for (const { kind } of [...told, ...missed]) tally.made[kind] = (tally.made[kind] ?? 0) + 1;
  for (const { kind } of told) tally.found[kind] = (tally.found[kind] ?? 0) + 1;
  for (const { code } of invented) tally.falseAlarms[code] = (tally.falseAlarms[code] ?? 0) + 1;
}

function countNotes(tally: TakeTally, { heard }: TakeCheck, { report, truth, mistakes }: PlayedTake): void {
  const played = new Map(truth.notes.map((note) => [note.index, note]));
  // Of equal passes it is not told which one was played: a note is in its place where its like is heard.
  const nameOf = (index: number) => report.unrolled.notes[index]!.note.id;
  const heardAt = new Map<string, number[]>();
  for (const { heard: isHeard, note, onset } of heard.notes)
    if (isHeard) heardAt.set(nameOf(note.index), [...(heardAt.get(nameOf(note.index)) ?? []), onset]);
  for (const { index, onset, played: wasPlayed } of truth.notes) {
    if (!wasPlayed) continue;
    const offs = heardAt.get(nameOf(index))?.map((at) => 1000 * Math.abs(at - onset!)) ?? [];
    tally.notes += 1;
    tally.heard += offs.length > 0 ? 1 : 0;
    tally.derailed += offs.length > 0 && Math.min(...offs) > DERAILED_MS ? 1 : 0;
  }
  const isBeside = (index: number) => mistakes.some((mistake) => Math.abs(mistake.index - index) <= 1);
  for (const one of heard.notes) {
    const { onset, cents, played: wasPlayed } = played.get(one.note.index)!;
    if (!wasPlayed || !one.heard) continue;
    const off = 1000 * (one.onset - onset!);
    if (Math.abs(off) > DERAILED_MS || isBeside(one.note.index)) continue;
    tally.onsetMs.push(Math.abs(off));
    if (Math.abs(off) <= one.onsetUncertaintyMs) tally.onsetsWithin += 1;
    const isPlain = one.otherCents === null && one.note.marks.length === 0 && !one.note.hasGesture;
    if (!isPlain || one.pitch?.isShared !== false) continue;
    tally.cents.push(Math.abs(one.cents - cents));
    if (Math.abs(one.cents - cents) <= one.centsUncertainty) tally.centsWithin += 1;
  }
}

/** Which of the mistakes made were told and which not, and which findings are of no mistake. */
export function judged({ findings }: TakeCheck, take: PlayedTake) {
  const told: Mistake[] = [];
  const missed: Mistake[] = [];
  const known = new Set<TakeFinding>();
  for (const mistake of take.mistakes) {
    const near = NEAR[mistake.kind] ?? 1;
    const isOf = ({ code, notes }: TakeFinding) =>
      code === mistake.kind && notes.some((i) => Math.abs(i - mistake.index) <= near);
    const found = findings.filter(isOf);
    (found.length > 0 ? told : missed).push(mistake);
    for (const one of found) known.add(one);
  }
  const invented = findings.filter((one) => !known.has(one) && ownShare(one, take) < OWN);
  return { told, missed, invented };
}

/** How much of a finding's threshold the player really did without any mistake asked for. */
function ownShare({ code, notes, threshold }: TakeFinding, { truth, report }: PlayedTake): number {
  const played = truth.notes.flatMap(({ index, onset, cents }) => (onset === null ? [] : [{ index, onset, cents }]));
  if (code === 'sharp' || code === 'flat') {
    const cents = played.find(({ index }) => index === notes[0])?.cents ?? 0;
    return (code === 'sharp' ? cents : -cents) / threshold;
  }
  if (code !== 'rushing' && code !== 'dragging') return 0;
  // By what is known to have been played, in the stretch and outside of it.
  const at = (index: number) => report.timing.onsets[index]!;
  const isIn = (index: number) => notes.includes(index) && notes.includes(index + 1);
  const slower = (inside: boolean) => {
    const ratios = played.flatMap(({ index, onset }, i) => {
      const next = played[i + 1];
      return next?.index === index + 1 && isIn(index) === inside
        ? [(next.onset - onset) / (at(next.index) - at(index))]
        : [];
    });
    return ratios.toSorted((a, b) => a - b)[ratios.length >> 1] ?? NaN;
  };
  const percent = 100 * (slower(true) / slower(false) - 1);
  return (code === 'dragging' ? percent : -percent) / threshold;
}
