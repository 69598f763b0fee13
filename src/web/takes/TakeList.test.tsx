import 'fake-indexeddb/auto';
import { act, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { sampleTake } from '../testing/sampleTake';
import { keepTake, type KeptTake, takesOf } from './keptTakes';
import { showTake, useShownTake } from './shownTake';
import { TakeList } from './TakeList';

const TUNE = 'tide';
beforeEach(() => act(() => showTake(null)));

function List({ first }: { readonly first: readonly KeptTake[] }) {
  const [takes, setTakes] = useState(first);
  const [compared, setCompared] = useState<KeptTake | null>(null);
  const { take } = useShownTake(TUNE);
  return (
    <>
      <TakeList
        takes={takes}
        shown={take}
        compared={compared}
        onCompare={setCompared}
        onChanged={() => void takesOf(TUNE).then(setTakes)}
      />
      <p data-testid="state">
        {take?.id ?? 'none'} against {compared?.id ?? 'none'}
      </p>
    </>
  );
}

async function shown(): Promise<void> {
  const sound = new Float32Array(4410);
  const early = await keepTake(sampleTake({ id: 'early', at: '2026-11-01T08:00:00.000Z' }), sound);
  const late = await keepTake(sampleTake({ id: 'late', at: '2026-11-03T08:00:00.000Z' }), sound);
  render(<List first={[late, early]} />);
}
const state = () => screen.getByTestId('state').textContent;

test('without takes it says so', () => {
  render(<List first={[]} />);
  expect(screen.getByText(/No takes of this tune/)).toBeTruthy();
});

test('a take is shown by a press and put away by another; the first is compared with the last', async () => {
  await shown();
  const [late] = screen.getAllByRole('button', { pressed: false });
  await userEvent.click(late!);
  expect(state()).toBe('late against none');
  await userEvent.click(screen.getByRole('button', { name: 'Compare the first with the last' }));
  expect(state()).toBe('late against early');
  await userEvent.click(screen.getAllByRole('button', { pressed: true })[0]!);
  expect(state()).toBe('none against early');
});

test('a take that is shown is put away when it is deleted, and undo brings it back to the list', async () => {
  await shown();
  await userEvent.click(screen.getAllByRole('button', { pressed: false })[0]!);
  await userEvent.click(screen.getAllByRole('button', { name: /^Delete the take/ })[0]!);
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(1));
  expect(state()).toBe('none against none');
  await userEvent.click(screen.getByRole('button', { name: 'Undo' }));
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(2));
});

test('how much room they take is told, and a take is accepted as a reference', async () => {
  await shown();
  expect(screen.getByRole('heading').textContent).toMatch(/2 takes kept here.*18 kB/);
  await userEvent.click(screen.getAllByRole('button', { pressed: false })[0]!);
  await userEvent.click(screen.getByRole('checkbox'));
  await waitFor(async () => expect((await takesOf(TUNE))[0]!.isAccepted).toBe(true));
});
