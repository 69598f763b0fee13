import { toNumber } from '#core/base';
import { isInsideTuplet, joiningLink, recognisePatterns } from '#core/bowing';
import { patternFigures, PATTERNS } from '#core/bowing';
import { type Link, PHRASE_BARS } from '#core/tune';
import { type LinkEdit, withNoteEdits } from './edits';
import { MIN_LENGTH, minHair, type SharedStroke, type Trial } from './figures';
import type { Finding } from './finding';
import { type FindingInput, spotOf } from './findingInput';
import { type Gain, type Mend, mendBy, MENDS_OFFERED, outcomeOf, type Turn } from './mend';

/**
 * Speeds of neighbour strokes further apart than this are a jerk, beyond what the rhythm asks: a dotted pair in single
 * strokes asks for 3 to 1. A guess.
 */
export const JERK_RATIO = 2.2;
/** More of a phrase's time than this outside the working window is told, and more than the other asks for care. Guesses. */
const SHARE_OUTSIDE = 0.25;
const MUCH_OUTSIDE = 0.6;
/** Share of its own length to which a stroke is cut that carries the bow away. */
const LESS_BOW = 0.6;
/** In whole notes: from a quarter on the bow has time to be lifted. */
const LONG_ENOUGH_TO_LIFT = 0.25;
/** Notes before the place at whose links a mend is sought. */
const LOOKBACK = 8;

/**
 * Where the hair does not do, where the bow leaves the working window, and where it jerks: all with the hair shared out
 * among the strokes. What strokes drawn at even speed would come to is told nowhere, since nobody draws so.
 */
export function travelFindings(input: FindingInput): Finding[] {
  return [...runOutFindings(input), ...windowFindings(input), ...jerkFindings(input)];
}

/** Places at which a stroke that is too long is split, as a trial. */
const SPLITS_TRIED = 24;

/**
 * Strokes for which no sharing of the hair leaves six tenths of their length, or which are longer than the hair when drawn as
 * slowly as the player can. The longest is told, the others counted.
 */
function runOutFindings(input: FindingInput): Finding[] {
  const { instrument, limits } = input.settings;
  const slowest = limits.slowestBowCmPerSecond.value;
  const leastOf = (stroke: SharedStroke) => minHair(stroke, input.settings);
  const out = input.shared().filter((stroke) => leastOf(stroke) > instrument.hairCm);
  const [longest] = [...out].sort((a, b) => leastOf(b) - leastOf(a) || a.first - b.first);
  if (!longest) return [];
  const { unrolled } = input;
  const { note } = unrolled.notes[longest.first]!;
  const isAsked = MIN_LENGTH * longest.nominalCm > slowest * longest.seconds;
  const middle = longest.first + longest.notes / 2;
  const splits = unrolled.notes
    .slice(longest.first + 1, longest.first + longest.notes)
    .filter((played) => !played.note.linkOnPass && !isInsideTuplet(played.note))
    // Of a stroke without end only the places about its middle are tried.
    .sort((a, b) => Math.abs(a.index - middle) - Math.abs(b.index - middle))
    .slice(0, SPLITS_TRIED)
    .sort((a, b) => a.index - b.index)
    .map((played) => mendBy(input, { deed: 'split', edits: [{ id: played.note.id, link: 'change', pass: null }] }))
    .sort((a, b) => Number(b.comesRound) - Number(a.comesRound));
  const less = isAsked && note.bowLength !== undefined ? [{ id: note.id, bowLength: 1 }] : [];
  const shorter = less.map((edit): Mend => {
    const { figures: after } = input.recompute(withNoteEdits(input.tune, [edit]));
    return mendBy(input, { deed: 'less-bow', notes: [edit] }, { outcome: outcomeOf(after), index: longest.first });
  });
  return [
    {
      code: 'runs-out-of-hair',
      severity: 'problem',
      ids: [note.id],
      spot: spotOf(input, longest.first),
      cm: leastOf(longest),
      hairCm: instrument.hairCm,
      seconds: longest.seconds,
      cause: isAsked ? 'asked' : 'slow',
      others: new Set(out.map(({ first }) => unrolled.notes[first]!.note.id)).size - 1,
      mends: [...shorter, ...splits].slice(0, MENDS_OFFERED),
    },
  ];
}

/** How far a stroke's middle lies beyond the working window; positive toward the tip, 0 within. */
function beyondWindow({ fromCm, toCm }: SharedStroke, input: FindingInput): number {
  const { instrument } = input.settings;
  const stray = (fromCm + toCm) / 2 - instrument.sweetSpotCm;
  return Math.sign(stray) * Math.max(0, Math.abs(stray) - instrument.windowHalfCm);
}

/** Strokes of one phrase: four bars of a pass, a pickup with the first of them. */
function phrasesOf({ unrolled: { notes } }: FindingInput, strokes: readonly SharedStroke[]): SharedStroke[][] {
  const phrases = new Map<string, SharedStroke[]>();
  for (const stroke of strokes) {
    const { passIndex, bar } = notes[stroke.first]!;
    const key = `${passIndex} ${Math.floor(Math.max(0, bar - 1) / PHRASE_BARS)}`;
    const phrase = phrases.get(key);
    if (phrase) phrase.push(stroke);
    else phrases.set(key, [stroke]);
  }
  return [...phrases.values()];
}

/**
 * Phrases of which the bow spends more than a quarter of the time outside the working window: far out the tone thins, near
 * the frog the arm tires and the bow may bounce. The one with most is told, the others counted.
 * Time O(m) for m strokes, and the hair shared out for each mend tried.
 */
function windowFindings(input: FindingInput): Finding[] {
  const strokes = input.shared();
  const sum = (some: readonly SharedStroke[]) => some.reduce((total, { seconds }) => total + seconds, 0);
  const told = phrasesOf(input, strokes)
    .map((phrase) => {
      const outside = phrase.filter((stroke) => beyondWindow(stroke, input) !== 0);
      return { outside, share: sum(outside) / sum(phrase) };
    })
    .filter(({ share }) => share > SHARE_OUTSIDE)
    .sort((a, b) => b.share - a.share);
  const [worst] = told;
  if (!worst) return [];
  const { outside, share } = worst;
  const furthest = outside.map((stroke) => beyondWindow(stroke, input)).sort((a, b) => Math.abs(b) - Math.abs(a))[0]!;
  const { first } = outside[0]!;
  return [
    {
      code: 'window-left',
      severity: share > MUCH_OUTSIDE ? 'care' : 'note',
      ids: [input.unrolled.notes[first]!.note.id],
      spot: spotOf(input, first),
      strokes: outside.length,
      share,
      cm: Math.abs(furthest),
      end: furthest > 0 ? 'tip' : 'frog',
      others: new Set(told.map(({ outside: [one] }) => input.unrolled.notes[one!.first]!.note.id)).size - 1,
      mends: [
        ...linkMends(input, first, { of: 'outside', left: outsideCount(input, strokes) }, ({ shared }) =>
          outsideCount(input, shared()),
        ),
        ...lessBow(input, strokes, outside, furthest > 0 ? 1 : -1),
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
  const { figures, sharedStrokes } = input.recompute(withNoteEdits(input.tune, notes));
  const outside = outsideCount(input, sharedStrokes());
  if (2 * outside > outsideCount(input, strokes)) return [];
  return [
    mendBy(
      input,
      { deed: 'less-bow', notes },
      { outcome: outcomeOf(figures), gain: { of: 'outside', left: outside }, index: about[0]!.first },
    ),
  ];
}

function outsideCount(input: FindingInput, strokes: readonly SharedStroke[]): number {
  return strokes.filter((stroke) => beyondWindow(stroke, input) !== 0).length;
}

const speedOf = ({ fromCm, toCm, seconds }: SharedStroke) => (seconds > 0 ? Math.abs(toCm - fromCm) / seconds : 0);

/**
 * Neighbour strokes of which one is drawn more than 2.2 times as fast as the other beyond what the rhythm asks, where no
 * pulse, accent, wished length or pattern wants it. What is asked: a short stroke beside a long one is drawn back over the
 * same hair, so as many times as fast as it is shorter. The worst is told, the others counted.
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
  const afterwards = input.recompute(accented).figures;
  const left = found.filter(
    ({ at }) => ![strokes[at - 1], strokes[at]].some((stroke) => stroke!.first === quick.first),
  ).length;
  const accent = mendBy(
    input,
    { deed: 'accent', notes },
    { outcome: outcomeOf(afterwards), gain: { of: 'jerks', left }, index: quick.first },
  );
  return [
    {
      code: 'jerk',
      severity: 'care',
      ids: [unrolled.notes[before.first]!.note.id, unrolled.notes[after.first]!.note.id],
      spot: spotOf(input, after.first),
      from: speedOf(before),
      to: speedOf(after),
      others: new Set(found.map(({ at }) => unrolled.notes[strokes[at]!.first]!.note.id)).size - 1,
      mends: [
        ...linkMends(
          input,
          after.first,
          { of: 'jerks', left: found.length },
          (trial) => jerksOf({ ...input, figures: { ...figures, bowed: trial.bowed } }, trial.shared()).length,
        ),
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
  /** A quick stroke is meant by an accent, a pulse, a pattern or a wish; a slow one by a wish. */
  const isWished = ({ first }: SharedStroke) => notes[first]!.note.bowLength !== undefined;
  const isMeant = (stroke: SharedStroke) => {
    const { first, notes: count } = stroke;
    for (let i = first; i < first + count; i++)
      if (notes[i]!.note.marks?.some((mark) => mark === 'accent' || mark === 'pulse')) return true;
    return isWished(stroke) || wanted(notes[first]!.note.id);
  };
  const jerks: Jerk[] = [];
  for (let at = 1; at < strokes.length; at++) {
    const [before, stroke] = [strokes[at - 1]!, strokes[at]!];
    if (stroke.isFree) continue;
    const [one, other] = [speedOf(before), speedOf(stroke)];
    const [slow, quick] = one < other ? [before, stroke] : [stroke, before];
    const asked = Math.max(1, slow.seconds / quick.seconds);
    const ratio = Math.max(one, other) / Math.max(Math.min(one, other), 1e-9) / asked;
    if (ratio <= JERK_RATIO || isMeant(quick) || isWished(slow)) continue;
    jerks.push({ at, ratio });
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
  { of, left: before }: Extract<Gain, { readonly left: number }>,
  leftAfter: (trial: Trial) => number,
): Mend[] {
  const { unrolled, figures } = input;
  const tried: { mend: Mend; left: number; flips: number }[] = [];
  for (let at = index; at > Math.max(0, index - LOOKBACK); at--) {
    const played = unrolled.notes[at]!;
    const { link } = figures.bowed[at]!;
    if (played.note.linkOnPass || link === 'start' || isInsideTuplet(played.note)) continue;
    const earlier = unrolled.notes[at - 1]!;
    const joined = joiningLink(earlier.note, played.note, played.restBefore.n > 0);
    const canLift = played.restBefore.n > 0 || toNumber(earlier.duration) >= LONG_ENOUGH_TO_LIFT;
    const ways: [Turn, Link][] =
      link === 'change'
        ? [['join', joined], ...(canLift ? [['retake', 'retake'] as [Turn, Link]] : [])]
        : [['split', 'change']];
    for (const [deed, way] of ways) {
      const edits: LinkEdit[] = [{ id: played.note.id, link: way, pass: null }];
      const trial = input.attempt(edits);
      const left = leftAfter(trial);
      if (2 * left > before) continue;
      const flips = Number(figures.ledger.comesRound && !trial.round.comesRound);
      tried.push({ mend: mendBy(input, { deed, edits }, { outcome: trial, gain: { of, left } }), left, flips });
    }
  }
  tried.sort((a, b) => a.flips - b.flips || a.left - b.left);
  return tried.slice(0, MENDS_OFFERED).map(({ mend }) => mend);
}
