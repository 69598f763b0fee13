import { type ReactNode, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { neighbourAngle } from '#core/crossing';
import { noteStates } from '#core/noteStates';
import type { TuneReport } from '#core/report';
import { barsThatFit } from './barsThatFit';
import { droneHeads } from './droneHeads';
import type { LaneSettings } from './Lanes';
import { scoreLines } from './lines';
import { StillLine } from './StillLine';
import type { TakeMark } from './TakeTracks';
import { useEngravingFonts } from './useEngravingFonts';

interface PlainScoreProps {
  readonly report: TuneReport;
  /** Left out: as many as the width takes. */
  readonly barsPerLine?: number;
  /** Drawing size, 1 is the usual one. */
  readonly zoom: number;
  readonly lanes: { readonly bow: boolean; readonly fingers: boolean };
  /** Room kept above each line, for what is laid over it. */
  readonly leadPx?: number;
  /** A take of it, drawn under the lines by written notes. */
  readonly take?: ReadonlyMap<string, TakeMark> | null;
  /** Said of it to those who do not see it. */
  readonly label: string;
  /** Laid over the score. */
  readonly children?: ReactNode;
}

/** A score to be read and not edited: staff and, where wanted, bow lane. */
export function PlainScore({
  report,
  barsPerLine,
  zoom,
  lanes: wanted,
  leadPx = 0,
  take = null,
  label,
  children,
}: PlainScoreProps) {
  const root = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  const isReady = useEngravingFonts();
  useLayoutEffect(() => {
    const element = root.current!;
    const measure = () => setWidth(Math.floor(element.clientWidth / zoom) - 4);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [zoom]);
  const lines = useMemo(
    () =>
      scoreLines(report.tune, barsPerLine ?? barsThatFit(report.tune, width), droneHeads(report.tune, report.fingers)),
    [report, barsPerLine, width],
  );
  const states = useMemo(() => noteStates(report, {}), [report]);
  const { instrument } = report.settings;
  const { bow, fingers } = wanted;
  const lanes: LaneSettings = useMemo(
    () => ({
      fingers,
      calls: false,
      letters: false,
      bow,
      arm: false,
      room: false,
      otherPasses: false,
      hair: {
        hairCm: instrument.hairCm,
        windowLowCm: instrument.sweetSpotCm - instrument.windowHalfCm,
        windowHighCm: instrument.sweetSpotCm + instrument.windowHalfCm,
      },
      neighbourAngle: neighbourAngle(instrument),
      marginDegrees: instrument.marginDegrees,
    }),
    [bow, fingers, instrument],
  );
  return (
    <div ref={root} className="relative" data-plain-score={isReady || undefined}>
      <div role="img" aria-label={label}>
        {isReady &&
          width > 0 &&
          lines.map((line) => (
            <div key={line.id} style={{ paddingTop: leadPx }}>
              <div style={{ zoom }}>
                <StillLine
                  line={line}
                  width={width}
                  states={states}
                  lanes={lanes}
                  tuning={report.tune.tuning}
                  take={take}
                />
              </div>
            </div>
          ))}
      </div>
      {children}
    </div>
  );
}
