import { toNumber } from '#core/base';
import { type Direction, type Link, type NoteEvent, type Unrolled, occurrencesOf } from '#core/tune';
import { type BowedNote, entryNote, follow, linkInFlow, opposite, staysInStroke } from './strokes';

/** One link edit that mends a tune that does not come round. */
export interface RoundMend {
  readonly id: string;
  readonly link: Link;
  /** `split` parts a shared stroke, `join` makes one of two, `retake` lifts the bow at a rest or after a long note. */
  readonly deed: 'split' | 'join' | 'retake';
  /** The smaller, the less it disturbs. */
  readonly disturbance: number;
  /** Whether everything comes round after it, or only the part it was sought for. */
  readonly mendsAll: boolean;
}

/**
 * What a mend disturbs; dimensionless, guesses.
 * A split inside a bar moves an accent; a join over two strings adds a crossing that nothing hides.
 */
const DISTURBANCE = {
  awayFromPartEnd: 1,
  joinAcrossStrings: 3,
  joinIntoBeat: 1,
  retake: 1.5,
  splitOnOneString: 0.5,
};

/**
 * All single link edits after which the tune comes round; where there are none, those after which `part` does.
 * An edit flips every later note of each pass that plays it, so parities are counted, nothing is bowed again.
 * Least disturbance first, ties by playing order.
 * @param placeOf the string place of a written note, null where unknown
 * Time O(n·p) for n written notes and p passes.
 */
export function roundMends(
  unrolled: Unrolled,
  bowed: readonly BowedNote[],
  part: string | null,
  placeOf: (note: NoteEvent) => string | null,
): RoundMend[] {
  const entries = unrolled.passes.map((_, i) => entryNote(unrolled, i));
  const found: RoundMend[] = [];
  for (const [id, indices] of occurrencesOf(unrolled)) {
    const first = indices[0]!;
    const played = unrolled.notes[first]!;
    if (first === 0 || played.note.linkOnPass || (part !== null && played.part !== part)) continue;
    const { comesRound, partComesRound } = after(unrolled, bowed, entries, indices, part);
    if (!comesRound && !partComesRound) continue;
    for (const edit of edits(unrolled, bowed, first, placeOf))
      found.push({ id, link: edit.link, deed: edit.deed, disturbance: edit.disturbance, mendsAll: comesRound });
  }
  const complete = found.filter(({ mendsAll }) => mendsAll);
  return (complete.length > 0 ? complete : found).sort((a, b) => a.disturbance - b.disturbance);
}

/** What comes round when the parity of every one of these played notes is flipped. */
function after(
  unrolled: Unrolled,
  bowed: readonly BowedNote[],
  entries: readonly (number | null)[],
  flipped: readonly number[],
  part: string | null,
): { comesRound: boolean; partComesRound: boolean } {
  const flipsBefore = (index: number) => flipped.filter((at) => at <= index).length % 2 === 1;
  const direction = new Map<string, Direction>();
  const turned = new Set<string>();
  for (const [i, pass] of unrolled.passes.entries()) {
    const entry = entries[i];
    if (entry === null || entry === undefined) continue;
    const bow = flipsBefore(entry) ? opposite(bowed[entry]!.bow) : bowed[entry]!.bow;
    const known = direction.get(pass.part);
    if (known === undefined) direction.set(pass.part, bow);
    else if (known !== bow) turned.add(pass.part);
  }
  const first = unrolled.notes[0]!;
  const againBefore = follow(bowed[bowed.length - 1]!.bow, linkInFlow(first.note, first.pass));
  const again = flipped.length % 2 === 1 ? opposite(againBefore) : againBefore;
  const comesRound = turned.size === 0 && again === bowed[0]!.bow;
  return { comesRound, partComesRound: part !== null && !turned.has(part) };
}

function edits(
  unrolled: Unrolled,
  bowed: readonly BowedNote[],
  index: number,
  placeOf: (note: NoteEvent) => string | null,
): { link: Link; deed: RoundMend['deed']; disturbance: number }[] {
  const played = unrolled.notes[index]!;
  const before = unrolled.notes[index - 1]!;
  const pass = unrolled.passes[played.passIndex]!;
  const { link } = bowed[index]!;
  const nearEnd = played.bar === 0 || played.bar >= pass.bars;
  const place = nearEnd ? 0 : DISTURBANCE.awayFromPartEnd;
  const crosses = placeOf(before.note) !== placeOf(played.note);
  if (staysInStroke(link))
    return [{ link: 'change', deed: 'split', disturbance: place + (crosses ? 0 : DISTURBANCE.splitOnOneString) }];
  if (link === 'retake') return [];
  const found: { link: Link; deed: RoundMend['deed']; disturbance: number }[] = [];
  if (played.restBefore.n > 0 || toNumber(before.duration) >= 0.25)
    found.push({ link: 'retake', deed: 'retake', disturbance: place + DISTURBANCE.retake });
  if (played.restBefore.n === 0 && before.passIndex === played.passIndex) {
    const isBeat = Number.isInteger(played.beat);
    const disturbance = place + (crosses ? DISTURBANCE.joinAcrossStrings : 0) + (isBeat ? DISTURBANCE.joinIntoBeat : 0);
    const isOnePitch = before.note.pitch.letter === played.note.pitch.letter && !crosses;
    found.push({ link: isOnePitch ? 'hook' : 'slur', deed: 'join', disturbance });
  }
  return found;
}
