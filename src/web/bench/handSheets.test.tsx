import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactElement } from 'react';
import { Provider } from 'react-redux';
import { DEFAULT_SETTINGS } from '#contract/settings';
import { reportTune } from '#core/report';
import { type Tune, writtenNotes } from '#core/tune';
import { part, tune } from '../../core/testing/tunes';
import { BesideNote } from '../drones/BesideNote';
import { DroneLineForm } from '../drones/DroneLineForm';
import { FingeringSheet } from '../fingering/FingeringSheet';
import { LayerList } from '../ornaments/LayerList';
import { NoteOrnaments } from '../ornaments/NoteOrnaments';
import { RuleForm } from '../ornaments/RuleForm';
import { createStore } from '../store/store';

const t = tune([part('A', 'D4:2 F#4 A4 D5:2 A5 B5 | D6:2 A5 F#5 E5:4')], { form: ['A', 'A'] });

function base(on: Tune, ids: readonly string[]) {
  const applied: { tune: Tune; label: string }[] = [];
  return {
    applied,
    props: {
      report: reportTune(on),
      ids,
      where: 'bar 1 of A',
      onPreview: () => undefined,
      onHear: () => undefined,
      onApply: (next: Tune, label: string) => void applied.push({ tune: next, label }),
    },
  };
}

describe('the fingering sheet', () => {
  test('tells the hand as a whole and the note chosen, cheapest way first, and pins what is taken', async () => {
    const { props, applied } = base(t, ['A7']);
    render(<FingeringSheet {...props} settings={DEFAULT_SETTINGS} onClose={() => undefined} />);
    expect(screen.getByText(/outside first position/)).toBeTruthy();
    const rows = within(screen.getByRole('table')).getAllByRole('row').slice(1);
    expect(rows[0]!.textContent).toContain('least');
    const other = rows.find((row) => !within(row).getByRole<HTMLButtonElement>('button').disabled)!;
    await userEvent.click(within(other).getByRole('button'));
    const pinned = writtenNotes(applied[0]!.tune).find(({ id }) => id === 'A7')!;
    expect(within(other).getByRole('rowheader').textContent).toContain(`${pinned.place}:${pinned.finger}`);
  });

  test('folds what lies beyond into first position, and offers nothing where nothing does', async () => {
    const { props, applied } = base(t, []);
    const { unmount } = render(
      <FingeringSheet {...props} settings={{ ...DEFAULT_SETTINGS, leftHanded: true }} onClose={() => undefined} />,
    );
    expect(screen.getByRole('heading', { name: /the right one/ })).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: /^Fold into first position: \d notes?/ }));
    const { fingers } = reportTune(applied[0]!.tune);
    for (const { position } of fingers.values()) expect(position).toBe(1);
    unmount();
    const plain = base(tune([part('A', 'D4 E4 F#4 G4')]), []);
    render(<FingeringSheet {...plain.props} settings={DEFAULT_SETTINGS} onClose={() => undefined} />);
    expect(screen.getByRole('button', { name: 'Fold into first position' })).toHaveProperty('disabled', true);
    expect(screen.getByText(/Select a note in the score/)).toBeTruthy();
  });
});

describe('drones', () => {
  const more = { part: 'A', settings: DEFAULT_SETTINGS };

  test('beside a note stand its candidates by rank, and the one that is taken sounds', async () => {
    const { props, applied } = base(t, ['A2']);
    render(<BesideNote {...props} {...more} />);
    const rows = within(screen.getByRole('list', { name: 'What can sound with it' })).getAllByRole('listitem');
    const ranks = rows.map(({ textContent }) => Number(/Harshness ([\d.]+)/.exec(textContent)![1]));
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
    expect(rows[0]!.textContent).toContain('the sweetest here');
    const row = rows.find(({ textContent }) => textContent.startsWith('open A, above'))!;
    await userEvent.click(within(row).getByRole('button', { name: /take it/ }));
    expect(writtenNotes(applied[0]!.tune).find(({ id }) => id === 'A2')!.drone).toBe('upper');
  });

  test('a line of drones is set over a part, and one that is there is taken off', async () => {
    const { props, applied } = base(t, []);
    const { unmount } = render(<DroneLineForm {...props} {...more} />);
    await userEvent.click(screen.getByRole('radio', { name: 'one pair of strings throughout' }));
    await userEvent.click(screen.getByRole('button', { name: 'Take these drones' }));
    const droned = applied[0]!.tune;
    expect(writtenNotes(droned).some(({ drone }) => drone)).toBe(true);
    unmount();
    const again = base(droned, []);
    render(<DroneLineForm {...again.props} {...more} />);
    await userEvent.click(screen.getByRole('button', { name: /^Remove \d+ drones?/ }));
    expect(writtenNotes(again.applied[0]!.tune).every(({ drone }) => !drone)).toBe(true);
  });

  test('without a note chosen it says what to do', () => {
    render(<BesideNote {...base(t, []).props} {...more} />);
    expect(screen.getByText(/Select a note/)).toBeTruthy();
  });
});

const inStore = (shown: ReactElement) => render(<Provider store={createStore()}>{shown}</Provider>);

describe('ornaments', () => {
  const settings = DEFAULT_SETTINGS;

  test('each says its time and why it does not fit, in the words of the school', () => {
    const { props } = base(t, ['A1']);
    const { unmount } = render(<NoteOrnaments {...props} settings={settings} />);
    expect(screen.getByText(/nothing lies below an open string/)).toBeTruthy();
    expect(screen.getByRole('checkbox', { name: /^flick/ })).toHaveProperty('disabled', false);
    unmount();
    render(
      <NoteOrnaments
        {...props}
        settings={{ ...settings, words: { ...settings.words, flick: 'cran', cut: 'bowed-triplet' } }}
      />,
    );
    expect(screen.getByRole('checkbox', { name: /^cran/ })).toBeTruthy();
    expect(screen.getByRole('checkbox', { name: /^quick grace/ })).toBeTruthy();
  });

  test('set on a note, set by rule, and taken off again for an easier version', async () => {
    const one = base(t, ['A2']);
    const { unmount } = render(<NoteOrnaments {...one.props} settings={settings} />);
    await userEvent.click(screen.getByRole('checkbox', { name: /^cut/ }));
    expect(writtenNotes(one.applied[0]!.tune).find(({ id }) => id === 'A2')!.marks).toEqual(['cut']);
    unmount();
    const rule = base(t, []);
    const shown = render(<RuleForm {...rule.props} settings={settings} />);
    await userEvent.selectOptions(screen.getByLabelText('Place'), 'on-beat');
    await userEvent.click(screen.getByRole('button', { name: 'Take them' }));
    const flicked = rule.applied[0]!.tune;
    expect(writtenNotes(flicked).some(({ marks }) => marks?.includes('flick'))).toBe(true);
    shown.unmount();
    const easier = base(flicked, []);
    inStore(<LayerList id="t" {...easier.props} />);
    await userEvent.click(screen.getByRole('button', { name: /^take it ?: without cuts and flicks/ }));
    expect(writtenNotes(easier.applied[0]!.tune).every(({ marks }) => !marks)).toBe(true);
  });

  test('a plain tune is as plain as it can be', () => {
    const plainest = tune([part('A', 'D4:4 A4:4')]);
    inStore(<LayerList id="t" {...base(plainest, []).props} />);
    expect(screen.getByText(/as plain as it can be/)).toBeTruthy();
  });
});
