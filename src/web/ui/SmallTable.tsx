import type { ReactNode } from 'react';

/** The head of a column: words, or figures that stand to the right; hidden where its cells say themselves what they are. */
export type Head = string | { readonly figures: string } | { readonly hidden: string };

interface SmallTableProps {
  /** What it is a table of. */
  readonly label: string;
  readonly isBusy?: boolean;
  readonly heads: readonly Head[];
  /** From which it is scrolled rather than squeezed. */
  readonly minWidth?: string;
  readonly className?: string;
  /** A row of sums. */
  readonly foot?: ReactNode;
  /** Its rows. */
  readonly children: ReactNode;
}

/** A few rows of facts in a sheet; a wide one scrolls by itself. */
export function SmallTable({ label, isBusy, heads, minWidth, className = '', foot, children }: SmallTableProps) {
  return (
    <div className="relative overflow-x-auto" tabIndex={0} role="region" aria-label={label} aria-busy={isBusy}>
      <table className={`w-full text-left ${className}`.trim()} style={{ minWidth }}>
        <thead className="text-hint text-muted">
          <tr>
            {heads.map((head) => (
              <HeadCell key={nameOf(head)} head={head} />
            ))}
          </tr>
        </thead>
        <tbody>{children}</tbody>
        {foot && <tfoot>{foot}</tfoot>}
      </table>
    </div>
  );
}

function HeadCell({ head }: { readonly head: Head }) {
  if (typeof head === 'object' && 'hidden' in head)
    return (
      <th>
        <span className="sr-only">{head.hidden}</span>
      </th>
    );
  const isFigures = typeof head === 'object';
  return (
    <th className={`py-1 pr-3 font-normal ${isFigures ? 'text-right whitespace-nowrap' : ''}`.trim()}>
      {nameOf(head)}
    </th>
  );
}

function nameOf(head: Head): string {
  if (typeof head === 'string') return head;
  return 'figures' in head ? head.figures : head.hidden;
}
