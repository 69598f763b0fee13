import { format, parseISO } from 'date-fns';
import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { SpanDay } from '#contract/log';
import type { OwnCeiling } from '#core/ability';
import type { FanDay } from '#core/forecast';

interface ProgressChartProps {
  readonly days: readonly SpanDay[];
  readonly wishBpm: number;
  readonly own: OwnCeiling | null;
  /** Where the path leads from today on; empty: too little is known. */
  readonly fan: readonly FanDay[];
  readonly now: Date;
  readonly beatWords: string;
}

interface Point {
  readonly at: number;
  readonly clean?: number;
  readonly missed?: number;
  readonly expected?: number;
  readonly range?: readonly [number, number];
}

const DAY_MS = 86_400_000;
const TEXT = { fill: 'var(--muted)', fontSize: 13 } as const;

/** Clean tempo against time, with the tempo wanted, what holds for the player, and where it leads. */
export function ProgressChart({ days, wishBpm, own, fan, now, beatWords }: ProgressChartProps) {
  const played = days.flatMap(({ day, cleanBpm }): Point[] =>
    cleanBpm === null ? [] : [{ at: parseISO(day).getTime(), clean: cleanBpm }],
  );
  const ahead = fan.map(({ day, low, median, high }): Point => ({
    at: now.getTime() + day * DAY_MS,
    expected: round(median),
    range: [round(low), round(high)],
  }));
  const tempos = [...played.map(({ clean }) => clean!), ...fan.map((day) => Math.min(day.low, wishBpm)), wishBpm];
  const low = Math.floor((0.95 * Math.min(...tempos)) / 10) * 10;
  // How far beyond the tempo wanted it might go is nobody's question.
  const high = Math.ceil((1.06 * Math.max(...tempos)) / 10) * 10;
  return (
    <div className="h-64" aria-hidden data-progress-chart>
      <ResponsiveContainer width="100%" height="100%">
        <ComposedChart
          accessibilityLayer={false}
          data={[...played, ...ahead]}
          margin={{ top: 14, right: 56, bottom: 4, left: 0 }}
        >
          <CartesianGrid vertical={false} stroke="var(--line)" />
          {own && own.low < high && (
            <ReferenceArea
              y1={Math.max(low, own.low)}
              y2={Math.min(high, own.high)}
              fill="var(--band)"
              fillOpacity={0.8}
              label={{ value: 'your hands', position: 'insideTopLeft', ...TEXT }}
            />
          )}
          <XAxis
            dataKey="at"
            type="number"
            scale="time"
            domain={['dataMin', 'dataMax']}
            tickFormatter={(at: number) => format(at, 'd MMM')}
            minTickGap={40}
            tick={TEXT}
            stroke="var(--soft)"
          />
          <YAxis
            allowDataOverflow
            domain={[low, high]}
            width={46}
            tick={TEXT}
            stroke="var(--soft)"
            allowDecimals={false}
          />
          <Area
            dataKey="range"
            name="8 times in 10"
            stroke="none"
            fill="var(--woad)"
            fillOpacity={0.18}
            isAnimationActive={false}
          />
          <Line
            dataKey="expected"
            name="to be expected"
            stroke="var(--woad)"
            strokeWidth={1.5}
            strokeDasharray="5 4"
            dot={false}
            isAnimationActive={false}
          />
          <Line
            dataKey="clean"
            name={`clean, ${beatWords} a minute`}
            stroke="var(--walnut)"
            strokeWidth={1.5}
            dot={{ r: 3, fill: 'var(--walnut)', stroke: 'none' }}
            isAnimationActive={false}
          />
          <ReferenceLine
            y={wishBpm}
            stroke="var(--woad)"
            strokeWidth={2}
            label={{ value: 'wanted', position: 'right', fill: 'var(--woad)', fontSize: 13 }}
          />
          {ahead.length > 0 && (
            <ReferenceLine
              x={now.getTime()}
              stroke="var(--soft)"
              label={{ value: 'today', position: 'insideBottomLeft', ...TEXT }}
            />
          )}
          <Tooltip
            isAnimationActive={false}
            contentStyle={{ background: 'var(--surface)', border: '1px solid var(--line)', color: 'var(--ink)' }}
            labelFormatter={(at) => format(Number(at), 'd MMMM yyyy')}
          />
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
}

const round = (bpm: number) => Math.round(10 * bpm) / 10;
