import { useEffect, useRef } from 'react';
import type { Tune } from '#core/tune';
import type { SheetProps } from './sheetProps';

/** Shows in the score what a form would come to, for as long as it stands there. */
export function usePreview(onPreview: SheetProps['onPreview'], next: Tune, isOther: boolean): void {
  const latest = useRef(onPreview);
  useEffect(() => {
    latest.current = onPreview;
  });
  useEffect(() => {
    latest.current(isOther ? next : null);
    return () => latest.current(null);
  }, [next, isOther]);
}
