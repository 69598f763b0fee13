import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { BulkDeed } from '#contract/book';
import { ChosenBar } from './ChosenBar';

function shown(more: Partial<Parameters<typeof ChosenBar>[0]> = {}) {
  const deeds: BulkDeed[] = [];
  render(
    <ChosenBar
      count={3}
      tags={['class', 'dance']}
      areRemoved={false}
      isBusy={false}
      onDeed={(deed) => deeds.push(deed)}
      onFiles={() => undefined}
      onSet={null}
      onClear={() => undefined}
      {...more}
    />,
  );
  return deeds;
}

test('a tag is put on and taken off, without commas and spaces around it', async () => {
  const deeds = shown();
  expect(screen.getByRole('status').textContent).toBe('3 chosen');
  await userEvent.click(screen.getByRole('button', { name: 'Tag' }));
  const field = screen.getByRole('combobox', { name: 'Tag' });
  expect(document.activeElement).toBe(field);
  await userEvent.type(field, ' class, slow ');
  await userEvent.click(screen.getByRole('button', { name: 'Put it on' }));
  await userEvent.click(screen.getByRole('button', { name: 'Tag' }));
  await userEvent.type(screen.getByRole('combobox', { name: 'Tag' }), 'dance');
  await userEvent.click(screen.getByRole('button', { name: 'Take it off' }));
  expect(deeds).toEqual([
    { kind: 'tag', tag: 'class slow' },
    { kind: 'untag', tag: 'dance' },
  ]);
});

test('an empty tag is none', async () => {
  const deeds = shown();
  await userEvent.click(screen.getByRole('button', { name: 'Tag' }));
  await userEvent.type(screen.getByRole('combobox', { name: 'Tag' }), '  ,{Enter}');
  expect(deeds).toEqual([]);
});

test('tunes that are out of the book can only be brought back', async () => {
  const deeds = shown({ areRemoved: true });
  expect(screen.queryByRole('button', { name: 'Remove' })).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: 'Restore' }));
  expect(deeds).toEqual([{ kind: 'bring-back' }]);
});

test('practised today is told with the moment', async () => {
  const deeds = shown();
  await userEvent.click(screen.getByRole('button', { name: 'Practised today' }));
  expect(deeds).toHaveLength(1);
  const [deed] = deeds as [Extract<BulkDeed, { kind: 'practised' }>];
  expect(Math.abs(Date.parse(deed.at) - Date.now())).toBeLessThan(60_000);
});
