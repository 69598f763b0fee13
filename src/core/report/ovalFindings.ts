import { joiningLink, opposite, staysInStroke } from '#core/bowing';
import type { LinkEdit } from './edits';
import type { Finding } from './finding';
import { type FindingInput, spotOf } from './findingInput';
import { type Mend, mendBy } from './mend';

/** Crossings in a row the other way round than the player likes them from which it is worth turning the passage round. */
export const OVAL_RUN = 6;
/** Passages told, the longest first; further ones are counted. */
const RUNS_TOLD = 2;
/** Notes before and behind a passage at whose links it may be turned round. */
const REACH = 6;

interface Run {
  /** Indices of the notes to which the bow crosses. */
  readonly crossings: readonly number[];
}

/**
 * Passages with six or more crossings in a row the other way round than a player likes them, one that is liked between
 * them ending the row; nobody else is told. Mends, which all keep the round: the passage turned round by one link before and
 * one behind it, or the whole tune begun on the other bow where that makes more crossings as they are liked.
 * Time O(n), and one trial for each passage told.
 */
export function ovalFindings(input: FindingInput): Finding[] {
  const { unrolled, settings } = input;
  const { ovals } = settings.schools;
  if (ovals === 'no-matter') return [];
  const told = new Set<string>();
  const runs = reverseRuns(input).filter(({ crossings: [first] }) => {
    const { id } = unrolled.notes[first!]!.note;
    return !told.has(id) && told.add(id);
  });
  runs.sort((a, b) => b.crossings.length - a.crossings.length);
  const start = runs.length > 0 ? startMend(input) : [];
  return runs.slice(0, RUNS_TOLD).map(({ crossings }, i): Finding => {
    const first = crossings[0]!;
    const ids = [first - 1, ...crossings].map((index) => unrolled.notes[index]!.note.id);
    const flip = flipMend(input, crossings);
    return {
      code: 'reverse-crossings',
      severity: 'note',
      ids: [...new Set(ids)],
      spot: spotOf(input, first - 1),
      count: crossings.length,
      liked: ovals,
      others: i === RUNS_TOLD - 1 ? runs.length - RUNS_TOLD : 0,
      mends: [...(flip ? [flip] : []), ...start],
    };
  });
}

/** The tune begun on the other bow turns every crossing round: offered where most are reverse now. */
function startMend(input: FindingInput): Mend[] {
  const { naturalOvals, reverseOvals } = input.figures.arm.sums;
  const [liked, against] =
    dislikedOval(input) === 'reverse' ? [naturalOvals, reverseOvals] : [reverseOvals, naturalOvals];
  if (against <= liked) return [];
  const start = opposite(input.figures.start.direction);
  return [
    mendBy(
      input,
      { deed: 'start', start },
      { outcome: input.attempt([], start), gain: { of: 'reverse-crossings', left: liked } },
    ),
  ];
}

/** Which way round a player does not like to cross: with the lower string drawn up, or down. */
const dislikedOval = ({ settings }: FindingInput) => (settings.schools.ovals === 'upper-down' ? 'natural' : 'reverse');

function reverseRuns(input: FindingInput): Run[] {
  const { unrolled, figures } = input;
  const { arm } = figures;
  const disliked = dislikedOval(input);
  const runs: Run[] = [];
  let open: number[] = [];
  const close = () => {
    if (open.length >= OVAL_RUN) runs.push({ crossings: open });
    open = [];
  };
  for (const [i, crossing] of arm.crossings.entries()) {
    // A passage lies within one pass, so that what turns it round does so wherever it is played.
    if (i > 0 && unrolled.notes[i]!.passIndex !== unrolled.notes[i - 1]!.passIndex) {
      close();
      continue;
    }
    if (crossing?.oval === disliked) open.push(i);
    else if (crossing?.oval) close();
  }
  close();
  return runs;
}

/** One link turned before the passage and one behind it, kept where the whole passage is natural afterwards. */
function flipMend(input: FindingInput, crossings: readonly number[]): Mend | null {
  const { unrolled, figures } = input;
  const first = crossings[0]!;
  const last = crossings[crossings.length - 1]!;
  const pass = unrolled.passes[unrolled.notes[first]!.passIndex]!;
  const before = bestTurn(input, Math.max(pass.firstNote, first - REACH), first - 1);
  const behind = bestTurn(input, last + 1, Math.min(pass.endNote - 1, last + REACH));
  if (!before || !behind) return null;
  const edits = [before.edit, behind.edit];
  const trial = input.attempt(edits);
  const still = crossings.filter((i) => trial.bowed[i]!.bow === figures.bowed[i]!.bow).length;
  if (still > 0 || (figures.ledger.comesRound && !trial.round.comesRound)) return null;
  const also = { deed: behind.deed, spot: spotOf(input, behind.index) };
  return mendBy(
    input,
    { deed: before.deed, edits, also },
    { outcome: trial, gain: { of: 'reverse-crossings', left: still } },
  );
}

interface Turn {
  readonly edit: LinkEdit;
  readonly deed: 'split' | 'join';
  readonly index: number;
}

/** The least disturbing change of parity among some notes: a slur split, else two notes joined on one string. */
function bestTurn({ unrolled, figures, fingers }: FindingInput, from: number, to: number): Turn | null {
  let best: { turn: Turn; cost: number } | null = null;
  for (let index = Math.max(1, from); index <= to; index++) {
    const { note, restBefore, beat } = unrolled.notes[index]!;
    const { link } = figures.bowed[index]!;
    const earlier = unrolled.notes[index - 1]!;
    if (note.linkOnPass || link === 'start' || link === 'retake') continue;
    const splits = staysInStroke(link);
    const crosses = fingers.get(earlier.note.id)?.place !== fingers.get(note.id)?.place;
    const cost = splits ? (crosses ? 0 : 1) : (crosses ? 4 : 1) + (Number.isInteger(beat) ? 2 : 0);
    if (best && best.cost <= cost) continue;
    const target = splits ? 'change' : joiningLink(earlier.note, note, restBefore.n > 0);
    const edit: LinkEdit = { id: note.id, link: target, pass: null };
    best = { turn: { edit, deed: splits ? 'split' : 'join', index }, cost };
  }
  return best?.turn ?? null;
}
