import 'fake-indexeddb/auto';
import { act, render, screen } from '@testing-library/react';
import { fakeServer } from '../testing/fakeServer';
import { Stage } from '../testing/scene';
import { ALL_SCENES } from './allScenes';

/** What the simulated page lacks of a browser: sizes, sight and threads. */
beforeEach(() => {
  class Watcher {
    observe() {}
    unobserve() {}
    disconnect() {}
  }
  Object.assign(globalThis, { ResizeObserver: Watcher, IntersectionObserver: Watcher });
  Object.assign(globalThis, {
    Worker: class {
      addEventListener() {}
      removeEventListener() {}
      postMessage() {}
      terminate() {}
    },
  });
  Object.assign(window, { matchMedia: () => ({ matches: false, addEventListener() {}, removeEventListener() {} }) });
  Element.prototype.scrollIntoView = () => undefined;
});

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
  for (const role of ['button', 'textbox', 'combobox', 'checkbox', 'radio', 'slider'])
    for (const part of screen.queryAllByRole(role)) expect(screen.getAllByRole(role, { name: /\S/ })).toContain(part);
});
