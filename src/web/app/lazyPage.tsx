import { type ComponentType, lazy, Suspense } from 'react';
import { PageOpening, PageProblem } from '../ui/PageState';

/** A room that is fetched when it is entered; says so where the server does not answer, and loses nothing by it. */
export function lazyPage(load: () => Promise<{ default: ComponentType }>, what: string): ComponentType {
  const Page = lazy(() => load().catch(() => ({ default: Away })));
  function Away() {
    return (
      <PageProblem title="This page could not be loaded">
        <p>
          The server does not answer, so {what} cannot be opened. What you did elsewhere is saved; reload the page when
          the server is back.
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
