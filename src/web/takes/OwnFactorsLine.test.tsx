import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { DEFAULT_SETTINGS, settingsRoutes, type StoredSettings } from '#contract/settings';
import type { Tune } from '#core/tune';
import { part, tune } from '../../core/testing/tunes';
import { useSettingsQuery } from '../api/settingsApi';
import { fakeServer } from '../testing/fakeServer';
import { renderPage } from '../testing/page';
import { sampleTake } from '../testing/sampleTake';
import { OwnFactorsLine } from './OwnFactorsLine';

const plain = tune([part('A', 'D4:2 E4:2 F#4:2 G4:2')]);
const air: Tune = {
  ...plain,
  parts: plain.parts.map((one) => ({
    ...one,
    events: one.events.map((event, i) => (i === 1 && event.kind === 'note' ? { ...event, hold: 2 } : event)),
  })),
};
function Page({ take, of }: { readonly take: ReturnType<typeof sampleTake>; readonly of: Tune }) {
  useSettingsQuery();
  return <OwnFactorsLine take={take} tune={of} />;
}
const show = (holdFactor: number | null, of = air, own?: { hold: number; silence: number }) =>
  renderPage(<Page take={sampleTake(own ? { own } : {}, { holdFactor })} of={of} />, {
    path: '/',
    at: '/',
  });

test('holds that come out short are played longer from now on, by a press', async () => {
  const server = fakeServer();
  server.answer(settingsRoutes.saveSettings, { revision: 1, changed: [], compared: 0 });
  show(0.8);
  await userEvent.click(await screen.findByRole('button', { name: /Play me holds at 125 %/ }));
  const saved = () => server.heard.find(({ route }) => route === settingsRoutes.saveSettings);
  await waitFor(() => expect(saved()).toBeTruthy());
  const { listening } = (saved()!.body as { settings: StoredSettings }).settings;
  expect(listening.own).toEqual({ hold: 0.8, silence: 1 });
});

test('who plays what was wished has nothing to learn, whatever it was shown by', async () => {
  const server = fakeServer();
  const own = { hold: 0.8, silence: 1 };
  server.answer(settingsRoutes.findSettings, {
    revision: 0,
    settings: { ...DEFAULT_SETTINGS, listening: { ...DEFAULT_SETTINGS.listening, own } },
  });
  show(1, air, own);
  expect(await screen.findByRole('button', { name: 'As written again' })).toBeTruthy();
  expect(screen.queryByRole('button', { name: /Play me holds/ })).toBeNull();
});

test('a tune without holds has no such line, nor has a take of one without a figure', () => {
  fakeServer();
  expect(show(0.7, plain).container.querySelector('button')).toBeNull();
  expect(show(null).container.querySelector('button')).toBeNull();
});
