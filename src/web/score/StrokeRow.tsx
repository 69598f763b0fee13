import { toNumber } from '#core/base';
import type { BowedNote } from '#core/bowing';
import type { UnrolledNote } from '#core/tune';
import { noteName } from '#words/pitch';
import { dot, outlines, polyline } from '../ui/paths';

const HEIGHT = 38;
/** Room for the names of notes. */
const NAMES = 12;

interface StrokeRowProps {
  /** Neighbouring notes as played. */
  readonly notes: readonly UnrolledNote[];
  /** The whole tune's, by index. */
  readonly bowed: readonly BowedNote[];
  readonly label: string;
  /** Indices of notes to be marked. */
  readonly marked?: ReadonlySet<number>;
  readonly barLines?: boolean;
  readonly width?: number;
  /** Names of the notes stand over their strokes. */
  readonly withNotes?: boolean;
  /** Where in the stretch the bow is shown, 0 … 1; null: nowhere. */
  readonly at?: number | null;
}

/** Strokes of a few bars by their real lengths, ticks where notes share one: a small bow lane without the hair. */
export function StrokeRow(props: StrokeRowProps) {
  const { notes, bowed, label, marked, barLines, width = 360, withNotes = false, at = null } = props;
  const [first] = notes;
  if (!first) return null;
  const origin = toNumber(first.onset);
  const last = notes[notes.length - 1]!;
  const span = toNumber(last.onset) + toNumber(last.duration) - origin;
  const xOf = (onset: number) => 5 + ((onset - origin) / span) * (width - 10);
  const [strokes, ticks, down, up, bars, marks] = outlines(6);
  let bowAt: { x: number; y: number } | null = null;
  const playedX = at === null ? null : xOf(origin + at * span);
  for (const [i, { index, onset, bar, duration }] of notes.entries()) {
    const { bow, inStroke, stroke } = bowed[index]!;
    const x = xOf(toNumber(onset));
    if (barLines && i > 0 && notes[i - 1]!.bar !== bar) polyline(bars, [x - 4, 3], [x - 4, HEIGHT - 5]);
    if (marked?.has(index))
      polyline(
        marks,
        [x - 3, HEIGHT - 1],
        [Math.max(x + 3, xOf(toNumber(onset) + toNumber(duration)) - 5), HEIGHT - 1],
      );
    if (inStroke > 1 && i > 0) continue;
    const members = notes.filter((other) => bowed[other.index]!.stroke === stroke);
    const end = members.reduce((at, other) => at + toNumber(other.duration), toNumber(onset));
    const endX = xOf(end) - 3;
    const rise = Math.min(26, 7 + (endX - x) * 0.22);
    const middle = HEIGHT / 2 - 2;
    const [y, toY] = bow === 'down' ? [middle - rise / 2, middle + rise / 2] : [middle + rise / 2, middle - rise / 2];
    polyline(strokes, [x, y], [endX, toY]);
    if (playedX !== null && playedX >= x && playedX <= endX + 3)
      bowAt = { x: playedX, y: y + ((toY - y) * (playedX - x)) / Math.max(1, endX - x) };
    for (const member of members.slice(1)) {
      const tickX = xOf(toNumber(member.onset));
      const tickY = y + ((toY - y) * (tickX - x)) / Math.max(1, endX - x);
      polyline(ticks, [tickX, tickY - 4], [tickX, tickY + 4]);
    }
    dot(bow === 'down' ? down : up, x, y, 3);
  }
  return (
    <svg
      viewBox={withNotes ? `0 ${-NAMES} ${width} ${HEIGHT + NAMES}` : `0 0 ${width} ${HEIGHT}`}
      className="w-full"
      role="img"
      aria-label={label}
    >
      {withNotes &&
        notes.map(({ index, onset, note }) => (
          <text key={index} x={xOf(toNumber(onset))} y={-2} textAnchor="middle" className="fill-muted text-mark">
            {noteName(note.pitch)}
          </text>
        ))}
      {barLines && <path d={bars.toString()} stroke="var(--line)" strokeWidth="1" />}
      {marked && <path d={marks.toString()} stroke="var(--weld)" strokeWidth="2.4" data-marks />}
      <path d={`${strokes}${ticks}`} fill="none" stroke="var(--ink)" strokeWidth="1.6" strokeLinecap="round" />
      <path d={down.toString()} fill="var(--ink)" />
      <path d={up.toString()} fill="var(--surface)" stroke="var(--ink)" strokeWidth="1.4" />
      {bowAt && <circle cx={bowAt.x} cy={bowAt.y} r={5} fill="var(--woad)" data-moving />}
    </svg>
  );
}

/** Directions of the notes in words, for those who do not see them drawn. */
export function strokeWords(notes: readonly UnrolledNote[], bowed: readonly BowedNote[]): string {
  return notes
    .map(({ index }) => {
      const { bow, inStroke, link } = bowed[index]!;
      if (inStroke > 1) return link === 'hook' ? 'hooked' : 'shared';
      return link === 'retake' ? `${bow} again` : bow;
    })
    .join(', ');
}
