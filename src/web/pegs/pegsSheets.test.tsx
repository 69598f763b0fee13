import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { DEFAULT_PEGS, type Pegs } from '#contract/pegs';
import { parseTuning, retunePlan, STANDARD_TUNING, TUNINGS } from '#core/tuning';
import { today } from '#words/days';
import { SAFETY } from '#words/retuneJson';
import { FiddleSheet } from './FiddleSheet';
import { PlanPanel } from './PlanPanel';
import { TuningChoice } from './TuningChoice';

const planTo = (strings: string) => {
  const plan = retunePlan(STANDARD_TUNING, parseTuning(strings)!);
  if (!plan.ok) throw new Error('implausible');
  return plan;
};

describe('the way there', () => {
  test('every tuning of the library is shown with the safety lines, its steps and each string’s newtons', () => {
    for (const { tuning } of TUNINGS) {
      const plan = retunePlan(STANDARD_TUNING, tuning);
      if (!plan.ok) throw new Error('implausible');
      const { unmount, container } = render(
        <PlanPanel plan={plan} at={0} leftHanded={false} isOld={false} onAt={() => undefined} />,
      );
      for (const line of SAFETY) expect(screen.getByText(line)).toBeTruthy();
      expect(container.querySelectorAll('[data-steps] li')).toHaveLength(plan.steps.length);
      unmount();
    }
  });

  test('an old instrument whose strings go up is warned about, one whose strings go down is not', () => {
    const up = render(
      <PlanPanel plan={planTo('A3 E4 A4 E5')} at={0} leftHanded={false} isOld onAt={() => undefined} />,
    );
    expect(screen.getByText(/ask a luthier first/)).toBeTruthy();
    up.unmount();
    render(<PlanPanel plan={planTo('G3 D4 G4 D5')} at={0} leftHanded={false} isOld onAt={() => undefined} />);
    expect(screen.queryByText(/old or valuable and strings go up/)).toBeNull();
  });

  test('for a left-handed player the strings stand the other way round', () => {
    render(<PlanPanel plan={planTo('A3 E4 A4 E5')} at={0} leftHanded isOld={false} onAt={() => undefined} />);
    const rows = within(screen.getByRole('table'))
      .getAllByRole('rowheader')
      .map(({ textContent }) => textContent);
    expect(rows.slice(0, 4)).toEqual(['E', 'A', 'D', 'G']);
  });

  test('steps go on one by one', async () => {
    const gone: number[] = [];
    render(
      <PlanPanel plan={planTo('A3 D4 A4 E5')} at={1} leftHanded={false} isOld={false} onAt={(at) => gone.push(at)} />,
    );
    await userEvent.click(screen.getByRole('button', { name: 'In tune: next string' }));
    expect(gone).toEqual([2]);
    expect(screen.getByRole('img', { name: 'done' })).toBeTruthy();
  });
});

describe('tunings of one’s own', () => {
  function show(pegs: Pegs = DEFAULT_PEGS) {
    const kept: Pegs[] = [];
    const chosen: string[] = [];
    render(
      <TuningChoice pegs={pegs} to="G3 D4 A4 E5" onTo={(to) => chosen.push(to)} onPegs={(next) => kept.push(next)} />,
    );
    return { kept, chosen };
  }

  test('are kept as they are typed, low to high; a wrong list is refused in words', async () => {
    const { kept, chosen } = show();
    await userEvent.click(screen.getByRole('button', { name: 'your own' }));
    await userEvent.type(screen.getByLabelText('Name'), 'Tide');
    await userEvent.type(screen.getByLabelText('Low to high'), 'G3 D4 B4 E5');
    expect(screen.getByRole('button', { name: 'Save it' })).toHaveProperty('disabled', false);
    await userEvent.clear(screen.getByLabelText('Low to high'));
    await userEvent.type(screen.getByLabelText('Low to high'), 'G3 D4 A4');
    expect(screen.getByText(/expected four pitches low to high/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Save it' })).toHaveProperty('disabled', true);
    await userEvent.type(screen.getByLabelText('Low to high'), ' D5');
    await userEvent.click(screen.getByRole('button', { name: 'Save it' }));
    expect(kept[0]!.tunings).toMatchObject([{ name: 'Tide', strings: 'G3 D4 A4 D5', variants: [] }]);
    expect(chosen).toEqual(['G3 D4 A4 D5']);
  });

  test('of two with the same strings the one that was chosen is taken away', async () => {
    const tide = {
      id: '0b0d6a3e-2f4c-4c0a-8a51-8e9b7c1d2e3f',
      name: 'Tide',
      strings: 'G3 D4 A4 D5',
      source: '',
      variants: [],
    };
    const ebb = { ...tide, id: '1b0d6a3e-2f4c-4c0a-8a51-8e9b7c1d2e3f', name: 'Ebb' };
    const kept: Pegs[] = [];
    const pegs = { ...DEFAULT_PEGS, tunings: [tide, ebb] };
    render(<TuningChoice pegs={pegs} to={tide.strings} onTo={() => undefined} onPegs={(next) => kept.push(next)} />);
    await userEvent.selectOptions(screen.getByLabelText('into'), screen.getByRole('option', { name: /Ebb/ }));
    await userEvent.click(screen.getByRole('button', { name: 'Delete the tuning Ebb' }));
    expect(kept[0]!.tunings).toEqual([tide]);
  });

  test('under a name that is there a variant asks for its source', async () => {
    const tide = {
      id: '0b0d6a3e-2f4c-4c0a-8a51-8e9b7c1d2e3f',
      name: 'Tide',
      strings: 'G3 D4 A4 D5',
      source: '',
      variants: [],
    };
    const { kept } = show({ ...DEFAULT_PEGS, tunings: [tide] });
    await userEvent.click(screen.getByRole('button', { name: 'your own' }));
    await userEvent.type(screen.getByLabelText('Name'), 'tide');
    await userEvent.type(screen.getByLabelText('Low to high'), 'A3 D4 A4 D5');
    const keep = screen.getByRole('button', { name: 'Save as a variant' });
    expect(keep).toHaveProperty('disabled', true);
    await userEvent.type(screen.getByLabelText('Source'), 'the class');
    await userEvent.click(keep);
    expect(kept[0]!.tunings[0]!.variants).toEqual([{ strings: 'A3 D4 A4 D5', source: 'the class' }]);
  });
});

test('a string is made new with one press, a wrong tension is refused where it stands', async () => {
  const kept: Pegs[] = [];
  const [fiddle] = DEFAULT_PEGS.fiddles;
  render(
    <FiddleSheet
      pegs={DEFAULT_PEGS}
      fiddle={fiddle!}
      played={[{ day: today(), minutes: 90 }]}
      isCounted
      onPegs={(next) => kept.push(next)}
      onCount={() => undefined}
      onClose={() => undefined}
    />,
  );
  await userEvent.click(screen.getAllByRole('button', { name: 'new today' })[1]!);
  expect(kept[0]!.fiddles[0]!.strings[1]).toMatchObject({ hours: 0, fittedOn: today() });
  const tension = screen.getByLabelText('Tension of the G string');
  await userEvent.clear(tension);
  await userEvent.type(tension, '900');
  await userEvent.tab();
  expect(screen.getByText('expected 10 to 120')).toBeTruthy();
  expect(kept).toHaveLength(1);
});

test('a reminder’s figure is the player’s own: other hours, or none at all', async () => {
  const kept: Pegs[] = [];
  const [fiddle] = DEFAULT_PEGS.fiddles;
  render(
    <FiddleSheet
      pegs={DEFAULT_PEGS}
      fiddle={{ ...fiddle!, rosinedOn: '2026-01-01' }}
      played={[{ day: '2026-01-02', minutes: 90 }]}
      isCounted
      onPegs={(next) => kept.push(next)}
      onCount={() => undefined}
      onClose={() => undefined}
    />,
  );
  expect(screen.getByText('1.5 h')).toBeTruthy();
  const rosin = screen.getByLabelText('Rosin: remind me after hours');
  await userEvent.clear(rosin);
  await userEvent.tab();
  expect(kept.at(-1)!.fiddles[0]!.intervals.rosinHours).toBeNull();
  const months = screen.getByLabelText('Strings: remind me after months');
  await userEvent.clear(months);
  await userEvent.type(months, '-3');
  await userEvent.tab();
  expect(screen.getByText('expected more than 0')).toBeTruthy();
  expect(kept).toHaveLength(1);
  await userEvent.click(screen.getByRole('button', { name: 'rosined today' }));
  expect(kept.at(-1)!.fiddles[0]!.rosinedOn).toBe(today());
});
