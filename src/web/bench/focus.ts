/** Puts the keys on the note of the score that the tab key reaches. */
export function focusScore(): void {
  document.querySelector<SVGElement>('[data-note][tabindex="0"]')?.focus({ preventScroll: true });
}

/** Gives the keys back to the field of entry, once what was pressed has taken the focus. */
export function focusEntry(): void {
  requestAnimationFrame(() => document.querySelector<HTMLInputElement>('[data-entry-field]')?.focus());
}
