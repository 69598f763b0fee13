import type { BeatsPerMinute, Fraction } from '#core/base';
import { type Fingering, type FingerRule, fingerTune, handMoves } from '#core/fingering';
import {
  type Bands,
  beatUnit,
  defaultTempo,
  findLilt,
  type Lilt,
  STRAIGHT,
  type TempoBand,
  tempoBand,
  type Timing,
} from '#core/tempo';
import { type Direction, type NoteEvent, occurrencesOf, type Tune, unroll, type Unrolled } from '#core/tune';
import type { LinkEdit } from './edits';
import {
  type Figures,
  figuresOf,
  notePlanes,
  type ReportSettings,
  type SharedStroke,
  sharedStrokes,
  timesOf,
  tryLinks,
} from './figures';
import type { Finding } from './finding';
import { findFindings } from './findings';
import { defaultSettings, type PlayerSettings } from './settings';

export interface ReportOptions extends Partial<PlayerSettings> {
  /** Dance beats a minute; the tune's own wish or the middle of its dance's band when left out. */
  readonly bpm?: BeatsPerMinute;
  readonly start?: Direction | null;
  readonly fingerRule?: FingerRule;
  /** The tune's own when left out, straight where it has none. */
  readonly lilt?: Lilt;
}

/** A checked plan: what the tune is, what the bow does, and what is the matter with it. */
export interface TuneReport {
  readonly tune: Tune;
  readonly unrolled: Unrolled;
  readonly settings: ReportSettings;
  readonly timing: Timing;
  readonly fingers: ReadonlyMap<string, Fingering>;
  readonly figures: Figures;
  /** The tempos at which such dances are danced. */
  readonly band: TempoBand;
  readonly bars: number;
  readonly square: boolean;
  /** Strokes with the hair shared out; counted when they are first asked for. */
  readonly sharedStrokes: () => readonly SharedStroke[];
  /** Looked for when they are first asked for, mends and all: the figures above are there at once. */
  readonly findings: readonly Finding[];
}

/** Bars of a phrase of a dance; a part, or a run of one part's passes, of whole phrases is square. */
const SQUARE_BARS = 8;

/** The beat of a tune's dance. */
export function danceBeat(tune: Tune): Fraction {
  return beatUnit(tune.danceType, tune.meter);
}

/** The tempo a tune is checked at when no other is asked for. */
export function wishedTempo(tune: Tune, bands?: Bands): BeatsPerMinute {
  return tune.tempoBpm ?? defaultTempo(tune.danceType, bands);
}

/**
 * The whole check of a plan at a tempo.
 * @throws RangeError if the form names a part that does not exist
 * Time O(n log n) for n played notes, plus O(n) for each mend tried.
 */
export function reportTune(tune: Tune, options: ReportOptions = {}): TuneReport {
  const defaults = defaultSettings();
  const settings: ReportSettings = {
    bpm: options.bpm ?? wishedTempo(tune, options.bands),
    beat: danceBeat(tune),
    start: options.start ?? null,
    fingerRule: options.fingerRule ?? 'open',
    limits: options.limits ?? defaults.limits,
    instrument: options.instrument ?? defaults.instrument,
    schools: options.schools ?? defaults.schools,
    hand: options.hand ?? defaults.hand,
    bands: options.bands ?? defaults.bands,
    dottedRatios: options.dottedRatios ?? defaults.dottedRatios,
    lilts: options.lilts ?? defaults.lilts,
    lilt: options.lilt ?? ((tune.lilt && findLilt(tune.lilt, options.lilts)) || STRAIGHT),
  };
  const unrolled = unroll(tune);
  const fingers = fingerTune(tune, unrolled, settings.fingerRule, settings.hand, settings.instrument);
  const moves = handMoves(unrolled.notes, fingers, settings.instrument);
  const planes = notePlanes(unrolled.notes, fingers);
  const times = timesOf(tune, unrolled, settings);
  const figures = figuresOf(tune, unrolled, { planes, moves, times }, settings);
  const occurrences = occurrencesOf(unrolled);
  const attempt = (edits: readonly LinkEdit[], start = settings.start) =>
    tryLinks(tune, withEdits(unrolled, occurrences, edits), figures, {
      times,
      settings: { ...settings, start },
      from: edits.reduce((first, { id }) => Math.min(first, occurrences.get(id)?.[0] ?? 0), unrolled.notes.length),
    });
  let findings: readonly Finding[] | null = null;
  let known: readonly SharedStroke[] | null = null;
  const shared = () => (known ??= sharedStrokes(tune, figures.bowed, times, settings, figures.reach));
  return {
    tune,
    unrolled,
    settings,
    timing: times,
    fingers,
    figures,
    band: tempoBand(tune.danceType, settings.bands),
    bars: unrolled.passes.reduce((sum, pass) => sum + pass.bars, 0),
    square: isSquare(unrolled),
    sharedStrokes: shared,
    get findings() {
      return (findings ??= findFindings({
        tune,
        unrolled,
        fingers,
        figures,
        settings,
        durations: times.durations,
        attempt,
        recompute: (other) => reportTune(other, { ...settings, start: options.start ?? null }),
        shared,
      }));
    },
  };
}

/** The unrolled tune with links edited: cheaper than unrolling again, and equal to it, since no link moves a note. */
function withEdits(
  unrolled: Unrolled,
  occurrences: ReadonlyMap<string, readonly number[]>,
  edits: readonly LinkEdit[],
): Unrolled {
  const notes = unrolled.notes.slice();
  for (const { id, link, pass } of edits) {
    const indices = occurrences.get(id) ?? [];
    const before = indices.length > 0 ? notes[indices[0]!]!.note : null;
    const note: NoteEvent | null =
      before &&
      (pass === null
        ? { ...before, link, linkOnPass: undefined }
        : { ...before, linkOnPass: { ...before.linkOnPass, [pass]: link } });
    if (note) for (const index of indices) notes[index] = { ...notes[index]!, note };
  }
  return { ...unrolled, notes };
}

/** Whether every run of passes of one part is a whole number of eight-bar phrases. */
function isSquare({ passes }: Unrolled): boolean {
  let run = 0;
  return passes.every((pass, i) => {
    run += pass.bars;
    if (passes[i + 1]?.part === pass.part) return true;
    const isWhole = run > 0 && run % SQUARE_BARS === 0;
    run = 0;
    return isWhole;
  });
}
