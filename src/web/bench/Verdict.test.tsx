import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { NO_ABILITY } from '#contract/ability';
import { reportTune } from '#core/report';
import { readAbc } from '#formats/abc';
import { Verdict } from './Verdict';

const reportOf = (music: string, header = 'R:reel\nM:4/4') =>
  reportTune(readAbc(`X:1\nT:V\n${header}\nL:1/8\nK:D\n${music}\n`).tunes[0]!.tune);

test('a part that flips is named with the pass on which it does, and leads to its mends', async () => {
  const shown: string[] = [];
  const report = reportOf('|:dAFA defd:||:fgaf (gf)ed:|');
  render(
    <Verdict
      report={report}
      isEntering={false}
      onShow={() => undefined}
      onShowFinding={({ code }) => shown.push(code)}
    />,
  );
  expect(screen.getByRole('heading').textContent).toMatch(/^B flips the 2nd time, /);
  await userEvent.click(screen.getByRole('button', { name: 'see its mends' }));
  expect(shown).toEqual(['part-flips']);
});

test('what comes round but breaks below its tempo says so, with the place that binds', async () => {
  const shown: number[] = [];
  const report = reportOf('|:(fF)(fF) (fF)(fF)|d4 e4:|');
  render(
    <Verdict
      report={report}
      isEntering={false}
      onShow={(index) => shown.push(index)}
      onShowFinding={() => undefined}
    />,
  );
  expect(screen.getByRole('heading').textContent).toMatch(/It comes round, but breaks above \d+\./);
  expect(screen.getByText(/a reel is danced at 100–118/)).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: /^bar 1 of A, / }));
  expect(shown).toHaveLength(1);
});

test('a tempo names its beat: dotted quarters in a jig', () => {
  render(
    <Verdict
      report={reportOf('|:d3 e3:|', 'R:jig\nM:6/8')}
      isEntering={false}
      onShow={() => undefined}
      onShowFinding={() => undefined}
    />,
  );
  expect(screen.getByText(/dotted quarters a minute/)).toBeTruthy();
});

test('while notes are entered it is quiet', () => {
  const report = reportOf('|:dAFA defd:||:fgaf (gf)ed:|');
  render(<Verdict report={report} isEntering onShow={() => undefined} onShowFinding={() => undefined} />);
  expect(screen.queryByRole('heading')).toBeNull();
  expect(screen.getByText(/^So far: B flips/)).toBeTruthy();
});

test('a word of the trade explains itself when it has the focus', async () => {
  const report = reportOf('|:dAFA defd:|');
  render(<Verdict report={report} isEntering={false} onShow={() => undefined} onShowFinding={() => undefined} />);
  await userEvent.tab();
  expect(document.activeElement?.textContent).toBe('comes round');
  expect((await screen.findByRole('tooltip')).textContent).toMatch(/begins on the same bow/);
});

test('what holds for the player stands beside the verdict, with what sets it and what it rests on', async () => {
  const kinds = { crossing: { mean: -0.2, low: -0.25, high: -0.1, attempts: 64 } };
  const own = { median: 85.6, low: 78.4, high: 96.9, binds: { crossing: 0.7, hop: 0.3 } };
  render(
    <Verdict
      report={reportOf('|:dAFA defd:|')}
      isEntering={false}
      ownTempo={{
        own,
        ability: { ...NO_ABILITY, attempts: 64, since: '2026-05-03', kinds },
        isReady: true,
        isLearning: false,
        left: 0,
      }}
      onShow={() => undefined}
      onShowFinding={() => undefined}
    />,
  );
  expect(document.querySelector('[data-own]')!.textContent).toContain(
    'for you up to 85 (78–96), crossings set the limit (7 times in 10), otherwise hops',
  );
  await userEvent.click(screen.getByText('why'));
  expect(screen.getByText(/your crossings are 22 % slower than the limit. Your hops are not known yet./)).toBeTruthy();
});
