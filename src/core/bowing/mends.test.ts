import { unroll } from '#core/tune';
import { randomTune } from '../testing/tunes';
import { setLinks } from './gestures';
import { bowingLedger } from './ledger';
import { roundMends } from './mends';
import { bowNotes, startOf } from './strokes';

function ledgerOf(t: ReturnType<typeof randomTune>) {
  const unrolled = unroll(t);
  const bowed = bowNotes(unrolled.notes, startOf(t, unrolled).direction);
  return { unrolled, bowed, ledger: bowingLedger(unrolled, bowed) };
}

test('every mend that promises to bring the tune round does so when it is made', () => {
  let tried = 0;
  for (let seed = 1; seed <= 90; seed++) {
    const t = randomTune(seed);
    const { unrolled, bowed, ledger } = ledgerOf(t);
    if (ledger.comesRound || unrolled.notes.length === 0) continue;
    for (const part of [...ledger.flippedParts, null])
      for (const mend of roundMends(unrolled, bowed, part, () => 'D')) {
        const after = ledgerOf(setLinks(t, new Map([[mend.id, mend.link]]))).ledger;
        expect([seed, mend.id, after.comesRound]).toEqual([seed, mend.id, mend.mendsAll]);
        if (part !== null) expect(after.flippedParts).not.toContain(part);
        tried += 1;
      }
  }
  expect(tried).toBeGreaterThan(300);
});

test('no single split or join that brings a tune round is missed', () => {
  for (let seed = 300; seed <= 330; seed++) {
    const t = randomTune(seed);
    const { unrolled, bowed, ledger } = ledgerOf(t);
    if (ledger.comesRound || unrolled.notes.length === 0) continue;
    const found = new Set(
      roundMends(unrolled, bowed, null, () => 'D')
        .filter(({ mendsAll }) => mendsAll)
        .map(({ id }) => id),
    );
    for (const { index, note, passIndex, restBefore } of unrolled.notes) {
      // Edits that the search leaves alone: the first note, overridden ones, and joins over a rest or into a pass.
      if (index === 0 || note.linkOnPass || note.link === 'retake') continue;
      const isFirstMeeting = unrolled.notes.findIndex((other) => other.note.id === note.id) === index;
      const isJoin = note.link === 'change';
      if (!isFirstMeeting || (isJoin && (restBefore.n > 0 || unrolled.notes[index - 1]!.passIndex !== passIndex)))
        continue;
      const after = ledgerOf(setLinks(t, new Map([[note.id, isJoin ? 'slur' : 'change'] as const]))).ledger;
      if (after.comesRound) expect([seed, note.id, found.has(note.id)]).toEqual([seed, note.id, true]);
    }
  }
});
