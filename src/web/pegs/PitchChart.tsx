import {
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts';
import { type Creep, creepAt, HEARD_CENTS, type Minutes } from '#core/creep';
import { STANDS_CENTS, type StringSession } from './tuningSession';

interface PitchChartProps {
  readonly session: StringSession;
  readonly now: Minutes;
  /** Its drift from when it was tuned; null while it is not. */
  readonly creep: Creep | null;
  readonly check: Minutes | null;
  readonly words: string;
}

/** Minutes shown before now while a string is turned, and points drawn of a long line. */
const BEFORE: Minutes = 0.6;
const MAX_POINTS = 240;
const FORECAST_POINTS = 40;
const MIN_CENTS = 12;

interface Point {
  readonly minutes: number;
  readonly read?: number;
  readonly forecast?: number;
}

/** The string's pitch over time, running into its target band, with the forecast drawn ahead. */
export function PitchChart({ session, now, creep, check, words }: PitchChartProps) {
  const { tunedAt, readings } = session;
  const from = tunedAt === null ? now - BEFORE : Math.max(tunedAt - 0.2, now - 30);
  const ahead = tunedAt === null ? now + BEFORE / 3 : Math.max(now + 1, tunedAt + Math.min(30, 1.4 * (check ?? 6)));
  const shown = readings.filter(({ minutes }) => minutes >= from);
  const step = Math.max(1, Math.ceil(shown.length / MAX_POINTS));
  const points: Point[] = shown
    .filter((_, i) => i % step === 0)
    .map(({ minutes, cents }) => ({ minutes, read: cents }));
  const forecast: Point[] =
    creep && tunedAt !== null
      ? Array.from({ length: FORECAST_POINTS + 1 }, (_, i) => {
          const minutes = tunedAt + ((ahead - tunedAt) * i) / FORECAST_POINTS;
          return { minutes, forecast: creepAt(creep, minutes - tunedAt) };
        })
      : [];
  let [low, high] = [-MIN_CENTS, MIN_CENTS];
  for (const { read, forecast: drawn } of [...points, ...forecast]) {
    low = Math.min(low, (read ?? drawn ?? 0) - 2);
    high = Math.max(high, (read ?? drawn ?? 0) + 2);
  }
  const ticks = ticksBetween(low, high);
  const data = [...points, ...forecast].sort((a, b) => a.minutes - b.minutes);
  const zero = tunedAt ?? now;
  const mark = tunedAt !== null && check !== null ? tunedAt + check : null;
  return (
    <figure aria-label={words} role="img" className="h-72 w-full" data-pitch-chart>
      <ResponsiveContainer width="100%" height="100%">
        <ComposedChart data={data} margin={{ top: 8, right: 12, bottom: 18, left: 4 }} accessibilityLayer={false}>
          <CartesianGrid stroke="var(--line)" strokeDasharray="2 4" vertical={false} />
          <ReferenceArea y1={-HEARD_CENTS} y2={HEARD_CENTS} fill="var(--band)" fillOpacity={1} />
          <ReferenceArea y1={-STANDS_CENTS} y2={STANDS_CENTS} fill="var(--lichen)" fillOpacity={0.35} />
          <ReferenceLine y={0} stroke="var(--soft)" />
          <XAxis
            dataKey="minutes"
            type="number"
            domain={[from, ahead]}
            ticks={ticksBetween(from - zero, ahead - zero, 6, false).map((tick) => tick + zero)}
            allowDataOverflow
            tickFormatter={(minutes: number) => timeWords(minutes - zero)}
            stroke="var(--muted)"
            tick={{ fill: 'var(--muted)', fontSize: 12 }}
            label={{
              value: tunedAt === null ? 'minutes from now' : 'minutes since it was tuned',
              position: 'insideBottom',
              offset: -10,
              fill: 'var(--muted)',
              fontSize: 12,
            }}
          />
          <YAxis
            domain={[ticks[0]!, ticks[ticks.length - 1]!]}
            ticks={ticks}
            allowDataOverflow
            width={46}
            stroke="var(--muted)"
            tick={{ fill: 'var(--muted)', fontSize: 12 }}
            tickFormatter={(cents: number) => `${cents > 0 ? '+' : cents < 0 ? '−' : ''}${Math.abs(cents)}¢`}
          />
          {mark !== null && mark <= ahead && (
            <ReferenceLine
              x={mark}
              stroke="var(--weld)"
              strokeWidth={2}
              label={{ value: 'check again', position: 'insideTopRight', fill: 'var(--weld-ink)', fontSize: 12 }}
            />
          )}
          {tunedAt !== null && <ReferenceLine x={now} stroke="var(--soft)" strokeDasharray="3 3" />}
          <Line
            dataKey="read"
            stroke="var(--ink)"
            strokeWidth={1.8}
            dot={false}
            isAnimationActive={false}
            connectNulls
          />
          <Line
            dataKey="forecast"
            stroke="var(--woad)"
            strokeWidth={2}
            strokeDasharray="6 4"
            dot={false}
            isAnimationActive={false}
            connectNulls
          />
        </ComposedChart>
      </ResponsiveContainer>
    </figure>
  );
}

const STEPS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500];

/** Round figures from one end to the other, at most so many; `outer`: the ends lie within them. */
function ticksBetween(low: number, high: number, most = 7, outer = true): number[] {
  const step = STEPS.find((size) => (high - low) / size <= most) ?? 1000;
  const first = outer ? Math.floor(low / step) : Math.ceil(low / step);
  const last = outer ? Math.ceil(high / step) : Math.floor(high / step);
  return Array.from({ length: last - first + 1 }, (_, i) => Math.round((first + i) * step * 10) / 10);
}

function timeWords(minutes: number): string {
  const rounded = Math.round(minutes * 10) / 10;
  return `${rounded < 0 ? '−' : ''}${Math.abs(rounded)}`;
}
