import { render, screen, within } from '@testing-library/react';
import { bar, note, part, tune } from '../../core/testing/tunes';
import { AlignedBars } from './AlignedBars';

const one = tune([part('A', 'D4 E4 F#4 G4 A4 B4 A4 F#4 | D5:4 C#5:4')]);
const other = tune([part('A', 'D4 E4 F#4 G4 A4:2 F#4:2 | B4:4 G4:4')]);

test('each bar shows both settings, and where they differ is told in words and signs', () => {
  render(<AlignedBars one={one} other={other} names={['now', 'theirs']} />);
  const bars = screen.getAllByRole('listitem');
  expect(bars).toHaveLength(2);
  expect(bars[0]!.textContent).toContain('D E F♯ G');
  expect(within(bars[0]!).getByText(/agrees on the beat/)).toBeTruthy();
  expect(within(bars[1]!).getAllByText(/differs/)).toHaveLength(2);
  // A stroke marks the octave above middle C's.
  expect(bars[1]!.textContent).toContain('D′');
  expect(screen.getByText(/Above: now; below: theirs\./)).toBeTruthy();
});

test('of long tunes the first bars are shown, and how many more there are', () => {
  render(<AlignedBars one={one} other={one} names={['now', 'same']} max={1} />);
  expect(screen.getAllByRole('listitem')).toHaveLength(1);
  expect(screen.getByText('and 1 more bar')).toBeTruthy();
  expect(screen.getByText(/They agree on all 4 beats\./)).toBeTruthy();
});

test('bars of endings say on which time they are played', () => {
  const events = [
    bar('b1'),
    note('n1', 'D4', 8),
    bar('b2', { ending: true, onPlays: [1, 3] }),
    note('n2', 'E4', 8),
    bar('b3', { ending: true, onPlays: [2] }),
    note('n3', 'F#4', 8),
  ];
  const value = tune([{ name: 'A', events }], { form: ['A', 'A', 'A'] });
  render(<AlignedBars one={value} other={value} names={['now', 'then']} />);
  const labels = screen.getAllByRole('listitem').map((item) => item.querySelector('p')!.textContent);
  expect(labels).toEqual(['A 1', 'A 2, 1st and 3rd time', 'A 2, 2nd time']);
});
