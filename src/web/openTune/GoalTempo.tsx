import { Popover, Slider } from 'radix-ui';
import { useState } from 'react';
import type { TuneReport } from '#core/report';
import { beatWords, holdsWords } from '#words/tempo';
import { Button } from '../ui/Button';
import { GOAL_BPM } from './goalBpm';
import type { Goal } from './useGoal';

interface GoalTempoProps {
  readonly report: TuneReport;
  readonly goal: Goal;
}

const { min: MIN, max: MAX } = GOAL_BPM;

/** The tempo wanted, which is part of the plan: with the tempo up to which it holds and the band of the dance. */
export function GoalTempo({ report, goal }: GoalTempoProps) {
  const { settings, figures, band } = report;
  const beats = beatWords(settings.beat);
  const ceiling = figures.check.ceiling?.ceilingBpm ?? null;
  const wanted = Math.round(settings.bpm);
  return (
    <div className="flex min-w-0 flex-1 items-center gap-x-3" role="group" aria-label="Goal: the tempo you want">
      <Popover.Root>
        <Popover.Trigger asChild>
          <button
            type="button"
            className="rounded-md px-1.5 py-0.5 text-left leading-tight whitespace-nowrap hover:bg-band"
            title="The tempo you want it at: part of the plan"
            data-goal={wanted}
          >
            <span className="block text-fine text-muted">goal</span>
            <b className="font-serif text-lead">{wanted}</b>{' '}
            <span className="text-hint text-muted max-sm:sr-only">{beats} a minute</span>
          </button>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            side="top"
            sideOffset={8}
            collisionPadding={8}
            aria-label="Goal tempo"
            className="z-30 flex w-80 max-w-[94vw] flex-col gap-2 rounded-lg border border-line bg-surface px-4 py-3 shadow-lg"
          >
            <p>
              You want <b>{wanted}</b> {beats} a minute. The plan {holdsWords(ceiling)}.
            </p>
            <GoalSlider report={report} onGoal={goal.set} />
            <p className="text-small text-muted">
              {report.tune.danceType ? `A ${report.tune.danceType} is` : 'Such tunes are'} usually danced at {band.low}{' '}
              to {band.high}. Tap Y three times or more to set the goal by ear.
            </p>
            {goal.reset && (
              <Button look="link" className="self-start" onClick={goal.reset}>
                Use the middle of the band
              </Button>
            )}
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      <div className="min-w-24 flex-1 max-md:hidden lg:max-w-72">
        <GoalSlider report={report} onGoal={goal.set} />
      </div>
    </div>
  );
}

function GoalSlider({ report, onGoal }: Pick<GoalTempoProps, 'report'> & { readonly onGoal: Goal['set'] }) {
  const { settings, figures, band } = report;
  const [dragged, setDragged] = useState<number | null>(null);
  const bpm = Math.min(MAX, Math.max(MIN, Math.round(dragged ?? settings.bpm)));
  const ceiling = figures.check.ceiling?.ceilingBpm ?? MAX;
  const share = (value: number) => `${(100 * (Math.min(MAX, Math.max(MIN, value)) - MIN)) / (MAX - MIN)}%`;
  return (
    <Slider.Root
      className="relative flex h-9 touch-none items-center"
      min={MIN}
      max={MAX}
      step={1}
      value={[bpm]}
      onValueChange={([value]) => setDragged(value!)}
      onValueCommit={([value]) => {
        setDragged(null);
        onGoal(value!);
      }}
    >
      <Slider.Track className="relative h-1.5 w-full rounded-full bg-band">
        <span className="absolute h-full rounded-full bg-lichen" style={{ width: share(ceiling) }} />
        <span
          className="absolute -top-1.5 h-0.5 bg-soft"
          style={{ left: share(band.low), width: `calc(${share(band.high)} - ${share(band.low)})` }}
          title={`usual band ${band.low}–${band.high}`}
        />
        {figures.check.ceiling && (
          <span
            className="absolute -top-1.5 h-4.5 w-0.5 bg-madder"
            style={{ left: share(ceiling) }}
            title={holdsWords(ceiling)}
          />
        )}
      </Slider.Track>
      <Slider.Thumb
        className="block size-5 rounded-full border-2 border-surface bg-woad shadow"
        aria-label="Tempo wanted"
        aria-valuetext={`${bpm} ${beatWords(settings.beat)} a minute`}
      />
    </Slider.Root>
  );
}
