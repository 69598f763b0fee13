import { useEffect, useRef } from 'react';

/** What a page asks of a pressed key: React's own event and the browser's alike. */
export type PageKey = Pick<
  KeyboardEvent,
  'key' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey' | 'target' | 'defaultPrevented' | 'preventDefault'
>;

/** Keys pressed while nothing has the focus are answered like those within the page: what had it may be gone. */
export function useBodyKeys(onKey: (event: PageKey) => void): void {
  const latest = useRef(onKey);
  useEffect(() => {
    latest.current = onKey;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.target === document.body) latest.current(event);
    };
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  }, []);
}
