import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Select } from './Select';

test('a choice comes back as it was given: a number, nothing at all, or the word itself', async () => {
  const told: unknown[] = [];
  render(
    <>
      <Select
        label="bars"
        value={4}
        options={[
          { value: null, name: 'automatic' },
          { value: 4, name: 'four' },
        ]}
        onChange={(value) => told.push(value)}
      />
      <Select<string>
        label="mode"
        value="dorian"
        options={['major', 'dorian']}
        onChange={(value) => told.push(value)}
      />
    </>,
  );
  expect(screen.getByRole<HTMLSelectElement>('combobox', { name: 'bars' }).selectedOptions[0]!.text).toBe('four');
  await userEvent.selectOptions(screen.getByLabelText('bars'), 'automatic');
  await userEvent.selectOptions(screen.getByLabelText('mode'), 'major');
  expect(told).toEqual([null, 'major']);
});
