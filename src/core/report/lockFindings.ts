import { joiningLink, type LockConflict, lockConflicts, opposite, staysInStroke } from '#core/bowing';
import type { Link } from '#core/tune';
import type { LinkEdit } from './edits';
import type { Finding } from './finding';
import { type FindingInput, spotOf } from './findingInput';
import { linkEditsOf, type Mend, mendBy, MENDS_OFFERED, type Turn } from './mend';

/** Conflicts beyond these are told without a search for mends. */
const CONFLICTS_MENDED = 12;

/** Locks that the links contradict, each with the mends that really bring the locked direction out on every pass. */
export function lockFindings(input: FindingInput): Finding[] {
  const own = lockConflicts(input.unrolled, input.figures.bowed).filter(
    ({ indices }) => !belongsToFlip(input, indices),
  );
  return own.map((conflict, i, conflicts): Finding => {
    const { id, lock, passes, indices } = conflict;
    const spot = spotOf(input, indices[0]!);
    const mends = i < CONFLICTS_MENDED ? lockMends(input, conflict, conflicts.length) : [];
    return {
      code: 'lock-contradicted',
      severity: 'problem',
      ids: [id],
      spot,
      lock,
      passes,
      mends: [...mends, mendBy(input, { deed: 'unlock' }, { index: indices[0]! })],
    };
  });
}

/** A lock that is only contradicted where its part comes in on the other bow belongs to the flip of the part. */
export function belongsToFlip({ unrolled, figures }: FindingInput, indices: readonly number[]): boolean {
  const { ledger } = figures;
  const { part } = unrolled.notes[indices[0]!]!;
  if (!ledger.flippedParts.includes(part)) return false;
  const home = ledger.passes.find((pass) => pass.part === part)!.entry;
  return indices.every((index) => ledger.passes[unrolled.notes[index]!.passIndex]!.entry !== home);
}

/**
 * Edits that turn the locked note round, kept where the conflict is gone on every pass and none is new. A turned link
 * flips every note after it, so the link to the next note is also tried turned back. Those after which the tune comes
 * round go first, then the retake, then the fewer edits.
 * Cost: O(n) for each of at most nine edits tried.
 */
function lockMends(input: FindingInput, { id, indices }: LockConflict, conflictsBefore: number): Mend[] {
  return turnMends(input, id, indices, (bowed) => {
    const left = lockConflicts(input.unrolled, bowed);
    return left.length < conflictsBefore && left.every((conflict) => conflict.id !== id);
  });
}

/** The same for any note that is wanted on the other bow where it is played at `indices`. */
export function turnMends(
  input: FindingInput,
  id: string,
  indices: readonly number[],
  solves: (bowed: FindingInput['figures']['bowed']) => boolean,
): Mend[] {
  const { figures } = input;
  const tried = candidates(input, id, indices).flatMap(({ deed, edits }) => {
    const trial = input.attempt(edits);
    return solves(trial.bowed) ? [mendBy(input, { deed, edits }, { outcome: trial })] : [];
  });
  const start = opposite(figures.start.direction);
  const begunOtherwise = input.attempt([], start);
  if (solves(begunOtherwise.bowed)) tried.push(mendBy(input, { deed: 'start', start }, { outcome: begunOtherwise }));
  const rank = (mend: Mend) => [Number(!mend.comesRound), Number(mend.deed !== 'retake'), linkEditsOf(mend).length];
  tried.sort((a, b) => compareLists(rank(a), rank(b)));
  return tried.slice(0, MENDS_OFFERED);
}

function candidates(
  { unrolled, figures: { bowed } }: FindingInput,
  id: string,
  indices: readonly number[],
): { deed: Turn; edits: LinkEdit[] }[] {
  const index = indices[0]!;
  if (index === 0) return [];
  const isEverywhere = unrolled.notes.filter(({ note }) => note.id === id).length === indices.length;
  const passes = isEverywhere ? [null] : indices.map((i) => unrolled.notes[i]!.pass);
  const next = unrolled.notes[index + 1];
  const { link } = bowed[index]!;
  const played = unrolled.notes[index]!;
  const joined = joiningLink(unrolled.notes[index - 1]!.note, played.note, played.restBefore.n > 0);
  const turns: { deed: Turn; link: Link }[] =
    link === 'change'
      ? [
          { deed: 'retake', link: 'retake' },
          { deed: 'join', link: joined },
        ]
      : [{ deed: staysInStroke(link) ? 'split' : 'turn', link: 'change' }];
  return turns.flatMap(({ deed, link: turned }) => {
    const alone = passes.map((pass) => ({ id, link: turned, pass }));
    if (!next || next.note.id === id) return [{ deed, edits: alone }];
    const nextJoined = joiningLink(played.note, next.note, next.restBefore.n > 0);
    const back: Link[] = bowed[index + 1]!.link === 'change' ? ['retake', nextJoined] : ['change'];
    const restored = back.map((nextLink) => ({
      deed,
      edits: [...alone, ...passes.map((pass) => ({ id: next.note.id, link: nextLink, pass }))],
    }));
    return [{ deed, edits: alone }, ...restored];
  });
}

function compareLists(a: readonly number[], b: readonly number[]): number {
  const at = a.findIndex((value, i) => value !== b[i]);
  return at < 0 ? 0 : a[at]! - b[at]!;
}
