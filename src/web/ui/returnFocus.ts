/** What has the focus, or the button of the menu that has it: menus are gone once something was chosen in them. */
export function focusHolder(): Element | null {
  const focused = document.activeElement;
  const menu = focused?.closest('[role=menu]');
  const opener = menu?.getAttribute('aria-labelledby');
  return (opener ? document.getElementById(opener) : null) ?? focused;
}

/**
 * Gives the focus back to what had it. What was drawn anew meanwhile is found by its note; else the focus goes to the score, or
 * to the room, and is never left on nothing.
 */
export function returnFocus(holder: Element | null): void {
  const note = holder?.getAttribute('data-note');
  const target =
    (holder?.isConnected && holder !== document.body ? holder : null) ??
    (note == null ? null : document.querySelector(`[data-note="${CSS.escape(note)}"]`)) ??
    document.querySelector('[data-note][tabindex="0"]') ??
    document.getElementById('room');
  (target as HTMLElement | SVGElement | null)?.focus({ preventScroll: true });
}
