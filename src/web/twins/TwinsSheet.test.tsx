import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { setLinks } from '#core/bowing';
import { reportTune } from '#core/report';
import { type Tune, writtenNotes } from '#core/tune';
import { part, tune } from '../../core/testing/tunes';
import { TwinsSheet } from './TwinsSheet';

const FIGURE = 'D4 F#4 A4 D5';
const plain = tune([part('A', `${FIGURE} G4:4 | ${FIGURE} E4:4`)], { start: 'down' });

function show(t: Tune) {
  const done: { shown: string[][]; applied: [Tune, string][] } = { shown: [], applied: [] };
  render(
    <TwinsSheet
      id="t"
      report={reportTune(t)}
      onPreview={() => undefined}
      onHear={() => undefined}
      onShow={(ids) => done.shown.push([...ids])}
      onEdit={(next, label) => done.applied.push([next, label])}
      onClose={() => undefined}
    />,
  );
  return done;
}

// A page of the router cannot be loaded here; links are only words.
jest.mock('react-router', () => ({ Link: ({ children }: { children: unknown }) => children }));

test('a figure is told with its notes, its share and its places, which can be shown', async () => {
  const done = show(plain);
  expect(screen.getByText('D F♯ A D')).toBeTruthy();
  expect(screen.getByText('4 notes, 50 % of the playing time')).toBeTruthy();
  expect(screen.getByText(/all bowed alike/)).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: /^A bar 2/ }));
  expect(done.shown).toEqual([['A6', 'A7', 'A8', 'A9']]);
});

test('one bowed in two ways is bowed alike after the chosen place, and what comes of it is told first', async () => {
  const done = show(setLinks(plain, new Map([['A7', 'slur']])));
  expect(screen.getByText('bowed more than one way')).toBeTruthy();
  expect(screen.getByText(/^It comes round, and holds/)).toBeTruthy();
  await userEvent.selectOptions(screen.getByLabelText('bow them all as in'), 'A bar 2');
  await userEvent.click(screen.getByRole('button', { name: /^bow them alike/ }));
  const [next, label] = done.applied[0]!;
  expect(label).toBe('figure bowed as in A bar 2');
  expect(
    writtenNotes(next)
      .filter(({ link }) => link === 'slur')
      .map(({ id }) => id),
  ).toEqual(['A2', 'A7']);
});

test('a tune without such figures says so', () => {
  show(tune([part('A', 'D4 E4 F#4 G4')]));
  expect(screen.getByText(/No figure of four notes/)).toBeTruthy();
});
