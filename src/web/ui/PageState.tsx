import type { ReactNode } from 'react';
import { Button } from './Button';
import { useTitle } from './useTitle';
import { useTryAgain } from './useTryAgain';

interface PageProblemProps {
  readonly title: string;
  readonly children: ReactNode;
  /** Asks again; done every few seconds by itself, too. */
  readonly onRetry?: () => void;
  /** Other ways out, beside trying again. */
  readonly ways?: ReactNode;
}

/** A page in place of one that cannot be shown: what is the matter, and what can be done. */
export function PageProblem({ title, children, onRetry, ways }: PageProblemProps) {
  useTitle(title);
  useTryAgain(onRetry);
  return (
    <main className="mx-auto max-w-xl px-6 py-16" role="alert">
      <h1 className="mb-2 text-2xl">{title}</h1>
      {children}
      {(onRetry || ways) && (
        <div className="mt-4 flex flex-wrap items-center gap-3">
          {ways}
          {onRetry && (
            <Button look={ways ? 'plain' : 'main'} onClick={onRetry}>
              Try again
            </Button>
          )}
          {onRetry && <span className="text-small text-muted">It also tries again by itself.</span>}
        </div>
      )}
    </main>
  );
}

/** A page that is still on its way. */
export function PageOpening({ children }: { readonly children: ReactNode }) {
  return (
    <main className="px-6 py-16 text-muted" aria-busy>
      {children}
    </main>
  );
}

interface NotReadProps {
  readonly words: string;
  readonly onRetry: () => void;
}

/** Said in place of what the server did not give, with a way to ask again; it also asks by itself. */
export function NotRead({ words, onRetry }: NotReadProps) {
  useTryAgain(onRetry);
  return (
    <div role="alert">
      <p className="mb-2 text-madder">{words}</p>
      <Button onClick={onRetry}>Try again</Button>
    </div>
  );
}
