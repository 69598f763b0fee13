import { clsx } from 'clsx';
import type { ButtonHTMLAttributes, Ref } from 'react';

type Look = 'plain' | 'small' | 'main' | 'link';

const LOOKS: Record<Look, string> = {
  plain: 'rounded-md border border-line bg-surface px-3 py-1.5 hover:border-soft disabled:opacity-50',
  small: 'rounded-md border border-line bg-surface px-2 py-0.5 text-small hover:border-soft disabled:opacity-50',
  main: 'rounded-md border border-woad bg-woad px-3 py-1.5 font-medium text-on-woad disabled:opacity-50',
  link: 'rounded-sm font-medium text-woad underline decoration-1 underline-offset-3 hover:decoration-2',
};

export interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly look?: Look;
  readonly ref?: Ref<HTMLButtonElement>;
}

export function Button({ look = 'plain', className, type = 'button', ...rest }: ButtonProps) {
  return <button type={type} className={clsx(look !== 'small' && 'text-control', LOOKS[look], className)} {...rest} />;
}

/** A square button that shows only a sign; `label` is its name for everyone. */
export function SignButton({ label, className, ...rest }: ButtonProps & { readonly label: string }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className={clsx(
        'grid size-9 place-items-center rounded-md text-muted hover:bg-band hover:text-ink disabled:opacity-40 disabled:hover:bg-transparent',
        className,
      )}
      {...rest}
    />
  );
}
