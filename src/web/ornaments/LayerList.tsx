import { useCallback, useMemo, useState } from 'react';
import { easierVersions, fullerVersions } from '#core/ornaments';
import { ornamentSceneOf, reportTune } from '#core/report';
import type { Tune } from '#core/tune';
import { failureWords } from '#words/failure';
import { counted, listed } from '#words/plural';
import { reportVerdict } from '#words/verdict';
import type { Failure } from '../api/answer';
import { useNameVersionMutation } from '../api/versionsApi';
import { Adopt } from '../openTune/Adopt';
import type { SheetProps } from '../openTune/sheetProps';
import { usePreviews } from '../threads/usePreviews';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';

type LayerProps = Pick<SheetProps, 'id' | 'report' | 'onApply' | 'onPreview' | 'onHear'>;

/** A version with a layer more or less than the one before it in its list. */
interface Layer {
  /** `without drones`, `with cuts on the beat`. */
  readonly words: string;
  /** All that is left out or put on so far, with the notes it is on. */
  readonly sum: string;
  readonly tune: Tune;
  readonly notes: number;
}

/** The same tune with ever fewer layers, and with more: each taken, or saved as a version beside the plan. */
export function LayerList(props: LayerProps) {
  const { report } = props;
  const easier = useMemo(
    () =>
      layersOf(
        'without',
        easierVersions(report.tune).map(({ off, ...step }) => ({ name: off, ...step })),
      ),
    [report],
  );
  const fuller = useMemo(
    () =>
      layersOf(
        'with',
        fullerVersions(ornamentSceneOf(report)).map(({ on, ...step }) => ({ name: on, ...step })),
      ),
    [report],
  );
  return (
    <>
      <p className="mb-3 text-muted">
        Each step takes one layer more. Take one, or save it as a version beside the plan: the hand-out can print any of
        them.
      </p>
      <section aria-labelledby="easier">
        <h3 id="easier" className="text-section">
          Easier
        </h3>
        {easier.length === 0 ? (
          <p className="text-muted">Nothing can be left out: it is as plain as it can be.</p>
        ) : (
          <Layers {...props} layers={easier} />
        )}
      </section>
      <section aria-labelledby="fuller" className="mt-4">
        <h3 id="fuller" className="text-section">
          Fuller
        </h3>
        {fuller.length === 0 ? (
          <p className="text-muted">Nothing more fits on every time through.</p>
        ) : (
          <Layers {...props} layers={fuller} />
        )}
      </section>
    </>
  );
}

interface Step {
  readonly name: string;
  readonly tune: Tune;
  readonly notes: number;
}

function layersOf(way: 'with' | 'without', steps: readonly Step[]): Layer[] {
  const sums = steps.map(({ name, notes }) => `${name} (${counted(notes, 'note')})`);
  return steps.map(({ name, tune, notes }, i) => ({
    words: `${way} ${name}`,
    sum: `${way} ${listed(sums.slice(0, i + 1))}`,
    tune,
    notes,
  }));
}

function Layers({ id, report, layers, ...taking }: LayerProps & { readonly layers: readonly Layer[] }) {
  const { settings } = report;
  const verdictOf = useCallback((one: Layer) => reportVerdict(reportTune(one.tune, settings)), [settings]);
  const verdicts = usePreviews(layers, verdictOf);
  const [nameVersion, { error }] = useNameVersionMutation();
  const [saved, setSaved] = useState<ReadonlySet<string>>(new Set());
  const save = async (one: Layer) => {
    const answer = await nameVersion({ id, name: one.words, tune: one.tune, kind: 'plan', note: one.sum });
    if (answer.data) setSaved((before) => new Set([...before, one.sum]));
  };
  return (
    <>
      <ol>
        {layers.map((one, i) => (
          <li key={one.words} className="border-t border-line py-1.5">
            <div className="flex flex-wrap items-center gap-x-2 gap-y-1">
              <span className="min-w-40 flex-1">
                <b>{i === 0 ? one.words : `and ${one.words}`}</b>{' '}
                <span className="text-small text-muted">on {counted(one.notes, 'note')}</span>
              </span>
              <Adopt {...taking} next={one.tune} label={one.sum} name={one.words} />
              <Button look="small" disabled={saved.has(one.sum)} onClick={() => void save(one)}>
                {saved.has(one.sum) ? 'saved' : 'save as a version'}
                <span className="sr-only">: {one.words}</span>
              </Button>
            </div>
            <p className={`text-hint ${verdicts[i]?.kind === 'bad' ? 'text-madder' : 'text-muted'}`}>
              {verdicts[i]?.words ?? '…'}
            </p>
          </li>
        ))}
      </ol>
      {error !== undefined && <Alert look="small">Not saved. {failureWords(error as Failure)}</Alert>}
    </>
  );
}
