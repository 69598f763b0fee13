import { add, floorQuotient, type Fraction, fraction, multiply, toNumber, ZERO } from '#core/base';
import type { NoteEvent, RestEvent } from '#core/tune';
import { el, type XmlOut } from './xml';

/** Flags of a written length: an eighth has one, a sixteenth two. */
function flagsOf({ duration, tuplet }: NoteEvent | RestEvent): number {
  const written = tuplet ? multiply(duration, fraction(tuplet.notes, tuplet.inTimeOf)) : duration;
  return Math.max(0, Math.ceil(Math.log2(1 / toNumber(written)) - 2 - 1e-9));
}

/**
 * The beam elements of each event of a bar: notes shorter than a quarter are joined within a beat, a rest or a longer
 * note parts them. A sixteenth that stands alone between eighths has a hook toward the middle of its group.
 */
export function beamsOf(events: readonly (NoteEvent | RestEvent)[], beat: Fraction): XmlOut[][] {
  const beams: XmlOut[][] = events.map(() => []);
  let onset = ZERO;
  let group: number[] = [];
  let groupBeat = -1;
  const close = () => {
    if (group.length > 1) addBeams(group, events, beams);
    group = [];
  };
  for (const [i, event] of events.entries()) {
    const own = floorQuotient(onset, beat);
    if (own !== groupBeat) close();
    groupBeat = own;
    if (event.kind === 'note' && flagsOf(event) > 0) group.push(i);
    else close();
    onset = add(onset, event.duration);
  }
  close();
  return beams;
}

function addBeams(group: readonly number[], events: readonly (NoteEvent | RestEvent)[], beams: XmlOut[][]): void {
  const flags = group.map((i) => flagsOf(events[i]!));
  for (let level = 1; level <= Math.max(...flags); level++)
    for (const [k, i] of group.entries()) {
      if (flags[k]! < level) continue;
      const before = (flags[k - 1] ?? 0) >= level;
      const after = (flags[k + 1] ?? 0) >= level;
      const kind =
        before && after ? 'continue' : after ? 'begin' : before ? 'end' : k === 0 ? 'forward hook' : 'backward hook';
      beams[i]!.push(el('beam', { number: level }, kind));
    }
}
