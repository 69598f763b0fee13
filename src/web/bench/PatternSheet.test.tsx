import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { DEFAULT_SETTINGS } from '#contract/settings';
import { reportTune } from '#core/report';
import { type Tune, writtenNotes } from '#core/tune';
import { readAbc } from '#formats/abc';
import { PatternSheet } from './PatternSheet';

const PICKUP_REEL = 'X:1\nT:P\nR:reel\nM:4/4\nL:1/8\nK:D\n|:FG|ABcd efga|gfed cBAG|F2A2 d2:|\n';
const JIG = 'X:1\nT:J\nR:jig\nM:6/8\nL:1/8\nK:D\n|:def gfe|d3 d3:|\n';

function show(abc: string) {
  const { tune } = readAbc(abc).tunes[0]!;
  const applied: Tune[] = [];
  render(
    <PatternSheet
      report={reportTune(tune)}
      ids={[]}
      part="A"
      settings={DEFAULT_SETTINGS}
      onClose={() => undefined}
      onApply={(next) => applied.push(next)}
      onPreview={() => undefined}
      onHear={() => undefined}
    />,
  );
  return { tune, applied };
}

test('bars are counted as played: bar 1 is the first full one, not the pickup', async () => {
  const { tune, applied } = show(PICKUP_REEL);
  await userEvent.click(screen.getByRole('radio', { name: 'Pairs 2 2' }));
  await userEvent.click(screen.getByRole('radio', { name: 'bars' }));
  const to = screen.getByRole('spinbutton', { name: 'to bar' });
  await userEvent.clear(to);
  await userEvent.type(to, '1');
  await userEvent.click(screen.getByRole('button', { name: /^Take it for bars/ }));
  const before = writtenNotes(tune);
  const changed = writtenNotes(applied[0]!).flatMap(({ id, link }, i) => (link === before[i]!.link ? [] : [id]));
  // Pickup n1 n2; bar 1 is n3 to n10, slurred in pairs.
  expect(changed).toEqual(['n4', 'n6', 'n8', 'n10']);
});

test('a jig is first offered a jig pattern, and what comes of it is told before it is applied', async () => {
  const { applied } = show(JIG);
  expect(screen.getByRole<HTMLInputElement>('radio', { name: /^Two-and-one/ }).checked).toBe(true);
  expect(screen.getByText(/4 strokes a bar of 6\/8 \(even\)/)).toBeTruthy();
  expect(screen.getByText(/A1: 6 strokes · A2: 6 strokes/)).toBeTruthy();
  await userEvent.click(screen.getByRole('radio', { name: /^Threes/ }));
  expect(screen.getByText(/A1: 4 strokes · A2: 4 strokes/)).toBeTruthy();
  expect(applied).toEqual([]);
});

test('the patterns that the tune follows now are named bar by bar', () => {
  show('X:1\nT:S\nR:reel\nM:4/4\nL:1/8\nK:D\n|:(DE)FG (AB)cd|(de)fg (ag)fe|DEFG ABcd|defg (agf)e:|\n');
  expect(document.querySelector('[data-patterns-now]')!.textContent).toBe(
    'A1–2 pair-first shuffle, 3 saw, 4 no pattern',
  );
});

test('a pattern of one’s own is typed as lengths, applied like the others, and can be forgotten', async () => {
  const { tune, applied } = show(PICKUP_REEL);
  const own = screen.getByLabelText('your own');
  await userEvent.type(own, '3 x');
  expect(screen.getByText(/expected lengths of strokes/)).toBeTruthy();
  await userEvent.clear(own);
  await userEvent.type(own, '3 5{Enter}');
  expect(screen.getByRole<HTMLInputElement>('radio', { name: 'Own 3 5 3 5' }).checked).toBe(true);
  await userEvent.click(screen.getByRole('button', { name: /^Take it for part A/ }));
  const links = writtenNotes(applied[0]!).map(({ link }) => link[0]);
  // Pickup in the last slot; bar 1 in strokes of three and five notes.
  expect(links.slice(2, 10).join('')).toBe('csscssss');
  expect(tune.parts[0]!.events.length).toBe(applied[0]!.parts[0]!.events.length);
  expect(localStorage.getItem('morrin.patterns')).toContain('[3,5]');
  await userEvent.click(screen.getByRole('button', { name: 'Delete 3 5' }));
  expect(screen.queryByRole('radio', { name: 'Own 3 5 3 5' })).toBeNull();
});
