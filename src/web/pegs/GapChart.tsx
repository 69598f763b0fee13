import { CartesianGrid, ResponsiveContainer, Scatter, ScatterChart, XAxis, YAxis } from 'recharts';
import type { Fiddle } from '#contract/pegs';

const TICK = { fill: 'var(--muted)', fontSize: 12 } as const;

/** Hair gaps against the tempo that was played with them; the figures stand beside it in words. */
export function GapChart({ gaps }: { readonly gaps: Fiddle['hairGaps'] }) {
  const known = gaps.filter(({ bpm }) => bpm !== null);
  if (known.length < 2) return null;
  return (
    <div className="h-36 w-full max-w-96" aria-hidden>
      <ResponsiveContainer width="100%" height="100%">
        <ScatterChart accessibilityLayer={false} margin={{ top: 8, right: 12, bottom: 16, left: 0 }}>
          <CartesianGrid stroke="var(--line)" />
          <XAxis
            dataKey="bpm"
            type="number"
            domain={[
              (least: number) => Math.floor(least / 10 - 1) * 10,
              (most: number) => Math.ceil(most / 10 + 1) * 10,
            ]}
            allowDecimals={false}
            tick={TICK}
            stroke="var(--soft)"
            label={{ value: 'beats a minute', position: 'insideBottom', offset: -10, ...TICK }}
          />
          <YAxis
            dataKey="mm"
            type="number"
            width={44}
            domain={[(least: number) => Math.floor(least - 1), (most: number) => Math.ceil(most + 1)]}
            allowDecimals={false}
            tick={TICK}
            stroke="var(--soft)"
            label={{ value: 'mm', position: 'insideTopLeft', offset: 0, ...TICK }}
          />
          <Scatter data={known} fill="var(--walnut)" isAnimationActive={false} />
        </ScatterChart>
      </ResponsiveContainer>
    </div>
  );
}
