import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { part, tune } from '../../core/testing/tunes';
import { Adopt } from './Adopt';

const next = tune([part('A', 'D4 E4')]);

function show(more: { isNow?: boolean; isSilent?: boolean } = {}) {
  const done: string[] = [];
  render(
    <Adopt
      next={next}
      label="a drone"
      name="open A"
      onApply={(taken, label) => done.push(`take ${taken === next} ${label}`)}
      onPreview={(looked) => done.push(looked === next ? 'look' : 'look away')}
      onHear={(heard) => done.push(heard === next ? 'hear' : 'hear as it is')}
      {...more}
    />,
  );
  return done;
}

test('a proposal is looked at while it is pointed at, and when the focus comes and goes', async () => {
  const done = show();
  fireEvent.pointerMove(screen.getByRole('button', { name: /take it/ }));
  fireEvent.pointerLeave(screen.getByRole('button', { name: /take it/ }).parentElement!);
  expect(done).toEqual(['look', 'look away']);
  await userEvent.tab();
  expect(done.at(-1)).toBe('look');
});

test('it is heard before it is taken, and what is looked at goes when it is taken', async () => {
  const done = show();
  await userEvent.click(screen.getByRole('button', { name: 'Hear it: open A' }));
  expect(done).toContain('hear');
  await userEvent.click(screen.getByRole('button', { name: /^take it/ }));
  expect(done.slice(-2)).toEqual(['look away', 'take true a drone']);
});

test('what is so already cannot be taken, and what does not sound cannot be heard', () => {
  show({ isNow: true, isSilent: true });
  expect(screen.getByRole('button')).toHaveProperty('disabled', true);
});
