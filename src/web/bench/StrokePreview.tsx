import type { TuneReport } from '#core/report';
import { StrokeRow, strokeWords } from '../score/StrokeRow';

/** The strokes of the first two bars in which a pattern was laid. */
export function StrokePreview({
  report,
  ids,
}: {
  readonly report: TuneReport;
  readonly ids: ReadonlySet<string> | undefined;
}) {
  const { unrolled, figures } = report;
  const first = unrolled.notes.find(({ note }) => ids === undefined || ids.has(note.id));
  if (!first) return null;
  const shown = unrolled.notes.filter(
    ({ passIndex, bar }) => passIndex === first.passIndex && bar >= first.bar && bar < Math.max(1, first.bar) + 2,
  );
  return (
    <div className="my-1">
      <StrokeRow
        notes={shown}
        bowed={figures.bowed}
        label={`Strokes of the first bars: ${strokeWords(shown, figures.bowed)}`}
      />
    </div>
  );
}
