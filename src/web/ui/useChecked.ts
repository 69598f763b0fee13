import { type FormEvent, useState } from 'react';
import type { z } from 'zod';

/** What is wrong with fields, by their names. */
type Errors<T> = { readonly [K in keyof T]?: string };

/**
 * The fields of a form, checked by a schema when it is handed in, and from then on at each change: nobody is told that a field
 * is wrong before they are done with it.
 */
export function useChecked<S extends z.ZodObject>(schema: S, first: z.input<S>) {
  const [fields, setFields] = useState(first);
  const [isTold, setTold] = useState(false);
  const checked = schema.safeParse(fields);
  const errors: Record<string, string> = {};
  if (isTold && !checked.success)
    for (const { path, message } of checked.error.issues) errors[String(path[0])] ??= message;
  return {
    fields,
    errors: errors as Errors<z.input<S>>,
    set: (changed: Partial<z.input<S>>) => setFields((now) => ({ ...now, ...changed })),
    /** Handles the form's own event: gives the fields as the schema makes them, or goes to the first that is wrong. */
    submit: (onDone: (fields: z.output<S>) => void) => (event: FormEvent<HTMLFormElement>) => {
      event.preventDefault();
      setTold(true);
      if (checked.success) onDone(checked.data);
      else focusFirstWrong(event.currentTarget, Object.keys(first), checked.error.issues);
    },
  };
}

function focusFirstWrong(form: HTMLFormElement, names: readonly string[], issues: readonly z.core.$ZodIssue[]): void {
  const wrong = names.find((name) => issues.some(({ path }) => path[0] === name));
  const field = wrong === undefined ? null : form.elements.namedItem(wrong);
  if (field instanceof HTMLElement) field.focus();
}
