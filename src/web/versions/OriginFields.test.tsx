import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import type { VersionOrigin } from '#contract/versions';
import { OriginFields } from './OriginFields';

const PLAN: VersionOrigin = { kind: 'plan', taughtBy: '', learnedOn: null, note: '' };

function shown(start: VersionOrigin) {
  const told: VersionOrigin[] = [];
  function Page() {
    const [origin, setOrigin] = useState(start);
    return (
      <OriginFields
        origin={origin}
        onChange={(next) => {
          told.push(next);
          setOrigin(next);
        }}
      />
    );
  }
  render(<Page />);
  return told;
}

test('who taught it, when, and what was said about it are told apart', async () => {
  const told = shown(PLAN);
  await userEvent.click(screen.getByRole('radio', { name: 'a setting as somebody plays it' }));
  await userEvent.type(screen.getByLabelText('Taught by'), 'Maren');
  fireEvent.change(screen.getByLabelText('Learned on'), { target: { value: '2025-07-12' } });
  await userEvent.type(screen.getByLabelText('Note'), 'slower');
  expect(told.at(-1)).toEqual({ kind: 'setting', taughtBy: 'Maren', learnedOn: '2025-07-12', note: 'slower' });
});

test('a day that is taken away is none', () => {
  const told = shown({ ...PLAN, learnedOn: '2025-07-12' });
  fireEvent.change(screen.getByLabelText('Learned on'), { target: { value: '' } });
  expect(told.at(-1)).toEqual(PLAN);
});
