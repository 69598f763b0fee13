import { toNumber } from '#core/base';
import { gridUnit, joiningLink, linkOnPass, staysInStroke } from '#core/bowing';
import { type Crossing, planeAngle } from '#core/crossing';
import type { TuneReport } from '#core/report';
import {
  crossingGaps,
  crossingHas,
  crossingNeeds,
  densityFactor,
  recentCrossings,
  wholeNoteSeconds,
} from '#core/tempo';
import { bowSpeed, nominalLength, strokeRatio } from '#core/travel';
import { type Direction, type Link, writtenBars } from '#core/tune';
import { type Chain, type Chains, chainsOf } from './chains';
import { idiomOf, type Template, unlike, upBowPoints } from './idioms';
import { COST_WEIGHTS, type CostTerm, DEFAULT_CELL_CM, MILLIONTHS, type StyleWishes } from './wishes';

/** The links that may be chosen, in the order by which ties are broken. */
export const CHOICES = ['change', 'slur', 'hook', 'retake'] as const satisfies readonly Link[];
export type Choice = (typeof CHOICES)[number];

/** Costs by term, in millionths of a point; a term left out costs nothing. */
export type TermCosts = Partial<Record<CostTerm, number>>;

/** Where a stroke lands on the hair, and what that costs. */
export interface Landing {
  readonly cell: number;
  readonly cost: number;
}

/** Everything the search asks about a tune. Costs are whole millionths of a point. */
export interface SearchModel extends Chains {
  readonly report: TuneReport;
  readonly wishes: StyleWishes;
  readonly cells: number;
  /** Ids of the written notes of each chain. */
  readonly ids: readonly (readonly string[])[];
  /** Links that the search may give a note of a chain; its first note always begins a stroke. */
  readonly choicesAt: (chain: number, k: number) => readonly Choice[];
  /** What one playing of a note costs, reached by a link and bowed in a direction. */
  readonly noteTerms: (index: number, link: Choice, bow: Direction) => TermCosts;
  /** What the tempo asks of one playing of a stroke. */
  readonly strokeTerms: (first: number, notes: number) => TermCosts;
  /** The stroke on the hair, from a cell on; the last one of a chain also answers for where it leaves the bow. */
  readonly land: (first: number, notes: number, bow: Direction, cell: number, isLast: boolean) => Landing;
  /** The cell in which the bow is set for a first stroke. */
  readonly home: (bow: Direction) => number;
}

export interface SearchOptions {
  /** Width of a cell of the bow, above 0. */
  readonly cellCm?: number;
  /** The only links that are to be chosen, a turn of the bow among them. */
  readonly choices?: readonly Choice[];
  /** The way of bowing a bar that is kept to; the one most at home in the dance when left out. */
  readonly template?: Template;
}

/** Whole but for rounding: beats of tuplets are not exact. */
const isWhole = (count: number) => Math.abs(count - Math.round(count)) < 1e-6;

/**
 * How much of the way back a stroke takes that would lie off the sweet spot: hair is shared out between keeping each
 * stroke's length and staying about the sweet spot, and this is how far a steady hand goes at each stroke. A guess.
 */
const GIVE = 0.5;
/** The least share of its length to which a stroke is drawn. */
const MIN_LENGTH = 0.4;

type Add = (term: CostTerm, points: number) => void;

/** A note as a bowing joins it. */
interface Joined {
  readonly index: number;
  readonly link: Choice;
  readonly bow: Direction;
}

/**
 * The objective of the search, over the tune as it is played, repeats counted:
 *
 * `Σ notes (strokes + template + likeness + upBow + tuplet + acrossBeat + slurCrossing + reverse + tempo + hook + retake +
 * lock) + Σ strokes (tempo + hair)`, each with its weight of `COST_WEIGHTS`, every term of a note or stroke rounded to a
 * millionth. What one template costs more than another in the dance (`idiom`) is the same for every bowing of a search.
 *
 * Hair: the bow is set at the sweet spot at the head of each chain and at each retake, then each stroke begins where the last
 * one ended, to the nearest cell. A stroke would have its nominal length (`nominalLength`); it gives half of the way by
 * which it would miss the place that centres it on the sweet spot, as a steady hand shares out the hair. It costs the square
 * of what it is stretched, of how far its middle is from the sweet spot and of how much hair it lacks, and the last one of a
 * chain the square of how far from the sweet spot it leaves the bow.
 */
export function searchModel(
  report: TuneReport,
  wishes: StyleWishes,
  { cellCm = DEFAULT_CELL_CM, choices = CHOICES, template }: SearchOptions = {},
): SearchModel {
  const { tune, unrolled, settings, timing, figures } = report;
  const { instrument, limits } = settings;
  const { notes } = unrolled;
  const { durations, rests } = timing;
  const chains = chainsOf(unrolled);
  const idiom = idiomOf(tune);
  const wanted = (template ?? idiom.templates[0]!).links(tune);
  const denominators = new Map(
    [...writtenBars(tune).values()].flat().flatMap(({ events, meter }) => events.map(({ id }) => [id, meter.den])),
  );
  const W = COST_WEIGHTS;
  const whole = (points: number) => Math.round(points * MILLIONTHS);
  const lacking = (availableMs: number, neededMs: number) => Math.max(0, neededMs / availableMs - 1);
  const beat = toNumber(settings.beat);
  const speed = bowSpeed(tune.danceType);
  const cells = Math.floor(instrument.hairCm / cellCm) + 1;
  const cellAt = (cm: number) => Math.min(cells - 1, Math.max(0, Math.round(cm / cellCm)));
  const unitCm = nominalLength(wholeNoteSeconds(settings.bpm, settings.beat) * toNumber(gridUnit(tune)), speed);
  const first = notes[0]?.note;
  const gaps = crossingGaps(figures.arm.crossings, timing.atAnyTempo.played.onsets);
  const wholeSeconds = wholeNoteSeconds(settings.bpm, settings.beat);
  // A tune without a slur or a lock says nothing yet of how it is bowed.
  const isBowed = notes.some(({ note, pass }) => note.lock || !['start', 'change'].includes(linkOnPass(note, pass)));
  const startLock = settings.start ?? tune.start ?? first?.lock ?? null;

  /** What crossing to a note costs: in a slur as a colour, else by the way round, and both by the time there is. */
  const addCrossing = (add: Add, crossing: Crossing, { index, link, bow }: Joined) => {
    const inSlur = link === 'slur';
    if (inSlur) {
      add('slurCrossing', wishes.slurAcrossStrings ? W.slurCrossing : W.slurCrossingUnwanted);
      add('slurCrossing', W.slurSkip * crossing.skips);
    } else if (link === 'change' && notes[index]!.restBefore.n === 0) {
      const turn = planeAngle(crossing.to, instrument) - planeAngle(crossing.from, instrument);
      const lowerIsDown = turn < 0 ? bow === 'down' : bow === 'up';
      const { ovals } = settings.schools;
      if (ovals !== 'no-matter' && lowerIsDown !== (ovals === 'lower-down')) add('reverse', W.reverse);
    }
    const { turnDegrees, skips } = crossing;
    const has = crossingHas(
      { inSlur, turns: link === 'change' },
      durations[index - 1]!,
      durations[index]!,
      rests[index]!,
      settings.schools.turn,
    );
    const needs = crossingNeeds({ turnDegrees, skips, inSlur }, limits, settings.schools.skips);
    add('tempo', W.tempo * lacking(has, needs * densityFactor(recentCrossings(gaps, index, wholeSeconds))));
  };

  /** What a note costs by where it stands: an up-bow on a strong beat, a beat slurred over, a tuplet broken up. */
  const addPlace = (add: Add, { index, link, bow }: Joined) => {
    const { note, beat: at, bar } = notes[index]!;
    const shares = staysInStroke(link);
    if (note.tuplet && !note.tuplet.first && !shares) add('tuplet', W.tuplet);
    if (wishes.downbeat === 'down' && bar > 0 && bow === 'up')
      add('upBow', W.upBow * upBowPoints(idiom, at) * (shares ? 0.5 : 1));
    if (wishes.acrossBeat === 'avoid' && shares && isWhole((at - 1) / (beat * denominators.get(note.id)!)))
      add('acrossBeat', W.acrossBeat);
  };

  const noteTerms = (index: number, link: Choice, bow: Direction): TermCosts => {
    const { note, restBefore, pass } = notes[index]!;
    const terms: TermCosts = {};
    const add = (term: CostTerm, points: number) => {
      if (points !== 0) terms[term] = (terms[term] ?? 0) + whole(points);
    };
    const shares = staysInStroke(link);
    add('strokes', W.strokes * (shares ? 1 - wishes.smooth : wishes.smooth));
    const asked = wanted.get(note.id);
    if (asked !== undefined)
      add('template', W.template * wishes.shuffle * unlike(link, asked === 'start' ? 'change' : asked));
    addPlace(add, { index, link, bow });
    const now = linkOnPass(note, pass);
    if (isBowed && (now === 'start' ? 'change' : now) !== link) add('likeness', W.likeness * wishes.likeness);
    const crossing = figures.arm.crossings[index];
    if (crossing) addCrossing(add, crossing, { index, link, bow });
    if (link === 'hook' && asked !== 'hook') {
      // A hook that the dance asks for costs nothing.
      const earlier = notes[index - 1];
      const hasCause = earlier !== undefined && joiningLink(earlier.note, note, restBefore.n > 0) === 'hook';
      add('hook', hasCause ? W.hook : W.hookWithoutCause);
    }
    if (link === 'retake') {
      add('retake', W.retake);
      const available = index > 0 ? durations[index - 1]! / 2 + rests[index]! : Infinity;
      add('tempo', W.tempo * lacking(1000 * available, limits.retakeMs.value));
    }
    const lock = index === 0 ? startLock : (note.lock ?? null);
    if (lock !== null && lock !== bow) add('lock', W.lock);
    return terms;
  };

  const durationOf = (from: number, count: number) => {
    let sum = 0;
    for (let i = from; i < from + count; i++) sum += durations[i]!;
    return sum;
  };
  const homeCm = (bow: Direction) => instrument.sweetSpotCm - ((bow === 'down' ? 1 : -1) * unitCm) / 2;
  return {
    ...chains,
    report,
    wishes,
    cells,
    ids: chains.chains.map(({ starts: [start], length }) =>
      Array.from({ length }, (_, k) => notes[start! + k]!.note.id),
    ),
    choicesAt: (chain, k) => choicesOf(report, chains.chains[chain]!, k).filter((choice) => choices.includes(choice)),
    noteTerms,
    strokeTerms: (from, count) => {
      const points = W.tempo * lacking(1000 * durationOf(from, count), limits.strokeMs.value);
      return points > 0 ? { tempo: whole(points) } : {};
    },
    land: (from, count, bow, cell, isLast) => {
      const nominal =
        nominalLength(durationOf(from, count), speed) * strokeRatio(figures.reach, durations, from, from + count);
      const sign = bow === 'down' ? 1 : -1;
      const begin = cell * cellCm;
      const centred = instrument.sweetSpotCm + (sign * nominal) / 2;
      const natural = begin + sign * nominal;
      const given = sign * (natural + GIVE * (centred - natural) - begin);
      const length = Math.max(MIN_LENGTH * nominal, given);
      const end = begin + sign * length;
      const stretch = nominal > 0 ? length / nominal - 1 : 0;
      const stray = (begin + end) / 2 - instrument.sweetSpotCm;
      const lack = Math.max(0, end - instrument.hairCm, -end);
      const open = isLast ? end - instrument.sweetSpotCm : 0;
      const hair = W.hairStray * stray ** 2 + W.hairLacking * lack ** 2 + W.hairOpen * open ** 2;
      return { cell: cellAt(end), cost: whole(W.hairStretch * stretch ** 2 + hair / 100) };
    },
    home: (bow) => cellAt(homeCm(bow)),
  };
}

const BEGINNING: readonly Choice[] = ['change', 'retake'];
const SLURRED: readonly Choice[] = CHOICES;
const HOOKED: readonly Choice[] = ['change', 'hook', 'retake'];

function choicesOf({ unrolled: { notes } }: TuneReport, { starts: [start] }: Chain, k: number): readonly Choice[] {
  const index = start! + k;
  // Coming back to the tune's first note is a turn of the bow.
  if (k === 0) return index === 0 ? ['change'] : BEGINNING;
  const { note, restBefore } = notes[index]!;
  return joiningLink(notes[index - 1]!.note, note, restBefore.n > 0) === 'slur' ? SLURRED : HOOKED;
}
