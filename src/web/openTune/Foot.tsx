import { Slider } from 'radix-ui';
import { type ReactNode, useState } from 'react';
import type { TuneReport } from '#core/report';
import { beatWords } from '#words/tempo';
import { BowSign } from '../ui/signs';

interface FootProps {
  readonly report: TuneReport;
  /** Play, loop, and how it is listened to. */
  readonly player: ReactNode;
  readonly passInView: Readonly<Record<string, number>>;
  /** The pass that is heard, as `A1`; null while nothing is played. */
  readonly heardPass: string | null;
  readonly onPass: (part: string, pass: number) => void;
  readonly onTempo: (bpm: number) => void;
}

/** Passes in playing order with the bow on which each is entered, and the tempo. */
export function Foot({ report, player, passInView, heardPass, onPass, onTempo }: FootProps) {
  const { passes } = report.figures.ledger;
  return (
    <footer className="flex flex-wrap items-center gap-x-6 gap-y-2 border-t border-line bg-surface px-4 py-2.5 lg:px-5">
      {player}
      <ol className="flex max-w-full overflow-x-auto rounded-md border border-line" aria-label="Passes">
        {passes.map(({ part, pass, entry }) => {
          const usual = passes.find((other) => other.part === part)!.entry;
          const isOdd = entry !== usual;
          const isShown = (passInView[part] ?? 1) === pass;
          return (
            <li key={`${part}${pass}`} className="border-r border-line last:border-r-0">
              <button
                type="button"
                aria-pressed={isShown}
                aria-current={heardPass === `${part}${pass}` || undefined}
                aria-label={`${part}, time ${pass}: entered on the ${entry ?? 'unknown'}-bow${isOdd ? ', which is not its usual one' : ''}`}
                onClick={() => onPass(part, pass)}
                className={`flex h-9 items-center gap-1.5 px-3.5 whitespace-nowrap hover:bg-band aria-pressed:bg-band aria-[current]:shadow-[inset_0_-3px_0_var(--woad)] ${isOdd ? 'text-madder' : ''}`}
              >
                <b>{part}</b>
                <span>{pass}</span>
                {entry && <BowSign direction={entry} />}
                {isOdd && <span aria-hidden>!</span>}
              </button>
            </li>
          );
        })}
      </ol>
      <Tempo report={report} onTempo={onTempo} />
    </footer>
  );
}

/** Tempos that the slider has. */
export const SLIDER_BPM = { lowest: 30, highest: 240 } as const;
const { lowest: LOWEST, highest: HIGHEST } = SLIDER_BPM;

function Tempo({ report, onTempo }: Pick<FootProps, 'report' | 'onTempo'>) {
  const { settings, figures } = report;
  const [dragged, setDragged] = useState<number | null>(null);
  const bpm = dragged ?? settings.bpm;
  const { low, high } = report.band;
  const ceiling = figures.check.ceiling?.ceilingBpm ?? HIGHEST;
  const share = (value: number) =>
    `${(100 * (Math.min(HIGHEST, Math.max(LOWEST, value)) - LOWEST)) / (HIGHEST - LOWEST)}%`;
  return (
    <div className="flex flex-1 flex-wrap items-center gap-x-4 gap-y-1">
      <p className="whitespace-nowrap">
        <b className="font-serif text-sheet">{Math.round(bpm)}</b>{' '}
        <span className="text-muted">{beatWords(settings.beat)} a minute</span>
      </p>
      <Slider.Root
        className="relative flex h-9 min-w-40 flex-1 touch-none items-center lg:max-w-80"
        min={LOWEST}
        max={HIGHEST}
        step={1}
        value={[bpm]}
        onValueChange={([value]) => setDragged(value!)}
        onValueCommit={([value]) => {
          setDragged(null);
          onTempo(value!);
        }}
        aria-label="Tempo wanted"
      >
        <Slider.Track className="relative h-1.5 w-full rounded-full bg-band">
          <span className="absolute h-full rounded-full bg-lichen" style={{ width: share(ceiling) }} />
          <span
            className="absolute -top-1.5 h-0.5 bg-soft"
            style={{ left: share(low), width: `calc(${share(high)} - ${share(low)})` }}
            title={`usual band ${low}–${high}`}
          />
          {figures.check.ceiling && (
            <span className="absolute -top-1.5 h-4.5 w-0.5 bg-madder" style={{ left: share(ceiling) }} />
          )}
        </Slider.Track>
        <Slider.Thumb
          className="block size-5 rounded-full border-2 border-surface bg-woad shadow"
          aria-label="Tempo wanted"
          aria-valuetext={`${Math.round(bpm)} ${beatWords(settings.beat)} a minute`}
        />
      </Slider.Root>
      <p className="text-hint whitespace-nowrap text-muted">
        {report.bars} bars, {report.timing.total.toFixed(0)} s, {report.square ? 'square' : 'crooked'}
      </p>
    </div>
  );
}
