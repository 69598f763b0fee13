import { useEffect, useState } from 'react';
import { loadEngravingFonts } from './fonts';

/** Whether the fonts of the engraving are there: without them nothing has its width. */
export function useEngravingFonts(): boolean {
  const [isReady, setReady] = useState(false);
  useEffect(() => {
    let isCurrent = true;
    void loadEngravingFonts().then(() => isCurrent && setReady(true));
    return () => {
      isCurrent = false;
    };
  }, []);
  return isReady;
}
