import { joiningLink, recognisePatterns } from '#core/bowing';
import { PATTERNS, patternFigures } from '#core/bowing';
import type { SharedStroke, Trial } from './figures';
import { type Finding, type FindingInput, type LinkEdit, MENDS_OFFERED, type Mend, mendBy, placeOf } from './finding';
import { withNoteEdits } from './mendTune';

/** Speeds of neighbour strokes further apart than this are a jerk. */
export const JERK_RATIO = 2.5;
/** Strokes in a row outside the working window from which it is worth a word, and from which it asks for care. */
const LEAST_OUTSIDE = 3;
const MANY_OUTSIDE = 8;
/** Share of its own length to which a stroke is cut that carries the bow away. */
const LESS_BOW = 0.6;
/** Notes before the place at whose links a mend is sought. */
const LOOKBACK = 8;

/** Where the bow leaves the working window, and where it jerks, with the hair shared out. */
export function travelFindings(input: FindingInput): Finding[] {
  return [...windowFindings(input), ...jerkFindings(input)];
}

/** How far a stroke's middle lies beyond the working window; positive toward the tip, 0 within. */
function beyondWindow({ fromCm, toCm }: SharedStroke, input: FindingInput): number {
  const { instrument } = input.settings;
  const stray = (fromCm + toCm) / 2 - instrument.sweetSpotCm;
  return Math.sign(stray) * Math.max(0, Math.abs(stray) - instrument.windowHalfCm);
}

/**
 * Passages of three or more strokes whose middles lie outside the working window: far out the tone thins, near the frog
 * the arm tires and the bow may bounce. The longest is told, the others counted.
 * Time O(m) for m strokes, and the hair shared out for each mend tried.
 */
function windowFindings(input: FindingInput): Finding[] {
  const strokes = input.shared();
  const runs: SharedStroke[][] = [];
  let open: SharedStroke[] = [];
  let openSide = 0;
  for (const stroke of strokes) {
    const side = Math.sign(beyondWindow(stroke, input));
    if (side !== openSide && open.length > 0) {
      runs.push(open);
      open = [];
    }
    openSide = side;
    if (side !== 0) open.push(stroke);
  }
  runs.push(open);
  const told = runs.filter((run) => run.length >= LEAST_OUTSIDE).sort((a, b) => b.length - a.length);
  const [longest] = told;
  if (!longest) return [];
  const furthest = longest.map((stroke) => beyondWindow(stroke, input)).sort((a, b) => Math.abs(b) - Math.abs(a))[0]!;
  const { first } = longest[0]!;
  return [
    {
      code: 'window-left',
      severity: longest.length >= MANY_OUTSIDE ? 'care' : 'note',
      ids: [input.unrolled.notes[first]!.note.id],
      place: placeOf(input, first),
      strokes: longest.length,
      cm: Math.abs(furthest),
      end: furthest > 0 ? 'tip' : 'frog',
      others: told.length - 1,
      mends: [
        ...linkMends(input, first, outsideCount(input, strokes), ({ shared }) => outsideCount(input, shared())).map(
          ({ left, ...mend }) => ({ ...mend, outside: left }),
        ),
        ...lessBow(input, strokes, longest, furthest > 0 ? 1 : -1),
      ].slice(0, MENDS_OFFERED),
    },
  ];
}

/** The strokes that carry the bow out of the window drawn shorter: those toward its end that are longer than usual. */
function lessBow(
  input: FindingInput,
  strokes: readonly SharedStroke[],
  run: readonly SharedStroke[],
  end: 1 | -1,
): Mend[] {
  const from = Math.max(0, strokes.indexOf(run[0]!) - LOOKBACK);
  const to = strokes.indexOf(run[run.length - 1]!);
  const about = strokes.slice(from, to + 1);
  const mean = about.reduce((sum, { fromCm, toCm }) => sum + Math.abs(toCm - fromCm), 0) / about.length;
  const ids = new Set(
    about
      .filter(({ fromCm, toCm }) => end * (toCm - fromCm) > mean)
      .map(({ first }) => input.unrolled.notes[first]!.note.id),
  );
  if (ids.size === 0) return [];
  const notes = [...ids].map((id) => ({ id, bowLength: LESS_BOW }));
  const { figures, sharedStrokes } = input.countAnew(withNoteEdits(input.tune, notes));
  const outside = outsideCount(input, sharedStrokes());
  if (2 * outside > outsideCount(input, strokes)) return [];
  const trial = { round: figures.ledger, ceilingBpm: () => figures.check.ceiling?.ceilingBpm ?? null };
  return [{ ...mendBy(input, 'less-bow', [], trial), notes, place: placeOf(input, about[0]!.first), outside }];
}

function outsideCount(input: FindingInput, strokes: readonly SharedStroke[]): number {
  return strokes.filter((stroke) => beyondWindow(stroke, input) !== 0).length;
}

const speedOf = ({ fromCm, toCm, seconds }: SharedStroke) => (seconds > 0 ? Math.abs(toCm - fromCm) / seconds : 0);

/**
 * Neighbour strokes of which one is drawn more than two and a half times as fast as the other, where no pulse, accent,
 * wished length or pattern wants it. The worst is told, the others counted.
 */
function jerkFindings(input: FindingInput): Finding[] {
  const strokes = input.shared();
  const found = jerksOf(input, strokes);
  const [worst] = [...found].sort((a, b) => b.ratio - a.ratio || a.at - b.at);
  if (!worst) return [];
  const { unrolled, figures } = input;
  const [before, after] = [strokes[worst.at - 1]!, strokes[worst.at]!];
  const quick = speedOf(before) > speedOf(after) ? before : after;
  const { id } = unrolled.notes[quick.first]!.note;
  const notes = [{ id, mark: 'accent' as const }];
  const accented = withNoteEdits(input.tune, notes);
  const afterwards = input.countAnew(accented).figures;
  const accent: Mend = {
    ...mendBy(input, 'accent', [], {
      round: afterwards.ledger,
      ceilingBpm: () => afterwards.check.ceiling?.ceilingBpm ?? null,
    }),
    notes,
    place: placeOf(input, quick.first),
    jerks: found.filter(({ at }) => ![strokes[at - 1], strokes[at]].some((stroke) => stroke!.first === quick.first))
      .length,
  };
  return [
    {
      code: 'jerk',
      severity: 'care',
      ids: [unrolled.notes[before.first]!.note.id, unrolled.notes[after.first]!.note.id],
      place: placeOf(input, after.first),
      from: speedOf(before),
      to: speedOf(after),
      others: new Set(found.map(({ at }) => unrolled.notes[strokes[at]!.first]!.note.id)).size - 1,
      mends: [
        ...linkMends(
          input,
          after.first,
          found.length,
          (trial) => jerksOf({ ...input, figures: { ...figures, bowed: trial.bowed } }, trial.shared()).length,
        ).map(({ left, ...mend }) => ({ ...mend, jerks: left })),
        accent,
      ].slice(0, MENDS_OFFERED),
    },
  ];
}

interface Jerk {
  /** Number of the second of the two strokes. */
  readonly at: number;
  readonly ratio: number;
}

function jerksOf(input: FindingInput, strokes: readonly SharedStroke[]): Jerk[] {
  const wanted = wantedAccents(input);
  const { notes } = input.unrolled;
  const isMeant = ({ first, notes: count }: SharedStroke) => {
    const { bowLength } = notes[first]!.note;
    if (bowLength !== undefined) return true;
    for (let i = first; i < first + count; i++)
      if (notes[i]!.note.marks?.some((mark) => mark === 'accent' || mark === 'pulse')) return true;
    return wanted(notes[first]!.note.id);
  };
  const jerks: Jerk[] = [];
  for (let at = 1; at < strokes.length; at++) {
    const [before, stroke] = [strokes[at - 1]!, strokes[at]!];
    if (stroke.isFree) continue;
    const [one, other] = [speedOf(before), speedOf(stroke)];
    const slow = Math.min(one, other);
    const quick = Math.max(one, other);
    if (quick <= JERK_RATIO * slow || isMeant(before) || isMeant(stroke)) continue;
    jerks.push({ at, ratio: quick / Math.max(slow, 1e-9) });
  }
  return jerks;
}

/** Tells whether a note stands in a bar whose pattern lives from its quick strokes: one that drifts by itself. */
function wantedAccents({ tune }: FindingInput): (id: string) => boolean {
  let known: ReadonlySet<string> | null = null;
  return (id) => {
    if (!known) {
      const drifting = new Set(
        PATTERNS.filter((pattern) => patternFigures(pattern).driftUnits !== 0).map(({ name }) => name),
      );
      const bars = new Set(
        recognisePatterns(tune).flatMap(({ pattern, barIds }) => (pattern && drifting.has(pattern) ? barIds : [])),
      );
      const ids = new Set<string>();
      for (const { events } of tune.parts) {
        let bar = '';
        for (const event of events)
          if (event.kind === 'bar') bar = event.id;
          else if (bars.has(bar)) ids.add(event.id);
      }
      known = ids;
    }
    return known.has(id);
  };
}

/** Splits and joins in the strokes that lead to a place, kept where at most half of the trouble is left afterwards. */
function linkMends(
  input: FindingInput,
  index: number,
  before: number,
  leftAfter: (trial: Trial) => number,
): (Mend & { readonly left: number })[] {
  const { unrolled, figures } = input;
  const tried: { mend: Mend; left: number; flips: number }[] = [];
  for (let at = index; at > Math.max(0, index - LOOKBACK); at--) {
    const played = unrolled.notes[at]!;
    const { link } = figures.bowed[at]!;
    if (played.note.linkOnPass || link === 'start') continue;
    const joined = joiningLink(unrolled.notes[at - 1]!.note, played.note, played.restBefore.n > 0);
    const edits: LinkEdit[] = [{ id: played.note.id, link: link === 'change' ? joined : 'change', pass: null }];
    const trial = input.attempt(edits);
    const left = leftAfter(trial);
    if (2 * left > before) continue;
    const flips = Number(figures.ledger.comesRound && !trial.round.comesRound);
    tried.push({ mend: mendBy(input, link === 'change' ? 'join' : 'split', edits, trial), left, flips });
  }
  tried.sort((a, b) => a.flips - b.flips || a.left - b.left);
  return tried.slice(0, MENDS_OFFERED).map(({ mend, left }) => ({ ...mend, left }));
}
