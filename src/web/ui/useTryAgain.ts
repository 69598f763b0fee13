import { useEffect, useRef } from 'react';

/** What could not be loaded is asked for again after so long. */
const WAIT_MS = 4000;

/** Tries again by itself for as long as it is shown: every few seconds, and at once when the network is back. */
export function useTryAgain(onRetry: (() => void) | undefined): void {
  const latest = useRef(onRetry);
  useEffect(() => {
    latest.current = onRetry;
  });
  const tries = onRetry !== undefined;
  useEffect(() => {
    if (!tries) return;
    const again = () => latest.current?.();
    const timer = setInterval(again, WAIT_MS);
    window.addEventListener('online', again);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', again);
    };
  }, [tries]);
}
