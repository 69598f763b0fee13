import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { DEFAULT_SETTINGS } from '#contract/settings';
import { reportTune } from '#core/report';
import { type Change, gainsAt, tightSpots } from '#core/standing';
import { type Lilt, LILTS } from '#core/tempo';
import { readAbc } from '#formats/abc';
import { liltFaultWords } from '#words/lilt';
import { changePlace, changeWords, eventName } from '#words/standing';
import { GainsList } from './GainsList';
import { OwnLiltSheet } from './OwnLiltSheet';
import { TightTable } from './TightTable';

jest.mock('react-router', () => ({
  Link: ({ to, children }: { readonly to: string; readonly children: ReactNode }) => <a href={to}>{children}</a>,
}));

const { words } = DEFAULT_SETTINGS;
const { tune } = readAbc('X:1\nT:D\nR:reel\nM:4/4\nL:1/8\nK:D\n|:dAFA (de)fd|(gD)ec dBAF:|\n').tunes[0]!;
const report = reportTune(tune);

test('the tightest places are told with what they have and need, and lead to the note', async () => {
  const heard: number[] = [];
  const places = tightSpots(report).slice(0, 3);
  render(
    <TightTable
      report={report}
      tuneId="x"
      places={places}
      chosen={null}
      onChoose={() => undefined}
      onHear={(index) => heard.push(index)}
    />,
  );
  const [, first] = screen.getAllByRole('row');
  expect(first!.textContent).toContain('slur over a skipped string');
  expect(first!.textContent).toContain(String(Math.floor(places[0]!.ceilingBpm)));
  expect(within(first!).getByRole('link').textContent).toBe('bar 2 of A, the “and” of 1');
  await userEvent.click(within(first!).getByRole('button'));
  expect(heard).toEqual([places[0]!.index]);
});

test('changes are told with what they buy, and made one at a time', async () => {
  const gains = gainsAt(report, tightSpots(report).slice(0, 3));
  const made: (readonly Change[])[] = [];
  const show = (isOld: boolean) => (
    <GainsList
      report={report}
      gains={{ gains, isOld, problem: null }}
      words={words}
      onMake={(changes) => made.push(changes)}
    />
  );
  const { rerender } = render(show(false));
  const [first] = screen.getAllByRole('listitem');
  expect(first!.textContent).toMatch(/the place holds up to \d+, the tune (still )?up to \d+/);
  await userEvent.click(within(first!).getByRole('button'));
  expect(made).toEqual([[gains[0]!.change]]);
  rerender(show(true));
  expect(screen.getAllByRole('button')[0]).toHaveProperty('disabled', true);
});

test('while changes are tried, where none helps, and where it failed, it is said', () => {
  const show = (gains: Parameters<typeof GainsList>[0]['gains']) => (
    <GainsList report={report} gains={gains} words={words} onMake={() => undefined} />
  );
  const { rerender, container } = render(show({ gains: null, isOld: false, problem: null }));
  expect(container.textContent).toBe('trying each change …');
  rerender(show({ gains: [], isOld: false, problem: null }));
  expect(container.textContent).toMatch(/^No single change/);
  rerender(show({ gains: null, isOld: false, problem: 'too-long' }));
  expect(screen.getByRole('alert').textContent).toBe('It took too long and was stopped.');
});

test('every change and event has its words', () => {
  const change = (more: Partial<Change>): Change => ({
    key: 'k',
    deed: 'split',
    id: report.unrolled.notes[5]!.note.id,
    link: null,
    note: null,
    cost: 1,
    ...more,
  });
  const id = 'n';
  expect(changeWords(change({}), words)).toBe('split the slur');
  expect(changeWords(change({ deed: 'leave-off', note: { id, unmark: 'bowed-triplet' } }), words)).toBe(
    'leave the bowed triplet out',
  );
  expect(
    changeWords(change({ deed: 'leave-off', note: { id, unmark: 'bowed-triplet' } }), {
      cut: 'bowed-triplet',
      flick: 'flick',
    }),
  ).toBe('leave the cut out');
  expect(
    changeWords(change({ deed: 'refinger', note: { id, refinger: { place: 'D', finger: 4, position: 3 } } }), words),
  ).toBe('take it as D:4 in third position');
  expect(changePlace(report, change({}))).toBe('bar 1 of A, the “and” of 3');
  expect(changePlace(report, change({ id: 'gone' }))).toBe('a note that is not played');
  expect(eventName('crossing', { inSlur: true, skips: 0 })).toBe('crossing inside a slur');
  expect(eventName('long-roll', null)).toBe('long roll');
});

describe('a lilt of one’s own', () => {
  function show(lilt: Lilt | null = null) {
    const kept: Lilt[] = [];
    render(
      <OwnLiltSheet
        lilt={lilt}
        taken={['harbour']}
        onKeep={(made) => kept.push(made)}
        onRemove={null}
        onClose={() => undefined}
      />,
    );
    return kept;
  }
  const type = async (label: string, text: string) => {
    await userEvent.clear(screen.getByLabelText(new RegExp(`^${label}`)));
    if (text) await userEvent.type(screen.getByLabelText(new RegExp(`^${label}`)), text);
  };
  const problem = () => screen.getByRole('alert').textContent;

  test('is kept with its shares brought to a whole, where it can be used', async () => {
    const kept = show();
    await type('Name', 'mine');
    await type('Shares of a quarter', '57,1 42,8');
    expect(problem()).toMatch(/2 to 6 shares/);
    await type('Shares of a quarter', '57 43');
    await type('Shares of a dotted quarter', '38 29 33{Enter}');
    expect(kept[0]).toMatchObject({ name: 'mine', fullTo: 110 });
    expect(kept[0]!.simple!.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 12);
  });

  test.each([
    ['Name', 'harbour', /taken/],
    ['Name', 'dotted', /taken/],
    ['Name', 'Two Words', /small letters/],
    ['Shares of a quarter', '80 20', /note 2 of the quarter would grow longer as the tempo rises from 110 to 132/],
    ['Shares of a quarter', '60 50', /sum to 100 %/],
    ['full up to', '5', /20 to 400/],
    ['flattens by the power', '9', /0.1 to 4/],
  ])('%s %s is refused', async (label, text, words) => {
    const kept = show();
    if (label !== 'Name') await type('Name', 'mine');
    await type(label, text);
    expect(problem()).toMatch(words);
    expect(screen.getByRole('button', { name: 'Save' })).toHaveProperty('disabled', true);
    expect(kept).toEqual([]);
  });

  test('one that comes along is none that can be broken', () => {
    for (const lilt of LILTS) expect(lilt.fullTo).toBeGreaterThan(0);
    expect(liltFaultWords({ code: 'curve' })).toMatch(/more than 0/);
  });
});
