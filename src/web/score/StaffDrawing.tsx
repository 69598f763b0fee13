import { memo, useLayoutEffect, useRef } from 'react';
import { measured } from '../ui/measured';
import { lineEngraver } from './engrave';
import type { LineGeometry } from './geometry';
import type { LineSpec } from './lines';

/** A drawing with the line it shows. */
export interface DrawnLine {
  readonly line: LineSpec;
  readonly key: string;
  readonly geometry: LineGeometry;
}

interface StaffDrawingProps {
  readonly line: LineSpec;
  /** Stands for all that the drawing shows of the line: it is drawn anew only when this or the width changes. */
  readonly lineKey: string;
  readonly width: number;
  readonly onDrawn: (drawn: DrawnLine) => void;
}

/** The engraved staff of one line. */
export const StaffDrawing = memo(
  function StaffDrawing({ line, lineKey, width, onDrawn }: StaffDrawingProps) {
    const host = useRef<HTMLDivElement>(null);
    const engrave = useRef<ReturnType<typeof lineEngraver>>(null);
    useLayoutEffect(() => {
      engrave.current ??= lineEngraver(host.current!);
      const draw = engrave.current;
      const geometry = measured('engraving', () => draw(line, width));
      onDrawn({ line, key: lineKey, geometry });
      // eslint-disable-next-line react-hooks/exhaustive-deps -- the key stands for the line
    }, [lineKey, width, onDrawn]);
    return <div ref={host} className="engraving" aria-hidden />;
  },
  (before, after) =>
    before.lineKey === after.lineKey && before.width === after.width && before.onDrawn === after.onDrawn,
);
