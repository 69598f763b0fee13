import 'fake-indexeddb/auto';
import { act, render, screen } from '@testing-library/react';
import { fakeServer } from '../testing/fakeServer';
import { Stage } from '../testing/scene';
import { standInForBrowser } from '../testing/standIns';
import { ALL_SCENES } from './allScenes';

beforeEach(standInForBrowser);

const all = Object.entries(ALL_SCENES).flatMap(([sheet, scenes]) =>
  Object.entries(scenes).map(([state, scene]) => [`${sheet}: ${state}`, scene] as const),
);

test.each(all)('%s: a dialog with a name, and every field and button in it has one', async (_, scene) => {
  const server = fakeServer();
  scene.answers?.(server);
  render(<Stage scene={scene} />);
  await act(async () => undefined);
  const dialog = screen.getByRole('dialog');
  expect(dialog.getAttribute('aria-labelledby') ?? dialog.getAttribute('aria-label')).toBeTruthy();
  for (const role of ['button', 'textbox', 'combobox', 'checkbox', 'radio', 'slider']) {
    const named = new Set(screen.queryAllByRole(role, { name: /\S/ }));
    expect(screen.queryAllByRole(role).filter((part) => !named.has(part))).toEqual([]);
  }
});
