import {
  Area,
  AreaChart,
  CartesianGrid,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { OwnCeiling } from '#core/ability';
import type { TuneReport } from '#core/report';
import { type Trouble, type TroubleAt, troubleCurve, TROUBLES } from '#core/standing';
import type { TempoBand } from '#core/tempo';

const TEMPOS = 60;

const LOOKS: Readonly<Record<Trouble, { readonly words: string; readonly fill: string; readonly dash: string }>> = {
  bow: { words: 'bow: strokes, retakes', fill: 'var(--walnut)', dash: '' },
  crossings: { words: 'crossings', fill: 'var(--weld)', dash: '6 3' },
  hand: { words: 'hand: hops, shifts', fill: 'var(--woad)', dash: '2 3' },
  ornaments: { words: 'ornaments', fill: 'var(--lichen)', dash: '8 3 2 3' },
};

interface TroubleChartProps {
  readonly report: TuneReport;
  readonly band: TempoBand;
  /** Up to which tempo it holds for this player; null: not known. */
  readonly own: OwnCeiling | null;
  readonly beatWords: string;
}

/** Tempos that are shown: around the band, the wish and the ceiling. */
function temposOf({ settings, figures }: TuneReport, { low, high }: TempoBand, own: OwnCeiling | null): number[] {
  const marks = [
    low,
    high,
    ...(own ? [own.low, own.high] : []),
    settings.bpm,
    figures.check.ceiling?.ceilingBpm ?? settings.bpm,
  ];
  const from = Math.max(20, Math.floor((0.7 * Math.min(...marks)) / 5) * 5);
  const to = Math.min(400, Math.ceil((1.25 * Math.max(...marks)) / 5) * 5);
  return Array.from({ length: TEMPOS }, (_, i) => from + ((to - from) * i) / (TEMPOS - 1));
}

/** How many places lack their time, against the tempo. */
export function TroubleChart({ report, band, own, beatWords }: TroubleChartProps) {
  const { settings, figures } = report;
  const curve = troubleCurve(report, temposOf(report, band, own));
  const [now] = troubleCurve(report, [settings.bpm]);
  const ceiling = figures.check.ceiling?.ceilingBpm ?? null;
  const shown = TROUBLES.filter((trouble) => curve.some((at) => at[trouble] > 0));
  const ticks = ticksIn(curve[0]!.bpm, curve[curve.length - 1]!.bpm);
  return (
    <figure aria-label="Trouble against tempo">
      <p className="mb-1" data-trouble>
        {troubleWords(now!, beatWords)}
      </p>
      <div className="h-56" aria-hidden>
        <ResponsiveContainer width="100%" height="100%">
          <AreaChart accessibilityLayer={false} data={curve} margin={{ top: 18, right: 14, bottom: 18, left: 0 }}>
            <CartesianGrid vertical={false} stroke="var(--line)" />
            <ReferenceArea x1={band.low} x2={band.high} fill="var(--band)" fillOpacity={0.9} />
            {own && (
              <ReferenceArea
                x1={Math.max(own.low, curve[0]!.bpm)}
                x2={Math.min(own.high, curve[curve.length - 1]!.bpm)}
                fill="none"
                stroke="var(--walnut)"
                strokeDasharray="2 4"
                label={{ value: 'for you', position: 'insideTop', fill: 'var(--walnut)', fontSize: 13 }}
              />
            )}
            <XAxis
              dataKey="bpm"
              type="number"
              domain={['dataMin', 'dataMax']}
              ticks={ticks}
              tick={{ fill: 'var(--muted)', fontSize: 13 }}
              stroke="var(--soft)"
              label={{
                value: `${beatWords} a minute`,
                position: 'insideBottom',
                offset: -12,
                fill: 'var(--muted)',
                fontSize: 13,
              }}
            />
            <YAxis
              allowDecimals={false}
              width={46}
              // One place that lacks its time is seen, too.
              domain={[0, (most: number) => Math.max(2, most)]}
              label={{
                value: 'places without time',
                angle: -90,
                position: 'insideLeft',
                style: { textAnchor: 'middle' },
                fill: 'var(--muted)',
                fontSize: 13,
              }}
              tick={{ fill: 'var(--muted)', fontSize: 13 }}
              stroke="var(--soft)"
            />
            {shown.map((trouble) => (
              <Area
                key={trouble}
                dataKey={trouble}
                name={LOOKS[trouble].words}
                stackId="places"
                type="stepAfter"
                stroke={LOOKS[trouble].fill}
                strokeDasharray={LOOKS[trouble].dash}
                fill={LOOKS[trouble].fill}
                fillOpacity={0.35}
                isAnimationActive={false}
              />
            ))}
            <ReferenceLine
              x={settings.bpm}
              stroke="var(--woad)"
              strokeWidth={2}
              label={{ value: 'wanted', position: 'top', fill: 'var(--woad)', fontSize: 13 }}
            />
            {ceiling !== null && ceiling <= curve[curve.length - 1]!.bpm && (
              <ReferenceLine
                x={ceiling}
                stroke="var(--madder)"
                strokeWidth={2}
                strokeDasharray="5 3"
                label={{
                  value: 'breaks',
                  position: Math.abs(ceiling - settings.bpm) < 12 ? 'insideTopLeft' : 'top',
                  fill: 'var(--madder)',
                  fontSize: 13,
                }}
              />
            )}
            <Tooltip
              isAnimationActive={false}
              contentStyle={{ background: 'var(--surface)', border: '1px solid var(--line)', color: 'var(--ink)' }}
              labelFormatter={(bpm) => `at ${Math.round(Number(bpm))}`}
            />
          </AreaChart>
        </ResponsiveContainer>
      </div>
      <figcaption className="flex flex-wrap gap-x-5 gap-y-1 pl-10 text-small text-muted">
        {shown.map((trouble) => (
          <span key={trouble} className="flex items-center gap-1.5">
            <svg width="26" height="10" aria-hidden>
              <rect y="2" width="26" height="8" fill={LOOKS[trouble].fill} fillOpacity="0.35" />
              <path d="M0 2H26" stroke={LOOKS[trouble].fill} strokeWidth="2" strokeDasharray={LOOKS[trouble].dash} />
            </svg>
            {LOOKS[trouble].words}
          </span>
        ))}
        <span>
          shaded: the band {band.low}–{band.high}
        </span>
        {own && <span>dotted: where it breaks for you, 8 times in 10</span>}
      </figcaption>
    </figure>
  );
}

const IN_WORDS: Readonly<Record<Trouble, string>> = {
  bow: 'of the bow',
  crossings: 'at crossings',
  hand: 'of the hand',
  ornaments: 'in ornaments',
};

/** `At 109 half notes 6 places lack their time: 4 at crossings, 2 of the bow.` */
function troubleWords(at: TroubleAt, beatWords: string): string {
  const tempo = `At ${Math.round(at.bpm)} ${beatWords}`;
  if (at.all === 0) return `${tempo} every place has its time.`;
  const groups = TROUBLES.filter((trouble) => at[trouble] > 0).map((trouble) => `${at[trouble]} ${IN_WORDS[trouble]}`);
  return `${tempo} ${at.all} place${at.all === 1 ? ' lacks its' : 's lack their'} time: ${groups.join(', ')}.`;
}

function ticksIn(from: number, to: number): number[] {
  const step = to - from > 160 ? 40 : to - from > 70 ? 20 : 10;
  const first = Math.ceil(from / step) * step;
  return Array.from({ length: Math.floor((to - first) / step) + 1 }, (_, i) => first + i * step);
}
