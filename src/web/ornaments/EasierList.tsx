import { useCallback, useMemo } from 'react';
import { type EasierStep, easierVersions } from '#core/ornaments';
import { reportTune } from '#core/report';
import { counted, listed } from '#words/plural';
import { heldWords } from '#words/tempo';
import type { SheetProps } from '../openTune/sheetProps';
import { Take } from '../openTune/Take';
import { usePreviews } from '../threads/usePreviews';

/** The same tune with ever fewer layers, and to what tempo each stands. */
export function EasierList({ report, ...taking }: Pick<SheetProps, 'report' | 'onApply' | 'onPreview' | 'onHear'>) {
  const { tune, settings } = report;
  const steps = useMemo(() => easierVersions(tune), [tune]);
  const ceilingOf = useCallback(
    (step: EasierStep) => reportTune(step.tune, settings).figures.check.ceiling?.ceilingBpm ?? null,
    [settings],
  );
  const ceilings = usePreviews(steps, ceilingOf);
  if (steps.length === 0)
    return <p className="text-muted">This tune has no ornaments and no drones: it is as plain as it can be.</p>;
  return (
    <>
      <p className="mb-2 text-muted">
        As it is the tune holds {heldWords(report.figures.check.ceiling?.ceilingBpm ?? null)}. Each step leaves out one
        more layer; undo brings it back.
      </p>
      <ol>
        {steps.map(({ off, tune: easier, notes }, i) => (
          <li key={off} className="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line py-1.5">
            <span className="flex-1">
              <b>
                {i === 0 ? 'without' : 'and without'} {off}
              </b>{' '}
              <span className="text-small text-muted">
                on {counted(notes, 'note')}; holds {ceilings[i] === undefined ? '…' : heldWords(ceilings[i])}
              </span>
            </span>
            <Take
              {...{ onApply: taking.onApply, onPreview: taking.onPreview, onHear: taking.onHear }}
              next={easier}
              label={`without ${listed(steps.slice(0, i + 1).map((step) => step.off))}`}
              name={`without ${off}`}
            />
          </li>
        ))}
      </ol>
    </>
  );
}
