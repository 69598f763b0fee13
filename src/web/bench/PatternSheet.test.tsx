import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
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
      selected={[]}
      part="A"
      onClose={() => undefined}
      onApply={(next) => applied.push(next)}
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
  await userEvent.click(screen.getByRole('button', { name: /^Apply to bars/ }));
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
