import { useEffect } from 'react';

/** Names the page in the browser's tab and to a screen reader: the room first, then what is in it. */
export function useTitle(...names: readonly (string | null)[]): void {
  const title = [...names.filter((name) => name !== null && name !== ''), 'Morrin'].join(' · ');
  useEffect(() => {
    document.title = title;
  }, [title]);
}
