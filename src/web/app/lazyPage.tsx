import { type ComponentType, lazy, Suspense } from 'react';

/** A room that is fetched when it is entered; says so where the server does not answer, and loses nothing by it. */
export function lazyPage(load: () => Promise<{ default: ComponentType }>, what: string): ComponentType {
  const Page = lazy(() => load().catch(() => ({ default: Away })));
  function Away() {
    return (
      <main className="mx-auto max-w-xl px-6 py-16" role="alert">
        <h1 className="mb-2 text-2xl">This room could not be fetched</h1>
        <p>
          The server does not answer, so {what} cannot be opened. What you did elsewhere is kept; load the page again
          when it is back.
        </p>
      </main>
    );
  }
  return function LazyPage() {
    return (
      <Suspense
        fallback={
          <main className="px-6 py-16 text-muted" aria-busy>
            Opening {what} …
          </main>
        }
      >
        <Page />
      </Suspense>
    );
  };
}
