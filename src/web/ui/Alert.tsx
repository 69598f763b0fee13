import type { ReactNode } from 'react';

const LOOKS = {
  /** In the flow of a sheet or page. */
  plain: 'text-madder',
  /** Under a field. */
  small: 'text-small text-madder',
  /** Across a page, when something was not kept. */
  banner: 'mb-3 rounded-md bg-band px-3 py-2 text-madder',
} as const;

interface AlertProps {
  readonly look?: keyof typeof LOOKS;
  readonly id?: string;
  readonly className?: string;
  readonly children: ReactNode;
}

/** What went wrong, or is wrong with what was typed: told at once. */
export function Alert({ look = 'plain', id, className = '', children }: AlertProps) {
  return (
    <p role="alert" id={id} className={`${LOOKS[look]} ${className}`.trim()}>
      {children}
    </p>
  );
}
