import type { TuneSummary } from '#contract/tunes';
import { bindsWords } from '#words/eventKind';
import { rangeWords } from '#words/tempo';

const LOWEST = 30;
const HIGHEST = 240;
const WIDTH = 84;

const place = (bpm: number) => ((Math.min(HIGHEST, Math.max(LOWEST, bpm)) - LOWEST) / (HIGHEST - LOWEST)) * WIDTH;

/** The ceiling as a figure and against the dance's band: how far the line reaches, and where the dance needs it. */
export function CeilingMark({ tune, beat }: { readonly tune: TuneSummary; readonly beat: string }) {
  const { ceilingBpm, own, wishBpm, bandLow, bandHigh } = tune;
  const stands = ceilingBpm === null || ceilingBpm >= wishBpm;
  const figure = ceilingBpm === null ? 'any' : String(Math.floor(ceilingBpm));
  return (
    <span
      className="flex flex-col max-md:items-end"
      title={`holds up to ${figure} ${beat} a minute; wanted ${Math.round(wishBpm)}; usual ${bandLow}–${bandHigh}${own ? `; for you up to ${Math.floor(own.median)} (${rangeWords(own)}), ${bindsWords(own.binds)}` : ''}`}
    >
      <span className="flex items-center gap-2.5">
        <span className={`w-8 text-right font-bold ${stands ? '' : 'text-madder'}`}>{figure}</span>
        <svg width={WIDTH} height="16" viewBox={`0 0 ${WIDTH} 16`} aria-hidden className="shrink-0 max-md:hidden">
          <rect
            x={place(bandLow)}
            y="1"
            width={place(bandHigh) - place(bandLow)}
            height="14"
            rx="2"
            fill="var(--band)"
          />
          <rect
            y="6.5"
            width={place(ceilingBpm ?? HIGHEST)}
            height="3"
            rx="1.5"
            fill={stands ? 'var(--lichen)' : 'var(--madder)'}
          />
          <path d={`M${place(wishBpm)} 2v12`} stroke="var(--ink)" strokeWidth="1.5" />
          {own && (
            <g stroke="var(--walnut)" fill="var(--paper)" strokeWidth="1.5">
              <path d={`M${place(own.low)} 13H${place(own.high)}`} />
              <circle cx={Math.min(WIDTH - 3, place(own.median))} cy="13" r="2.2" />
            </g>
          )}
        </svg>
        {own && (
          <span
            className="text-hint whitespace-nowrap relative text-walnut max-md:hidden"
            data-own={Math.floor(own.median)}
          >
            you {Math.floor(own.median)}
            <span className="sr-only">
              {' '}
              ({rangeWords(own)}), {bindsWords(own.binds)}
            </span>
          </span>
        )}
      </span>
      <span className={`text-hint leading-tight whitespace-nowrap md:pl-10.5 ${stands ? 'text-muted' : 'text-madder'}`}>
        {stands ? 'wanted' : 'short of'} {Math.round(wishBpm)} <span className="max-md:sr-only">{beat}</span>
        {own && <span className="text-walnut md:hidden"> · you {Math.floor(own.median)}</span>}
      </span>
    </span>
  );
}
