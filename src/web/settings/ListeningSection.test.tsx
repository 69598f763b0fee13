import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { DEFAULT_SETTINGS, type StoredSettings } from '#contract/settings';
import { ListeningSection } from './ListeningSection';

function show(listening: Partial<StoredSettings['listening']> = {}) {
  const onChange = jest.fn<void, [StoredSettings, string]>();
  const settings = { ...DEFAULT_SETTINGS, listening: { ...DEFAULT_SETTINGS.listening, ...listening } };
  render(<ListeningSection settings={settings} onChange={onChange} />);
  return { changed: () => onChange.mock.calls.map(([next, label]) => [next.listening, label] as const), settings };
}
const write = async (name: RegExp, text: string) => {
  const field = screen.getByRole('textbox', { name });
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
};

test('a fiddle tuned to 415 Hz is listened to as such', async () => {
  const { changed } = show();
  await write(/^A4 is tuned to/, '415');
  expect(changed()).toEqual([[expect.objectContaining({ a4: 415 }), 'reference pitch']]);
});

test('a pitch to which no fiddle is tuned is not taken, and says what can be', async () => {
  const { changed } = show();
  await write(/^A4 is tuned to/, '900');
  expect(changed()).toEqual([]);
  expect(screen.getByRole('textbox', { name: /^A4 is tuned to/ }).getAttribute('aria-invalid')).toBe('true');
});

test('own holds are in per cent, and go back to as planned', async () => {
  const { changed } = show({ own: { hold: 0.8, silence: 1 } });
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: /^Your holds/ }).value).toBe('80');
  await write(/^Your holds/, '85');
  await userEvent.click(screen.getByRole('button', { name: /^Your holds.*back to 100/ }));
  expect(changed().map(([{ own }]) => own)).toEqual([
    { hold: 0.85, silence: 1 },
    { hold: 1, silence: 1 },
  ]);
});

test('a threshold of one’s own is kept beside the others, and going back forgets it', async () => {
  const { changed, settings } = show({ thresholds: { sharp: 10, flat: 12 } });
  await userEvent.click(screen.getByText('From where on a mistake is told'));
  await write(/^Sharp/, '8');
  await userEvent.click(screen.getByRole('button', { name: /^Flat: back to 15/ }));
  expect(changed().map(([{ thresholds }]) => thresholds)).toEqual([{ sharp: 8, flat: 12 }, { sharp: 10 }]);
  expect(settings.listening.thresholds).toEqual({ sharp: 10, flat: 12 });
});

test('what is told whenever it happens has no threshold to set', () => {
  show();
  expect(screen.queryByRole('textbox', { name: /^Left out/ })).toBeNull();
  expect(screen.getByRole('textbox', { name: /^Late finger/ })).toBeTruthy();
});
