import { render } from '@testing-library/react';
import type { ReactElement } from 'react';
import { Provider } from 'react-redux';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { joinOpenTune } from '../openTune/joinOpenTune';
import { createStore } from '../store/store';

/** Renders a page as it stands at an address, with a store of its own; other addresses show where one was led. */
export function renderPage(page: ReactElement, { path, at }: { readonly path: string; readonly at: string }) {
  const store = createStore();
  joinOpenTune(store);
  const router = createMemoryRouter(
    [
      { path, element: page },
      { path: '*', element: <p>another room</p> },
    ],
    { initialEntries: [at] },
  );
  const shown = render(
    <Provider store={store}>
      <RouterProvider router={router} />
    </Provider>,
  );
  return { ...shown, store, router };
}
