import { useLayoutEffect, useRef } from 'react';

/** What a page asks of a pressed key. */
export type PageKey = Pick<
  KeyboardEvent,
  'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey' | 'target' | 'defaultPrevented' | 'preventDefault'
>;

/**
 * Answers the keys of a page wherever the focus is; what a field, a menu or a dialog has answered comes `defaultPrevented`.
 * From the first paint on: a key pressed at once is not lost.
 */
export function usePageKeys(onKey: (event: PageKey) => void): void {
  const latest = useRef(onKey);
  useLayoutEffect(() => {
    latest.current = onKey;
  });
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => latest.current(event);
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  }, []);
}

const FIELDS = 'input:not([type=checkbox], [type=radio], [data-entry-field]), textarea, select, [contenteditable]';
/** What lies over the page has its own keys. */
const OVER = '[role=dialog], [role=alertdialog], [role=menu]';
const PRESSED = 'button, a, summary, input, [role=tab], [role=slider]';
const MOVED = '[role=slider], [role=tab], [role=radio], input, select';
const MOVES = /^(Arrow|Home|End|Page)/;

/**
 * Whether a key is meant for the page where the focus is: not what is typed into a field, nor what presses a button, moves a
 * slider or belongs to a menu.
 */
export function isForPage({ key, target, ctrlKey, metaKey, altKey }: PageKey): boolean {
  const element = target as Element;
  if (!(element instanceof Element)) return true;
  if (element.closest(`${FIELDS}, ${OVER}`)) return false;
  if (ctrlKey || metaKey || altKey) return true;
  if (key === ' ' || key === 'Enter') return element.closest(PRESSED) === null;
  return !MOVES.test(key) || element.closest(MOVED) === null;
}
