import type { Share } from './sums';

interface SumBarsProps<T extends string> {
  readonly id: string;
  readonly title: string;
  readonly shares: readonly Share<T>[];
  readonly nameOf: (of: T) => string;
  readonly amountWords: (amount: number) => string;
  /** Said where there is nothing. */
  readonly none: string;
}

/** Amounts beside each other: a bar each, with its figure. */
export function SumBars<T extends string>({ id, title, shares, nameOf, amountWords, none }: SumBarsProps<T>) {
  const most = Math.max(1, ...shares.map(({ amount }) => amount));
  return (
    <section aria-labelledby={id}>
      <h2 id={id} className="mb-1 text-xl">
        {title}
      </h2>
      {shares.length === 0 ? (
        <p className="text-muted">{none}</p>
      ) : (
        <dl className="grid grid-cols-[max-content_minmax(3rem,1fr)_max-content] items-center gap-x-3 gap-y-1">
          {shares.map(({ of, amount }) => (
            <div key={of} className="contents">
              <dt>{nameOf(of)}</dt>
              <dd
                aria-hidden
                className="h-2.5 rounded-sm bg-walnut/60"
                style={{ width: `${(100 * amount) / most}%` }}
              />
              <dd className="text-right text-small tabular-nums text-muted">{amountWords(amount)}</dd>
            </div>
          ))}
        </dl>
      )}
    </section>
  );
}
