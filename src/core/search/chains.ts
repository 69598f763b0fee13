import { againFrom } from '#core/bowing';
import type { Unrolled } from '#core/tune';

/**
 * A run of written notes that every pass plays in one go: nothing leaves or joins it in between. A part without endings
 * is one chain, one with endings is its body and each of its endings.
 */
export interface Chain {
  readonly part: string;
  /** Index of the first note of each playing; note k of the chain is `starts[r] + k`. */
  readonly starts: readonly number[];
  readonly length: number;
  /** The meeting points at which it begins and ends. */
  readonly from: number;
  readonly to: number;
}

/** The chains of a tune in written order, and how many points there are at which they meet. */
export interface Chains {
  readonly chains: readonly Chain[];
  readonly meetings: number;
}

/**
 * Cuts a tune into chains. Where passes part or meet, all that come together must come in one direction if every written
 * note is to be met in one direction: such a place is a meeting point, and chains that end where one other may follow
 * share it. The end of the tune meets the place at which it is taken up again; a pickup that is played only once meets nothing.
 * Time O(n) for n played notes.
 */
export function chainsOf(unrolled: Unrolled): Chains {
  const { notes } = unrolled;
  const again = againFrom(unrolled);
  // Where the first note is held over from the last, it is the one after it that is come to.
  const back = again ? again.index + (again.isHeld ? 1 : 0) : 0;
  const next = new Map<string, Set<string>>();
  const before = new Map<string, Set<string>>();
  const addTo = (map: Map<string, Set<string>>, key: string, value: string) => {
    const known = map.get(key);
    if (known) known.add(value);
    else map.set(key, new Set([value]));
  };
  for (const [i, { note }] of notes.entries()) {
    const following = (notes[i + 1] ?? notes[back] ?? notes[0]!).note.id;
    addTo(next, note.id, following);
    addTo(before, following, note.id);
  }
  const begins = notes.map(({ note, passIndex }, i) => {
    const earlier = notes[i - 1];
    return (
      !earlier ||
      earlier.passIndex !== passIndex ||
      next.get(earlier.note.id)!.size > 1 ||
      before.get(note.id)!.size > 1
    );
  });
  // A note that begins a chain on one pass does so on all.
  const heads = new Set(notes.filter((_, i) => begins[i]).map(({ note }) => note.id));

  const found = new Map<string, { part: string; starts: number[]; length: number; last: string }>();
  for (let i = 0; i < notes.length;) {
    let end = i + 1;
    while (end < notes.length && !heads.has(notes[end]!.note.id)) end += 1;
    const { note, part } = notes[i]!;
    const known = found.get(note.id);
    if (known) known.starts.push(i);
    else found.set(note.id, { part, starts: [i], length: end - i, last: notes[end - 1]!.note.id });
    i = end;
  }
  const ends = meetingPoints(
    [...found.values()].map(({ last }) => last),
    next,
  );
  let meetings = ends.count;
  const chains = [...found].map(([head, { part, starts, length, last }]): Chain => {
    const [anyBefore] = before.get(head) ?? [];
    const from = anyBefore === undefined ? meetings++ : ends.pointOf(anyBefore);
    return { part, starts, length, from, to: ends.pointOf(last) };
  });
  return { chains, meetings };
}

/** Last notes that may be followed by one note belong to one point. */
function meetingPoints(lasts: readonly string[], next: ReadonlyMap<string, ReadonlySet<string>>) {
  const leader = new Map<string, string>(lasts.map((last) => [last, last]));
  const find = (last: string): string => {
    const above = leader.get(last)!;
    return above === last ? last : find(above);
  };
  const firstInto = new Map<string, string>();
  for (const last of lasts)
    for (const head of next.get(last)!) {
      const other = firstInto.get(head);
      if (other === undefined) firstInto.set(head, last);
      else leader.set(find(last), find(other));
    }
  const numbers = new Map<string, number>();
  for (const last of lasts) if (!numbers.has(find(last))) numbers.set(find(last), numbers.size);
  return { pointOf: (last: string) => numbers.get(find(last))!, count: numbers.size };
}
