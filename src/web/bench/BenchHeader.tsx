import type { TuneReport } from '#core/report';
import { formWords, headWords } from '#words/head';
import type { Bench } from '../commands/command';
import { commandOf } from '../commands/commands';
import { SaveMark } from '../openTune/SaveMark';
import { UndoButtons } from '../openTune/UndoButtons';
import { BowSign } from '../ui/signs';
import { useTitle } from '../ui/useTitle';
import { BenchMenus } from './BenchMenus';
import type { View } from './view';

interface BenchHeaderProps {
  readonly bench: Bench;
  readonly view: View;
  readonly onView: (view: View) => void;
  readonly onEndEntry: () => void;
}

/** What the tune is, how it is kept, and what can be done with it. */
export function BenchHeader({ bench, view, onView, onEndEntry }: BenchHeaderProps) {
  const { open, tune, report } = bench;
  useTitle(tune.title, 'bench');
  return (
    <header className="max-md:group-data-tool/bench:hidden flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line px-4 py-2 lg:px-5">
      <h1 className="line-clamp-2 min-w-0 text-room leading-tight max-sm:line-clamp-3" title={tune.title}>
        {tune.title}
      </h1>
      <p className="flex flex-wrap text-muted">
        <button
          type="button"
          className={FACT}
          title="Title, meter, key, tuning"
          onClick={() => commandOf('tune').run(bench)}
        >
          {headWords(tune)}
        </button>
        <span aria-hidden>&nbsp;·&nbsp;</span>
        <button
          type="button"
          className={FACT}
          aria-label="Form: parts and their order"
          title="Form: parts and their order"
          onClick={() => commandOf('form').run(bench)}
        >
          {formWords(report)}
        </button>
      </p>
      <div className="ml-auto flex flex-wrap items-center gap-x-1">
        <SaveMark save={open.save} />
        <StartButton report={report} onClick={() => commandOf('other-start').run(bench)} />
        <UndoButtons open={open} />
        <BenchMenus bench={bench} view={view} onView={onView} onEndEntry={onEndEntry} />
      </div>
      <p className="sr-only" role="status">
        {open.said}
      </p>
    </header>
  );
}

const FACT = 'rounded-sm decoration-soft underline-offset-3 hover:text-ink hover:underline';

const REASONS = { given: 'chosen', locked: 'locked', 'first-bar-down': 'so that bar 1 is a down-bow' } as const;

function StartButton({ report, onClick }: { readonly report: TuneReport; readonly onClick: () => void }) {
  const { direction, because } = report.figures.start;
  return (
    <button
      type="button"
      onClick={onClick}
      title={`Starts on the ${direction}-bow (${REASONS[because]}). Press to start on the other (B).`}
      className="flex h-9 items-center gap-1.5 rounded-md px-2 whitespace-nowrap text-muted hover:bg-band hover:text-ink"
    >
      <span className="max-sm:sr-only">starts</span> <BowSign direction={direction} />
      <span className="sr-only">{direction}-bow</span>
    </button>
  );
}
