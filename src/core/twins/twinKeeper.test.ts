import { setLinks } from '#core/bowing';
import { writtenNotes } from '#core/tune';
import { part, randomTune, tune } from '../testing/tunes';
import { twinKeeper } from './twinKeeper';
import { twinFigures } from './twins';

const FIGURE = 'D4 E4 F#4 G4';

test('the inner links of a figure bowed alike elsewhere would part it from its twin, the link into it would not', () => {
  const keeps = twinKeeper(tune([part('A', `${FIGURE} B4 | ${FIGURE} A4`)]));
  expect(['A1', 'A2', 'A3', 'A4', 'A5'].map(keeps)).toEqual([false, true, true, true, false]);
});

test('a link that is already another one has nothing to part', () => {
  const played = setLinks(tune([part('A', `${FIGURE} B4 | ${FIGURE} A4`)]), new Map([['A3', 'slur']]));
  expect(twinKeeper(played)('A3')).toBe(false);
  expect(twinKeeper(played)('unknown')).toBe(false);
});

test('a link within a figure whose spots are all bowed alike is always kept', () => {
  for (let seed = 1; seed <= 120; seed++) {
    const played = randomTune(seed);
    const keeps = twinKeeper(played);
    for (const { spots, isBowedAlike } of twinFigures(played)) {
      // Marks and chords do not matter to the bow, rests part figures here.
      const isWhole = spots.every((place) => place.every(({ link }) => link !== 'start'));
      if (!isBowedAlike || !isWhole) continue;
      for (const place of spots)
        for (const { id } of place.slice(1))
          if (!hasRestWithin(played, place[0]!.id, place.length))
            expect([seed, id, keeps(id)]).toEqual([seed, id, true]);
    }
  }
});

/** Whether a rest stands between the notes of a stretch. */
function hasRestWithin(played: ReturnType<typeof randomTune>, first: string, length: number): boolean {
  const events = played.parts.flatMap(({ events: all }) => all).filter(({ kind }) => kind !== 'bar');
  const from = events.findIndex(({ id }) => id === first);
  return events.slice(from, from + length).some(({ kind }) => kind === 'rest') || writtenNotes(played).length < length;
}
