import type { ReactNode } from 'react';

/** What a figure rests on: there for those who ask. */
export function Why({ children }: { readonly children: ReactNode }) {
  return (
    <details className="text-hint leading-snug text-muted">
      <summary className="w-fit cursor-pointer rounded-sm hover:text-ink">why</summary>
      <div className="pt-0.5 pb-1">{children}</div>
    </details>
  );
}
