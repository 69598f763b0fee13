import type { ReactNode } from 'react';
import { Button } from './Button';

/** A page in place of one that cannot be shown: what is the matter, and what can be done. */
export function PageProblem({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <main className="mx-auto max-w-xl px-6 py-16" role="alert">
      <h1 className="mb-2 text-2xl">{title}</h1>
      {children}
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

/** Said in place of what the server did not give, with a way to ask again. */
export function NotRead({ words, onRetry }: NotReadProps) {
  return (
    <div role="alert">
      <p className="mb-2 text-madder">{words}</p>
      <Button onClick={onRetry}>Try again</Button>
    </div>
  );
}
