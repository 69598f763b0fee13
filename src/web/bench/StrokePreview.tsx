import { Pause, Play } from 'lucide-react';
import { useEffect, useState } from 'react';
import { toNumber } from '#core/base';
import type { TuneReport } from '#core/report';
import { StrokeRow, strokeWords } from '../score/StrokeRow';
import { SignButton } from '../ui/Button';

/** Shown slower than it is danced, so that the eye can follow. */
const SHOWN_SHARE = 0.5;

/** The strokes of the first two bars in which a pattern was laid, still or with the bow moving along them. */
export function StrokePreview({
  report,
  ids,
}: {
  readonly report: TuneReport;
  readonly ids: ReadonlySet<string> | undefined;
}) {
  const { unrolled, figures, timing } = report;
  const [moves, setMoves] = useState(false);
  const first = unrolled.notes.find(({ note }) => ids === undefined || ids.has(note.id));
  const shown = first
    ? unrolled.notes.filter(
        ({ passIndex, bar }) => passIndex === first.passIndex && bar >= first.bar && bar < Math.max(1, first.bar) + 2,
      )
    : [];
  const last = shown[shown.length - 1];
  const span = first && last ? toNumber(last.onset) + toNumber(last.duration) - toNumber(first.onset) : 0;
  const wholeSeconds = timing.total / Math.max(1e-9, toNumber(unrolled.duration));
  const at = useMovement(moves && span > 0 ? (span * wholeSeconds) / SHOWN_SHARE : null);
  if (!first) return null;
  return (
    <div className="my-1 flex items-center gap-1">
      <SignButton
        label={moves ? 'Stop the bow' : 'Show the bow moving, at half the tempo'}
        aria-pressed={moves}
        onClick={() => setMoves(!moves)}
      >
        {moves ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}
      </SignButton>
      <div className="min-w-0 flex-1">
        <StrokeRow
          notes={shown}
          bowed={figures.bowed}
          at={at}
          label={`Strokes of the first bars: ${strokeWords(shown, figures.bowed)}`}
        />
      </div>
    </div>
  );
}

/** Goes from 0 to 1 in some seconds, over and over; null while nothing moves. */
function useMovement(seconds: number | null): number | null {
  const [at, setAt] = useState<number | null>(null);
  useEffect(() => {
    if (seconds === null) return;
    let frame = 0;
    let begun: number | null = null;
    const step = (now: number) => {
      begun ??= now;
      setAt(((((now - begun) / 1000 / seconds) % 1) + 1) % 1);
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => {
      cancelAnimationFrame(frame);
      setAt(null);
    };
  }, [seconds]);
  return at;
}
