import { setLinks } from '#core/bowing';
import { pitchName } from '#core/pitch';
import { type Tune, writtenBars, writtenNotes } from '#core/tune';
import { part, randomTune, seeded, tune } from '../testing/tunes';
import { joinBar } from './bars';
import { removePart } from './form';
import { enterEvent } from './insert';
import { rebar } from './rebar';
import { removeEvents } from './remove';
import { followReuse, releaseBars, reuseBars, sameMusic } from './reuse';
import { transposeBySteps } from './transpose';

const base = tune([
  part('A', 'D4:2 E4:2 F#4:2 G4:2 | (A4:2 B4:2) C#5:2 D5:2 | D5:8'),
  part('B', 'D5:4 A4:4 | G4:8 | F#4:8'),
]);
/** The last bar of B takes up the second of A, and one more bar its third. */
const linked = reuseBars(base, ['Ab2', 'Ab3'], 'B', 'Bb3')!;

function notesOf(t: Tune, name: string, bar: number) {
  return writtenBars(t)
    .get(name)!
    [bar - 1]!.events.flatMap((event) => (event.kind === 'note' ? [event] : []));
}
const pitches = (t: Tune, name: string, bar: number) => notesOf(t, name, bar).map(({ pitch }) => pitchName(pitch));
const edit = (t: Tune, change: (t: Tune) => Tune) => followReuse(t, change(t));

test('bars taken up stand in place of the old ones and go on past the end, with ids of their own', () => {
  expect(pitches(linked, 'B', 3)).toEqual(['A4', 'B4', 'C#5', 'D5']);
  expect(pitches(linked, 'B', 4)).toEqual(['D5']);
  expect(writtenBars(linked).get('B')![2]!.event).toMatchObject({ id: 'Bb3', reuses: 'Ab2' });
  const ids = linked.parts.flatMap(({ events }) => events).map(({ id }) => id);
  expect(new Set(ids).size).toBe(ids.length);
  expect(notesOf(linked, 'B', 3).map(({ link }) => link)).toEqual(['change', 'slur', 'change', 'change']);
});

test('an edit of the notes in either place is made in both; links are each place’s own', () => {
  const inA = edit(linked, (t) => transposeBySteps(t, new Set([notesOf(t, 'A', 2)[2]!.id]), 1));
  expect(pitches(inA.tune, 'B', 3)).toEqual(['A4', 'B4', 'D5', 'D5']);
  expect(inA.bars).toEqual(['Bb3']);
  const inB = edit(inA.tune, (t) => transposeBySteps(t, new Set([notesOf(t, 'B', 3)[0]!.id]), -1));
  expect(pitches(inB.tune, 'A', 2)).toEqual(['G4', 'B4', 'D5', 'D5']);
  const bowed = edit(inB.tune, (t) => setLinks(t, new Map([[notesOf(t, 'B', 3)[1]!.id, 'change']])));
  expect(bowed.bars).toEqual([]);
  const again = edit(bowed.tune, (t) => transposeBySteps(t, new Set([notesOf(t, 'A', 2)[1]!.id]), 1));
  expect(notesOf(again.tune, 'A', 2).map(({ link }) => link)).toEqual(['change', 'slur', 'change', 'change']);
  expect(notesOf(again.tune, 'B', 3).map(({ link }) => link)).toEqual(['change', 'change', 'change', 'change']);
  expect(pitches(again.tune, 'B', 3)).toEqual(['G4', 'C#5', 'D5', 'D5']);
});

test('notes taken away or entered in one place go or come in the other, and what stays keeps its id', () => {
  const before = notesOf(linked, 'B', 3).map(({ id }) => id);
  const shorter = edit(linked, (t) => removeEvents(t, new Set([notesOf(t, 'A', 2)[1]!.id])));
  expect(notesOf(shorter.tune, 'B', 3).map(({ id }) => id)).toEqual([before[0], before[2], before[3]]);
  const { pitch, duration } = notesOf(linked, 'A', 1)[0]!;
  const longer = edit(
    shorter.tune,
    (t) => enterEvent(t, notesOf(t, 'B', 3)[0]!.id, { kind: 'note', pitch, duration, link: 'change' }).tune,
  );
  expect(pitches(longer.tune, 'A', 2)).toEqual(['A4', 'D4', 'C#5', 'D5']);
});

test('where an edit moves notes over a bar line the bars part, and nothing is lost', () => {
  const joined = edit(linked, (t) => joinBar(t, 'Ab3'));
  expect(pitches(joined.tune, 'B', 3)).toEqual(['A4', 'B4', 'C#5', 'D5']);
  expect(writtenBars(joined.tune).get('B')![2]!.event.reuses).toBeUndefined();
  const overfull = edit(linked, (t) => {
    const { pitch, duration } = notesOf(t, 'A', 1)[0]!;
    return enterEvent(t, notesOf(t, 'A', 2)[0]!.id, { kind: 'note', pitch, duration, link: 'change' }).tune;
  });
  const redrawn = edit(overfull.tune, (t) => rebar(t, 'Ab2'));
  const sounded = notesOf(redrawn.tune, 'B', 3).length + notesOf(redrawn.tune, 'B', 4).length;
  expect(sounded).toBe(notesOf(overfull.tune, 'B', 3).length + notesOf(overfull.tune, 'B', 4).length);
});

test('bars outlive the part that they take up', () => {
  const alone = edit(linked, (t) => removePart(t, 'A'));
  expect(pitches(alone.tune, 'B', 3)).toEqual(['A4', 'B4', 'C#5', 'D5']);
  expect(alone.tune.parts[0]!.events.some((event) => event.kind === 'bar' && event.reuses)).toBe(false);
});

test('bars are not taken up in their own place, and taking up a follower takes up what it follows', () => {
  expect(reuseBars(base, ['Ab2'], 'A', 'Ab2')).toBeNull();
  expect(reuseBars(base, ['Ab1', 'Ab2'], 'A', 'Ab2')).toBeNull();
  expect(reuseBars(base, ['nowhere'], 'B', null)).toBeNull();
  const third = reuseBars(linked, ['Bb3'], 'B', null)!;
  expect(writtenBars(third).get('B')!.at(-1)!.event.reuses).toBe('Ab2');
});

test('on their own way bars follow no more', () => {
  const free = releaseBars(linked, new Set(['Bb3']));
  const moved = edit(free, (t) => transposeBySteps(t, new Set([notesOf(t, 'A', 2)[0]!.id]), 1));
  expect(pitches(moved.tune, 'B', 3)[0]).toBe('A4');
});

test('after any edits of random tunes bars that take up others have their notes, and no note is lost with them', () => {
  const random = seeded(20261125);
  for (let round = 0; round < 60; round++) {
    const start = randomTune(round + 1);
    const [first] = writtenBars(start).get(start.parts[0]!.name)!;
    let now = reuseBars(start, [first!.event.id], start.parts.at(-1)!.name, null)!;
    for (let step = 0; step < 8; step++) {
      const notes = writtenNotes(now);
      const at = notes[Math.floor(random() * notes.length)]!;
      now = edit(now, (t) => {
        if (random() < 0.4) return transposeBySteps(t, new Set([at.id]), 1);
        if (random() < 0.5) return removeEvents(t, new Set([at.id]));
        return setLinks(t, new Map([[at.id, 'slur']]));
      }).tune;
    }
    for (const event of now.parts.flatMap(({ events }) => events))
      if (event.kind === 'bar' && event.reuses) expect(sameMusic(now, event.id, event.reuses)).toBe(true);
  }
});
