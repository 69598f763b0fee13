import { render, screen, within } from '@testing-library/react';
import { sampleTake } from '../testing/sampleTake';
import type { KeptTake } from './keptTakes';
import { TakeComparison } from './TakeComparison';
import type { TakenNote } from './takeResult';

const note = (cents: number, heard = true): TakenNote => ({
  index: 0,
  loop: 0,
  heard,
  onset: 1,
  end: 2,
  offMs: 0,
  cents,
  uncertainty: 1,
  level: -20,
  curve: [],
});
const withNotes = (take: KeptTake, notes: readonly TakenNote[]): KeptTake => ({
  ...take,
  result: { ...take.result, notes },
});
const first = withNotes(
  sampleTake(
    { id: 'first', at: '2026-11-01T08:00:00.000Z' },
    { tempo: { bpm: 72, driftPercentPerMinute: null, driftUncertainty: null, steadinessMs: 21 }, heardNotes: 38 },
  ),
  [note(-12), note(30), note(4), note(90, false)],
);
const last = withNotes(
  sampleTake(
    { id: 'last', at: '2026-11-09T08:00:00.000Z' },
    { tempo: { bpm: 84, driftPercentPerMinute: -1.26, driftUncertainty: 0.4, steadinessMs: 9 }, biteMs: 31 },
  ),
  [note(NaN), note(3)],
);

const row = (name: string) =>
  within(screen.getByRole('rowheader', { name }).closest('tr')!)
    .getAllByRole('cell')
    .map(({ textContent }) => textContent);

test.each([
  [first, last],
  [last, first],
])('the earlier take stands first, whichever was chosen first', (one, other) => {
  render(<TakeComparison one={one} other={other} />);
  expect(row('tempo')).toEqual(['72', '84']);
  expect(row('notes heard')).toEqual(['38', '40']);
  expect(row('steady within')).toEqual(['21 ms', '9 ms']);
});

test('the middle note of those heard tells how far off pitch a take is, and what was not heard has no figure', () => {
  render(<TakeComparison one={first} other={last} />);
  expect(row('off pitch, the middle note')).toEqual(['12 cents', '3 cents']);
  expect(row('drift a minute')).toEqual(['not heard', '-1.3 %']);
  expect(row('noise before the pitch')).toEqual(['not heard', '31 ms']);
});
