import { act, render, screen } from '@testing-library/react';
import { userEvent as realUser } from '@testing-library/user-event';
import { useState } from 'react';
import type { BookFacets, BookQuery } from '#contract/book';
import { DEFAULT_SETTINGS } from '#contract/settings';
import { BookFilters } from './BookFilters';

const FACETS: BookFacets = {
  types: [
    { value: 'reel', count: 12 },
    { value: 'none', count: 3 },
  ],
  keys: [{ value: 'Bb major', count: 2 }],
  tunings: [{ value: 'G3 D4 A4 E5', count: 15 }],
  tags: [{ value: 'class', count: 4 }],
  techniques: [{ value: 'shift', count: 1 }],
  tunes: 15,
  removed: 2,
  asOf: '2026-02-03T10:00:00Z',
};

function shown(start: BookQuery = {}, notesProblem: string | null = null, answersAfterMs = 0) {
  const told: BookQuery[] = [];
  function Page() {
    const [query, setQuery] = useState(start);
    return (
      <>
        <BookFilters
          query={query}
          facets={FACETS}
          words={DEFAULT_SETTINGS.words}
          notesProblem={notesProblem}
          onChange={(next) => {
            told.push(next);
            if (answersAfterMs > 0) setTimeout(() => setQuery(next), answersAfterMs);
            else setQuery(next);
          }}
        >
          <span>views</span>
        </BookFilters>
        <button type="button" onClick={() => setQuery({ words: 'heron' })}>
          a view
        </button>
      </>
    );
  }
  render(<Page />);
  return told;
}

// A clock of its own: letters that come at once do so on a busy machine too.
jest.useFakeTimers();
const userEvent = realUser.setup({ delay: null, advanceTimers: (ms) => jest.advanceTimersByTime(ms) });

/** Longer than a search waits for the next letter. */
const pause = () => act(() => jest.advanceTimersByTimeAsync(260));

test('words are looked for when the typing stops, once, without spaces around them', async () => {
  const told = shown({ key: 'D major' });
  await userEvent.type(screen.getByLabelText('Search the book'), ' heron ');
  await pause();
  expect(told).toEqual([{ key: 'D major', words: 'heron' }]);
});

test('emptied by Escape or by its button, the search is gone from the query', async () => {
  const told = shown({ words: 'heron', notes: 'd f# a' });
  await userEvent.type(screen.getByLabelText('Search the book'), '{Escape}');
  await pause();
  expect(told.at(-1)).toEqual({ notes: 'd f# a' });
  await userEvent.click(screen.getByRole('button', { name: /^Clear: First notes/ }));
  await pause();
  expect(told.at(-1)).toEqual({});
});

test('what is typed in the second field before the page has answered to the first keeps both', async () => {
  const told = shown({ words: 'heron' }, null, 100);
  await userEvent.type(screen.getByLabelText('Search the book'), '{Escape}');
  await userEvent.type(screen.getByLabelText(/^First notes/), 'd');
  await pause();
  expect(told.at(-1)).toEqual({ notes: 'd' });
  await pause();
  expect(screen.getByLabelText<HTMLInputElement>('Search the book').value).toBe('');
});

test('a slash goes to the words and n to the notes, but neither while something is typed', async () => {
  shown();
  await userEvent.keyboard('/');
  const words = screen.getByLabelText('Search the book');
  expect(document.activeElement).toBe(words);
  await userEvent.keyboard('n');
  expect(document.activeElement).toBe(words);
  act(() => words.blur());
  await userEvent.keyboard('n');
  expect(document.activeElement).toBe(screen.getByLabelText(/^First notes/));
});

test('a view changes what stands in the field', async () => {
  shown({ words: 'gull' });
  await userEvent.click(screen.getByRole('button', { name: 'a view' }));
  expect(screen.getByLabelText<HTMLInputElement>('Search the book').value).toBe('heron');
});

test('notes that cannot be read are told at their field', () => {
  shown({ notes: 'd h' }, '“h” is no note: expected letters a to g.');
  const field = screen.getByLabelText(/^First notes/);
  expect(field.getAttribute('aria-invalid')).toBe('true');
  const problem = screen.getByRole('alert');
  expect(problem.textContent).toBe('“h” is no note: expected letters a to g.');
  expect(field.getAttribute('aria-describedby')).toBe(problem.id);
});

test('conditions hold together, are counted, and cleared without losing search and order', async () => {
  const told = shown({ words: 'heron', sort: 'tempo', down: 'yes' });
  await userEvent.click(screen.getByRole('button', { name: 'Filter' }));
  await userEvent.selectOptions(screen.getByLabelText('Type'), 'reel (12)');
  await userEvent.selectOptions(screen.getByLabelText('Key'), 'B♭ major (2)');
  await userEvent.selectOptions(screen.getByLabelText('Practised'), 'not for a month');
  expect(told.at(-1)).toEqual({
    words: 'heron',
    sort: 'tempo',
    down: 'yes',
    type: 'reel',
    key: 'Bb major',
    practised: 'not-30',
  });
  expect(screen.getByRole('button', { name: 'Filter · 3' })).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Clear the filter' }));
  expect(told.at(-1)).toEqual({ words: 'heron', sort: 'tempo', down: 'yes' });
});

test('opened by an address that has conditions, they are seen; “any” takes one away', async () => {
  const told = shown({ tag: 'class' });
  expect(screen.getByRole('button', { name: 'Filter · 1' }).getAttribute('aria-expanded')).toBe('true');
  await userEvent.selectOptions(screen.getByLabelText('Tag'), 'any');
  expect(told.at(-1)).toEqual({});
});

test('a tune without a dance type can be asked for, and tunes removed from the book too', async () => {
  const told = shown({ round: 'yes' });
  await userEvent.selectOptions(screen.getByLabelText('Type'), 'not set (3)');
  await userEvent.click(screen.getByLabelText('tunes removed from the book (2)'));
  expect(told.at(-1)).toEqual({ round: 'yes', type: 'none', removed: 'yes' });
});

test('what is typed on while the address is still on its way stays typed, and a view still changes the field', async () => {
  shown({}, null, 900);
  const field = screen.getByLabelText<HTMLInputElement>('Search the book');
  await userEvent.type(field, 't');
  await pause();
  await userEvent.type(field, 'h');
  await pause();
  await userEvent.type(field, 'e');
  await pause();
  // Each comes back in its time, the older ones first.
  for (let i = 0; i < 8; i++) {
    await pause();
    expect(field.value).toBe('the');
  }
  await userEvent.click(screen.getByRole('button', { name: 'a view' }));
  expect(field.value).toBe('heron');
});
