import type { ReactNode } from 'react';

/** How what is typed into looks in a sheet, and what is chosen from in a row. */
export const INPUT = 'rounded-md border border-soft bg-surface px-2 py-1.5';
export const SELECT = 'rounded-md border border-line bg-surface px-2 py-1';

interface FieldProps {
  readonly label: string;
  /** What is wrong with what was typed; told at once. */
  readonly error?: string | undefined;
  readonly wide?: boolean;
  readonly children: ReactNode;
}

/** A field with its name over it and, where it is wrong, why under it. */
export function Field({ label, error, wide, children }: FieldProps) {
  return (
    <label className={`flex flex-col gap-1 ${wide ? 'sm:col-span-2' : ''}`}>
      <span className="font-bold">{label}</span>
      {children}
      {error && (
        <span role="alert" className="text-small text-madder">
          {error}
        </span>
      )}
    </label>
  );
}
