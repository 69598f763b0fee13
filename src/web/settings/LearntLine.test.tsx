import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { limitsWith } from '#core/tempo';
import { kindOfLimit, LearntLine } from './LearntLine';

const known = { mean: Math.log(1.1), low: 0.05, high: 0.15, attempts: 64 };

test('each limit that comes first for a kind has its line; those that only add to one have none', () => {
  expect(kindOfLimit('crossingMs')).toBe('crossing');
  expect(kindOfLimit('crossingMsPerDegree')).toBeNull();
  expect(kindOfLimit('strokeMs')).toBe('stroke');
  expect(kindOfLimit('slowestBowCmPerSecond')).toBeNull();
});

test('what the log says stands with its range beside a guess, and is taken by a press', async () => {
  const onTake = jest.fn();
  render(<LearntLine kind="hop" ability={known} limits={limitsWith()} onTake={onTake} />);
  expect(document.querySelector('[data-learnt=hop]')!.textContent).toContain(
    'your log says 100 ms (95 to 105), from 64 attempts',
  );
  await userEvent.click(screen.getByRole('button', { name: 'Take 100 ms for hops' }));
  expect(onTake).toHaveBeenCalledTimes(1);
});

test('in place of a measured limit it is offered as that; what says the same is not offered', () => {
  const measured = limitsWith({ hopMs: { value: 110, source: 'measured' } });
  const { rerender } = render(<LearntLine kind="hop" ability={known} limits={measured} onTake={() => undefined} />);
  expect(screen.getByText('take it instead of what you measured')).toBeTruthy();
  rerender(<LearntLine kind="hop" ability={{ ...known, mean: 0.005 }} limits={measured} onTake={() => undefined} />);
  expect(screen.queryByRole('button')).toBeNull();
  expect(screen.getByText('as it is')).toBeTruthy();
});

test.each([
  ['few attempts', { ...known, attempts: 3 }],
  ['a range as wide as what was thought before', { ...known, low: -0.3, high: 0.4 }],
])('%s offer nothing', (_what, ability) => {
  render(<LearntLine kind="hop" ability={ability} limits={limitsWith()} onTake={() => undefined} />);
  expect(screen.queryByRole('button')).toBeNull();
  expect(screen.getByText(/your log does not say it yet/)).toBeTruthy();
});
