import { toNumber } from '#core/base';
import { type Link, type NoteEvent, occurrencesOf, type Unrolled, type UnrolledNote } from '#core/tune';
import { isInsideTuplet, joiningLink } from './gestures';
import { againFrom, bowAgain, type BowedNote, entryNote, staysInStroke } from './strokes';

/** What an edit costs the player beside the mend itself. */
export type Disturbance =
  | 'crossing-in-slur'
  /** A beat loses the stroke that began on it, or a stroke begins off the beat where none did. */
  | 'accent-moved'
  | 'pattern-broken'
  /** An equal figure that was bowed alike elsewhere is no longer. */
  | 'twin-broken'
  /** The bow is lifted, or no longer lifted. */
  | 'lift'
  /** It holds on one pass only: the part is bowed in two ways there. */
  | 'one-pass'
  /** Neither in the pickup nor in the last bar of a pass. */
  | 'inside-part'
  /** A locked direction comes out the other way. */
  | 'lock-contradicted';

/** One link edit of a mend. */
export interface RoundEdit {
  readonly id: string;
  readonly link: Link;
  /** The pass on which it holds; null: on all. */
  readonly pass: number | null;
  /** `split` parts a shared stroke, `join` makes one of two, `retake` lifts the bow, `turn` turns it instead of a lift. */
  readonly deed: 'split' | 'join' | 'retake' | 'turn';
  readonly disturbs: readonly Disturbance[];
}

/** One or two link edits that mend a tune that does not come round. */
export interface RoundMend {
  readonly edits: readonly RoundEdit[];
  /** The smaller, the less it disturbs. */
  readonly disturbance: number;
  /** Whether everything comes round after it, or only the part it was sought for. */
  readonly mendsAll: boolean;
}

/** Weights of what is disturbed, and of a second edit; dimensionless, guesses. */
const WEIGHTS: Record<Disturbance, number> = {
  'crossing-in-slur': 3,
  'accent-moved': 1,
  'pattern-broken': 0.75,
  'twin-broken': 0.75,
  lift: 1.5,
  'one-pass': 0.25,
  'inside-part': 1,
  'lock-contradicted': 4,
};
const SECOND_EDIT = 0.5;
/** A split within a slur over two strings even helps: one on a single string comes after it. */
const SPLIT_ON_ONE_STRING = 0.25;
/** In whole notes: from a quarter on the bow has time to be lifted. */
const LONG_ENOUGH_TO_LIFT = 0.25;
/** Mends of a kind that are ranked against each other; beyond them none is looked at. */
const MAX_RANKED = 12;
/** Mends of which it is asked whether they break a pattern or a twin: somewhat more than are offered. */
const MAX_ASKED = 6;

export interface MendInput {
  readonly unrolled: Unrolled;
  readonly bowed: readonly BowedNote[];
  /** The part that flips; null where only the tune begun again does. */
  readonly part: string | null;
  /** The string place of a written note, null where unknown. */
  readonly placeOf: (note: NoteEvent) => string | null;
  /** Whether a note stands in a bar whose links follow a pattern. */
  readonly keepsPattern?: (id: string) => boolean;
  /** Whether a note's link belongs to an equal figure that is bowed alike elsewhere. */
  readonly keepsTwin?: (id: string) => boolean;
}

/**
 * Mends of one or two link edits, least disturbance first, ties by playing order.
 *
 * An edit flips the parity of every later note of each pass that plays it, and flips add up: each edit is a vector over
 * GF(2) with a bit for each pass entered otherwise than the first of its part and one for the tune begun again, and a
 * mend is one vector, or a sum of two, equal to what is wrong now. So all single edits are looked at, and all pairs, by
 * looking up the missing vector; nothing is bowed again. Edits on all passes alike of any note without links for single
 * passes: a shared stroke split, two strokes joined (by a hook over a rest or on one pitch), the bow lifted at a rest or
 * after a long note, a lift made a turn. And where a pass begins, a lift on that pass alone.
 *
 * Pairs are sought only where no single edit brings everything round. Where no pair does either, the single edits after
 * which `part` comes round are given.
 * Time O(n·p) for n written notes and p passes.
 */
export function roundMends(input: MendInput): RoundMend[] {
  const { unrolled, bowed, part } = input;
  const target = wrongness(unrolled, bowed);
  const wanted = target.bits;
  const inPart = target.partOf.map((name) => name === part);
  const written: { readonly key: string; readonly id: string; readonly played: UnrolledNote }[] = [];
  for (const [id, indices] of occurrencesOf(unrolled)) {
    const played = unrolled.notes[indices[0]!]!;
    if (played.index === 0 || played.note.linkOnPass || isInsideTuplet(played.note)) continue;
    written.push({ key: target.flipsBy(indices), id, played });
  }
  const onOnePass = passRetakes(input).map((edit) => ({ key: target.flipsBy([edit.index]), edit }));
  const single = [
    ...written.flatMap(({ key, id, played }) => (key === wanted ? editsAt(input, played, id) : [])),
    ...onOnePass.flatMap(({ key, edit }) => (key === wanted ? [edit] : [])),
  ];
  if (single.length > 0)
    return withTwins(
      ranked(single, input).map((edit) => mendOf([edit], true)),
      input,
    );
  const groups = new Map<string, RankedEdit[]>();
  const partly: RankedEdit[] = [];
  const join = (key: string, edits: readonly RankedEdit[]) => {
    const group = groups.get(key);
    if (group) group.push(...edits);
    else if (edits.length > 0) groups.set(key, [...edits]);
  };
  for (const { key, id, played } of written) {
    const options = editsAt(input, played, id);
    join(key, options);
    const mendsPart =
      part !== null && played.part === part && inPart.every((isOurs, i) => !isOurs || key[i] === wanted[i]);
    if (mendsPart) partly.push(...options);
  }
  for (const { key, edit } of onOnePass) join(key, [edit]);
  for (const [key, group] of groups)
    if (groups.has(complement(key, wanted))) groups.set(key, ranked(group, input).slice(0, MAX_RANKED));
  const pairs = pairsOf(groups, wanted);
  if (pairs.length > 0) return withTwins(pairs, input);
  return withTwins(
    ranked(partly, input).map((edit) => mendOf([edit], false)),
    input,
  );
}

/** By what they disturb; whether a pattern breaks is only asked of the first ones without it. */
function ranked(edits: readonly RankedEdit[], { keepsPattern }: MendInput): RankedEdit[] {
  const sorted = [...edits].sort(byCost);
  if (!keepsPattern) return sorted;
  const first = sorted.slice(0, MAX_ASKED).map((edit): RankedEdit => {
    if (!keepsPattern(edit.id)) return edit;
    const disturbs: Disturbance[] = ['pattern-broken', ...edit.disturbs];
    return { ...edit, disturbs, cost: edit.cost + WEIGHTS['pattern-broken'] };
  });
  return [...first, ...sorted.slice(MAX_ASKED)].sort(byCost);
}

/** The mends found, with those that part a figure from its twin further back: asked of the first ones, since it costs. */
function withTwins(mends: readonly RoundMend[], { keepsTwin }: MendInput): RoundMend[] {
  if (!keepsTwin) return [...mends];
  const asked = mends.slice(0, MAX_ASKED).map((mend, place) => {
    const edits = mend.edits.map((edit): RoundEdit =>
      keepsTwin(edit.id) ? { ...edit, disturbs: ['twin-broken', ...edit.disturbs] } : edit,
    );
    const broken = edits.filter(({ disturbs }) => disturbs.includes('twin-broken')).length;
    return { mend: { ...mend, edits, disturbance: mend.disturbance + broken * WEIGHTS['twin-broken'] }, place };
  });
  asked.sort((a, b) => a.mend.disturbance - b.mend.disturbance || a.place - b.place);
  return [...asked.map(({ mend }) => mend), ...mends.slice(MAX_ASKED)];
}

/** The vector that together with one makes what is wanted. */
function complement(key: string, wanted: string): string {
  let other = '';
  for (let i = 0; i < key.length; i++) other += key[i] === wanted[i] ? '0' : '1';
  return other;
}

interface RankedEdit extends RoundEdit {
  readonly index: number;
  readonly cost: number;
}

const byCost = (a: RankedEdit, b: RankedEdit) => a.cost - b.cost || a.index - b.index;

function mendOf(edits: readonly RankedEdit[], mendsAll: boolean): RoundMend {
  const cost = edits.reduce((sum, edit) => sum + edit.cost, 0);
  return {
    edits: [...edits]
      .sort((a, b) => a.index - b.index)
      .map(({ id, link, pass, deed, disturbs }) => ({ id, link, pass, deed, disturbs })),
    disturbance: cost + (edits.length - 1) * SECOND_EDIT,
    mendsAll,
  };
}

/** The least disturbing pairs: each group of equal vectors against the group that it lacks. */
function pairsOf(groups: ReadonlyMap<string, readonly RankedEdit[]>, wanted: string): RoundMend[] {
  const found: { first: RankedEdit; second: RankedEdit; cost: number }[] = [];
  for (const [key, group] of groups) {
    const partner = complement(key, wanted);
    const others = key < partner ? groups.get(partner) : undefined;
    if (!others) continue;
    for (const one of group)
      for (const other of others) {
        if (one.id === other.id) continue;
        const [first, second] = one.index < other.index ? [one, other] : [other, one];
        found.push({ first, second, cost: first.cost + second.cost });
      }
  }
  return found
    .sort((a, b) => a.cost - b.cost || a.first.index - b.first.index || a.second.index - b.second.index)
    .slice(0, MAX_RANKED)
    .map(({ first, second }) => mendOf([first, second], true));
}

/** What is wrong with the round, as a text of bits, and the bits that editing a note flips. */
function wrongness(unrolled: Unrolled, bowed: readonly BowedNote[]) {
  const firstEntry = new Map<string, number>();
  const checks: { entry: number; against: number; part: string }[] = [];
  for (const [i, { part }] of unrolled.passes.entries()) {
    const entry = entryNote(unrolled, i);
    if (entry === null) continue;
    const against = firstEntry.get(part);
    if (against === undefined) firstEntry.set(part, entry);
    else checks.push({ entry, against, part });
  }
  const again = againFrom(unrolled)!;
  const againIsWrong = bowAgain(unrolled, bowed) === bowed[again.index]!.bow ? 0 : 1;
  // The link into the note taken up again is followed once more on the way back, unless it is held over.
  const notFollowed = again.isHeld ? again.index : again.index - 1;
  const bits = checks.map(({ entry, against }) => (bowed[entry]!.bow === bowed[against]!.bow ? '0' : '1')).join('');
  /** The last bit is the tune begun again. */
  const flipsBy = (indices: readonly number[]): string => {
    let key = '';
    for (const { entry, against } of checks)
      key += (countUpTo(indices, entry) - countUpTo(indices, against)) % 2 === 0 ? '0' : '1';
    return key + ((indices.length - countUpTo(indices, notFollowed)) % 2);
  };
  return { bits: `${bits}${againIsWrong}`, partOf: checks.map(({ part }) => part), flipsBy };
}

/** How many of some rising numbers are not above a limit. */
function countUpTo(rising: readonly number[], limit: number): number {
  let count = 0;
  while (count < rising.length && rising[count]! <= limit) count += 1;
  return count;
}

/** The bow lifted where a pass begins, on that pass alone: of notes that are played more than once and turn the bow there. */
function passRetakes({ unrolled, bowed }: MendInput): RankedEdit[] {
  const { notes, passes } = unrolled;
  const occurrences = occurrencesOf(unrolled);
  return passes.slice(1).flatMap(({ firstNote, endNote }): RankedEdit[] => {
    const played = notes[firstNote];
    if (!played || firstNote === endNote || played.note.linkOnPass || bowed[firstNote]!.link !== 'change') return [];
    if ((occurrences.get(played.note.id)?.length ?? 0) < 2 || !canLift(notes[firstNote - 1]!, played)) return [];
    return [
      rankedEdit(
        { id: played.note.id, index: firstNote, pass: played.pass, deed: 'retake', link: 'retake' },
        LIFT | ONE_PASS,
      ),
    ];
  });
}

/** There is time to lift the bow: a rest, or a note of a quarter or more. */
const canLift = (before: UnrolledNote, { restBefore }: UnrolledNote) =>
  restBefore.n > 0 || toNumber(before.duration) >= LONG_ENOUGH_TO_LIFT;

function editsAt({ unrolled, bowed, placeOf }: MendInput, played: UnrolledNote, id: string): RankedEdit[] {
  const { index } = played;
  const before = unrolled.notes[index - 1]!;
  const pass = unrolled.passes[played.passIndex]!;
  const { link } = bowed[index]!;
  const crosses = placeOf(before.note) !== placeOf(played.note);
  const onBeat = Number.isInteger(played.beat);
  const restBefore = played.restBefore.n > 0;
  const inside = played.bar > 0 && played.bar < pass.bars ? INSIDE : 0;
  const edit = (deed: RoundEdit['deed'], to: Link, what: number, extra = 0) =>
    rankedEdit({ id, index, pass: null, deed, link: to }, inside | what, extra);
  if (staysInStroke(link)) return [edit('split', 'change', onBeat ? 0 : ACCENT, crosses ? 0 : SPLIT_ON_ONE_STRING)];
  if (link === 'retake') return [edit('turn', 'change', LIFT)];
  const found: RankedEdit[] = [];
  if (canLift(before, played)) found.push(edit('retake', 'retake', LIFT));
  if (before.passIndex === played.passIndex) {
    const what = (crosses && !restBefore ? CROSSING : 0) | (onBeat ? ACCENT : 0);
    found.push(edit('join', joiningLink(before.note, played.note, restBefore), what));
  }
  return found;
}

/** What an edit may disturb by its place, in the order in which it is told: bits of a sum. */
const PLACED: readonly Disturbance[] = ['inside-part', 'crossing-in-slur', 'accent-moved', 'lift', 'one-pass'];
const [INSIDE, CROSSING, ACCENT, LIFT, ONE_PASS] = [1, 2, 4, 8, 16] as const;
/** Every set of them, made once: hundreds of edits are ranked for each report. */
const DISTURBED = /* @__PURE__ */ Array.from({ length: 1 << PLACED.length }, (_, bits) =>
  PLACED.filter((_name, i) => bits & (1 << i)),
);
const DISTURBED_COST = /* @__PURE__ */ DISTURBED.map((names) => names.reduce((sum, name) => sum + WEIGHTS[name], 0));

/** An edit with what it disturbs and costs; `what`: bits of `PLACED`. */
function rankedEdit(
  { id, index, pass, deed, link }: Pick<RankedEdit, 'id' | 'index' | 'pass' | 'deed' | 'link'>,
  what: number,
  extra = 0,
): RankedEdit {
  // Field by field: hundreds are made for each report, and a spread costs several times as much.
  return { id, link, pass, deed, disturbs: DISTURBED[what]!, index, cost: DISTURBED_COST[what]! + extra };
}
