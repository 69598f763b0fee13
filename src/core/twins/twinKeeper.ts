import { midiOf } from '#core/pitch';
import { type Link, type Tune, writtenBars } from '#core/tune';
import { MIN_FIGURE } from './twins';

/**
 * Tells of a note whether its link belongs to an equal figure that is bowed alike somewhere else: an edit of that link
 * alone would part the two. Figures are four notes or more with the same pitches and lengths; the link into their first
 * note is not theirs.
 *
 * Only what is asked for is looked at: the stretch about the note is compared with the one about every other note.
 * Time O(n) to make ready, and O(n) for each note asked, as a rule.
 */
export function twinKeeper(tune: Tune): (id: string) => boolean {
  let known: Written | null = null;
  return (id) => {
    known ??= readNotes(tune);
    const { sounds, links, at } = known;
    const here = at.get(id);
    if (here === undefined) return false;
    for (let there = 0; there < sounds.length; there++) {
      if (there === here || sounds[there] !== sounds[here] || links[there] !== links[here]) continue;
      let [before, after] = [0, 0];
      while (isAlike(known, here - before - 1, there - before - 1)) before += 1;
      while (isAlike(known, here + after + 1, there + after + 1)) after += 1;
      // The figure may begin a note earlier than the links agree: that note's own link is not part of it.
      const lead = sounds[here - before - 1] !== undefined && sounds[here - before - 1] === sounds[there - before - 1];
      const length = before + 1 + after + (lead ? 1 : 0);
      if (length >= MIN_FIGURE && (before > 0 || lead)) return true;
    }
    return false;
  };
}

interface Written {
  /** A number for each written note, equal where pitch and length are; what parts two stretches has one of its own. */
  readonly sounds: readonly number[];
  readonly links: readonly (Link | null)[];
  readonly at: ReadonlyMap<string, number>;
}

function isAlike({ sounds, links }: Written, one: number, other: number): boolean {
  return sounds[one] !== undefined && sounds[one] === sounds[other] && links[one] === links[other];
}

function readNotes(tune: Tune): Written {
  const sounds: number[] = [];
  const links: (Link | null)[] = [];
  const at = new Map<string, number>();
  let once = -1;
  const part = () => {
    sounds.push(once--);
    links.push(null);
  };
  for (const bars of writtenBars(tune).values()) {
    let ending = '';
    for (const { event, events } of bars) {
      const own = event.ending ? String(event.onPlays) : '';
      if (own !== ending) part();
      ending = own;
      for (const item of events) {
        if (item.kind !== 'note') {
          part();
          continue;
        }
        at.set(item.id, sounds.length);
        sounds.push((midiOf(item.pitch) * 1024 + item.duration.n) * 4096 + item.duration.d);
        links.push(item.link);
      }
    }
    part();
  }
  return { sounds, links, at };
}
