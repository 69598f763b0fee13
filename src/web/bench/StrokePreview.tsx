import { toNumber } from '#core/base';
import type { TuneReport } from '#core/report';

const WIDTH = 360;
const HEIGHT = 40;

/** The strokes of the first two bars in which a pattern was laid, by their real lengths; ticks where notes share one. */
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
  const origin = toNumber(shown[0]!.onset);
  const last = shown[shown.length - 1]!;
  const span = toNumber(last.onset) + toNumber(last.duration) - origin;
  const xOf = (onset: number) => 5 + ((onset - origin) / span) * (WIDTH - 10);
  let [strokes, ticks, down, up] = ['', '', '', ''];
  for (const [i, { index, onset }] of shown.entries()) {
    const { bow, inStroke, stroke } = figures.bowed[index]!;
    const x = xOf(toNumber(onset));
    if (inStroke > 1 && i > 0) continue;
    const members = shown.filter((other) => figures.bowed[other.index]!.stroke === stroke);
    const end = members.reduce((at, other) => at + toNumber(other.duration), toNumber(onset));
    const endX = xOf(end) - 3;
    const rise = Math.min(26, 7 + (endX - x) * 0.22);
    const [y, toY] =
      bow === 'down' ? [HEIGHT / 2 - rise / 2, HEIGHT / 2 + rise / 2] : [HEIGHT / 2 + rise / 2, HEIGHT / 2 - rise / 2];
    strokes += `M${x} ${y}L${endX} ${toY}`;
    for (const member of members.slice(1)) {
      const tickX = xOf(toNumber(member.onset));
      ticks += `M${tickX} ${y + ((toY - y) * (tickX - x)) / Math.max(1, endX - x) - 4}v8`;
    }
    const head = `M${x - 3} ${y}a3 3 0 1 0 6 0a3 3 0 1 0-6 0Z`;
    if (bow === 'down') down += head;
    else up += head;
  }
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="my-1 w-full"
      role="img"
      aria-label={`Strokes of the first bars: ${shown.map(({ index }) => (figures.bowed[index]!.inStroke > 1 ? 'shared' : figures.bowed[index]!.bow)).join(', ')}`}
    >
      <path d={strokes + ticks} fill="none" stroke="var(--ink)" strokeWidth="1.6" strokeLinecap="round" />
      <path d={down} fill="var(--ink)" />
      <path d={up} fill="var(--band)" stroke="var(--ink)" strokeWidth="1.4" />
    </svg>
  );
}
