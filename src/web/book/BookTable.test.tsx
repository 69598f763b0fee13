import { act, cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactElement } from 'react';
import { useState } from 'react';
import { Provider } from 'react-redux';
import type { BookSort } from '#contract/book';
import type { TuneSummary } from '#contract/tunes';
import { createStore } from '../store/store';
import { summary } from '../testing/summary';
import { BookTable } from './BookTable';
import { type Chosen, NOTHING } from './selection';

const mockNavigate = jest.fn();
jest.mock('react-router', () => ({
  Link: ({ to, children, ...rest }: { to: string; children: React.ReactNode }) => (
    <a href={to} {...rest}>
      {children}
    </a>
  ),
  useNavigate: () => mockNavigate,
}));

/** Rows are 56 px high: ten of them are seen. */
const HEIGHT = 560;

beforeEach(() => {
  // Nothing is laid out here: the body has its height, the rows theirs.
  jest.spyOn(HTMLElement.prototype, 'offsetHeight', 'get').mockImplementation(function (this: HTMLElement) {
    return this.dataset.row === undefined ? HEIGHT : 56;
  });
  jest.spyOn(Element.prototype, 'clientHeight', 'get').mockReturnValue(HEIGHT);
  jest.spyOn(Element.prototype, 'scrollHeight', 'get').mockReturnValue(300 * 56);
  jest.spyOn(Element.prototype, 'clientWidth', 'get').mockReturnValue(1000);
  HTMLElement.prototype.scrollTo = function (this: HTMLElement, options?: ScrollToOptions | number) {
    const top = typeof options === 'object' ? (options.top ?? 0) : 0;
    if (top === this.scrollTop) return;
    this.scrollTop = top;
    act(() => {
      this.dispatchEvent(new Event('scroll'));
    });
  };
});

function Book(props: {
  readonly tunes: readonly TuneSummary[];
  readonly onChosen?: (chosen: Chosen) => void;
  readonly onMore?: () => void;
  readonly onSort?: (sort: BookSort) => void;
}) {
  const [chosen, setChosen] = useState<Chosen>(NOTHING);
  return (
    <BookTable
      tunes={props.tunes}
      total={5000}
      sort="title"
      isDown={false}
      chosen={chosen}
      hasMore={props.onMore !== undefined}
      isBusy={false}
      onSort={props.onSort ?? (() => undefined)}
      onChoose={(next) => {
        setChosen(next);
        props.onChosen?.(next);
      }}
      onMore={props.onMore ?? (() => undefined)}
    />
  );
}

const store = createStore();
const show = (book: ReactElement) => render(<Provider store={store}>{book}</Provider>);

const many = Array.from({ length: 300 }, (_, i) => summary(i));
const ids = (chosen: Chosen) => (chosen.kind === 'all' ? 'all' : [...chosen.ids]);
/** The focus follows in the next frame. */
const frame = () => act(() => new Promise<void>((resolve) => requestAnimationFrame(() => resolve())));

test('of many tunes only those near the view are drawn, and the table tells how many there are', () => {
  show(<Book tunes={many} />);
  const drawn = screen.getAllByRole('row').length - 1;
  expect(drawn).toBeGreaterThanOrEqual(10);
  expect(drawn).toBeLessThan(40);
  expect(screen.getByRole('table').getAttribute('aria-rowcount')).toBe('5001');
  expect(screen.getByRole('row', { name: 'Tune 3' }).getAttribute('aria-rowindex')).toBe('5');
});

test('arrows walk, one row is reached by the tab key, and Enter opens the one reached', async () => {
  show(<Book tunes={many} />);
  act(() => screen.getByRole('row', { name: 'Tune 0' }).focus());
  await userEvent.keyboard('{ArrowDown}');
  await frame();
  await userEvent.keyboard('{ArrowDown}');
  await frame();
  expect(document.activeElement?.getAttribute('aria-label')).toBe('Tune 2');
  expect(screen.getAllByRole('row').filter((row) => row.tabIndex === 0)).toHaveLength(1);
  await userEvent.keyboard('{Enter}');
  expect(mockNavigate).toHaveBeenLastCalledWith('/tunes/id-2');
});

test('End and Home go to the last and the first tune that are there', async () => {
  show(<Book tunes={many} />);
  act(() => screen.getByRole('row', { name: 'Tune 0' }).focus());
  await userEvent.keyboard('{End}');
  await frame();
  expect(screen.getByRole('row', { name: 'Tune 299' })).toBeTruthy();
  await userEvent.keyboard('{Home}{ArrowUp}');
  await frame();
  expect(screen.getByRole('row', { name: 'Tune 0' }).tabIndex).toBe(0);
});

test('Space chooses one, Shift and arrows a stretch, Ctrl A everything, Escape nothing', async () => {
  const told: Chosen[] = [];
  show(<Book tunes={many} onChosen={(chosen) => told.push(chosen)} />);
  act(() => screen.getByRole('row', { name: 'Tune 0' }).focus());
  await userEvent.keyboard(' ');
  expect(ids(told.at(-1)!)).toEqual(['id-0']);
  await userEvent.keyboard('{Shift>}{ArrowDown}{/Shift}');
  await frame();
  await userEvent.keyboard('{Shift>}{ArrowDown}{/Shift}');
  await frame();
  expect(ids(told.at(-1)!)).toEqual(['id-0', 'id-1', 'id-2']);
  await userEvent.keyboard('{Control>}a{/Control}');
  expect(ids(told.at(-1)!)).toBe('all');
  await userEvent.keyboard('{Escape}');
  expect(ids(told.at(-1)!)).toEqual([]);
});

test('a row that was reached keeps the keys when the answer to the next question puts others before it', async () => {
  const told: Chosen[] = [];
  const book = (tunes: readonly TuneSummary[]) => <Book tunes={tunes} onChosen={(chosen) => told.push(chosen)} />;
  const { rerender } = show(book(many.slice(3)));
  act(() => screen.getByRole('row', { name: 'Tune 3' }).focus());
  rerender(<Provider store={store}>{book(many)}</Provider>);
  await userEvent.keyboard(' ');
  await userEvent.keyboard('{Shift>}{ArrowDown}{/Shift}');
  await frame();
  expect(ids(told.at(-1)!)).toEqual(['id-3', 'id-4']);
});

test('with the mouse: a box, then one farther down with Shift takes all between', async () => {
  const told: Chosen[] = [];
  show(<Book tunes={many} onChosen={(chosen) => told.push(chosen)} />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('checkbox', { name: 'Choose Tune 1' }));
  await user.keyboard('{Shift>}');
  await user.click(screen.getByRole('checkbox', { name: 'Choose Tune 4' }));
  await user.keyboard('{/Shift}');
  expect(ids(told.at(-1)!)).toEqual(['id-1', 'id-2', 'id-3', 'id-4']);
  const all = screen.getByRole<HTMLInputElement>('checkbox', { name: 'Choose all' });
  expect(all.indeterminate).toBe(true);
  await user.click(all);
  expect(ids(told.at(-1)!)).toBe('all');
});

test('the next page is asked for before the end of this one is reached, and not sooner', async () => {
  const onMore = jest.fn();
  show(<Book tunes={many} onMore={onMore} />);
  expect(onMore).not.toHaveBeenCalled();
  act(() => screen.getByRole('row', { name: 'Tune 0' }).focus());
  await userEvent.keyboard('{End}');
  await frame();
  expect(onMore).toHaveBeenCalled();
});

test('a heading tells by what the list is sorted and asks for another order', async () => {
  const onSort = jest.fn();
  show(<Book tunes={many} onSort={onSort} />);
  expect(screen.getByRole('columnheader', { name: 'Tune' }).getAttribute('aria-sort')).toBe('ascending');
  expect(screen.getByRole('columnheader', { name: 'Key' }).getAttribute('aria-sort')).toBe('none');
  await userEvent.click(screen.getByRole('button', { name: 'Holds up to' }));
  expect(onSort).toHaveBeenCalledWith('tempo');
});

describe('a row tells', () => {
  const said = (more: Partial<TuneSummary>) => {
    show(<Book tunes={[summary(1, more)]} />);
    return within(screen.getByRole('row', { name: 'Tune 1' }));
  };

  test('which parts flip', () => {
    expect(said({ comesRound: false, flippedParts: ['A', 'B'] }).getByText('A and B flip, holds')).toBeTruthy();
  });

  test('both answers, red wherever one is no', () => {
    const good = said({ ceilingBpm: 120, wishBpm: 112 }).getByText('comes round, holds');
    expect(good.parentElement!.className).toContain('lichen');
    cleanup();
    const short = said({ ceilingBpm: 108.9, wishBpm: 112 }).getByText('comes round, breaks above 108');
    expect(short.parentElement!.className).toContain('madder');
  });

  test('that only the way back into the beginning is on the wrong bow', () => {
    expect(said({ comesRound: false, flippedParts: [] }).getByText('the tune flips, holds')).toBeTruthy();
  });

  test('a ceiling cut down to whole beats against the wish', () => {
    const row = said({ ceilingBpm: 108.9, wishBpm: 112 });
    expect(row.getByText('108')).toBeTruthy();
    expect(row.getByText(/short of 112/)).toBeTruthy();
  });

  test('that a tune without bounds holds up to any tempo', () => {
    expect(said({ ceilingBpm: null }).getByText('any')).toBeTruthy();
  });

  test('up to where it holds for the player, beside the ceiling by the limits', () => {
    const row = said({ ceilingBpm: 118, own: { median: 104.6, low: 98.2, high: 112.9, binds: { hop: 1 } } });
    expect(row.getByText(/^you 104/)).toBeTruthy();
    expect(row.getByTitle(/for you up to 104 \(98–112\), hops set the limit/)).toBeTruthy();
    cleanup();
    expect(said({ own: null }).queryByText(/^you /)).toBeNull();
  });

  test('what in it is new to the player: nothing, one skill by its name, or how many', () => {
    expect(said({ missing: [] }).getByText('nothing')).toBeTruthy();
    cleanup();
    expect(said({ missing: ['barre'] }).getByRole('link', { name: 'one finger across' })).toBeTruthy();
    cleanup();
    const two = said({ missing: ['barre', 'tempo 1/2'] }).getByRole('link', { name: /^2 skills/ });
    expect(two.getAttribute('href')).toBe('/tunes/id-1/practice#ready');
    expect(two.title).toBe('one finger across, tempo');
  });

  test('that what is not counted yet is being checked', () => {
    const row = said({ comesRound: null, ceilingBpm: null, isCounted: false });
    expect(row.getByText('being checked')).toBeTruthy();
    expect(row.queryByText('any')).toBeNull();
  });

  test('that what was given up could not be checked, and why', () => {
    const row = said({ comesRound: null, ceilingBpm: null, isCounted: false, givenUp: 'took too long' });
    expect(row.getByText('could not be checked').title).toBe('took too long');
    expect(row.queryByText('being checked')).toBeNull();
  });
});
