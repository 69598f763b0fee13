import { type ComponentType, lazy, Suspense } from 'react';
import { healthRoutes } from '#contract/health';
import { ask } from '../api/ask';
import { PageOpening, PageProblem } from '../ui/PageState';

/** The browser remembers what it could not fetch: only a page that is loaded afresh asks again. */
async function reloadWhenBack(): Promise<void> {
  const answer = await ask(healthRoutes.findHealth, {});
  if (answer.ok) window.location.reload();
}

/** A room that is fetched when it is entered; says so where the server does not answer, and loses nothing by it. */
export function lazyPage(load: () => Promise<{ default: ComponentType }>, what: string): ComponentType {
  const Page = lazy(() => load().catch(() => ({ default: Away })));
  function Away() {
    return (
      <PageProblem title="This page could not be loaded" onRetry={() => void reloadWhenBack()}>
        <p>
          The server does not answer, so {what} cannot be opened. What you did elsewhere is saved; the page comes back
          with the server.
        </p>
      </PageProblem>
    );
  }
  return function LazyPage() {
    return (
      <Suspense fallback={<PageOpening>Opening {what} …</PageOpening>}>
        <Page />
      </Suspense>
    );
  };
}
