import { PenTool, Rows3, Waves } from 'lucide-react';
import type { ReactNode } from 'react';
import type { TuneReport } from '#core/report';
import { formWords, headWords } from '#words/head';
import type { Bench } from '../commands/command';
import { commandOf, titleOf } from '../commands/commands';
import { keysSpoken } from '../commands/keys';
import { SaveMark } from '../openTune/SaveMark';
import { UndoButtons } from '../openTune/UndoButtons';
import { SignButton } from '../ui/Button';
import { BowSign } from '../ui/signs';
import { useTitle } from '../ui/useTitle';
import { EditMenu } from './EditMenu';
import { MoreMenu } from './MoreMenu';
import type { View } from './view';
import { ViewMenu } from './ViewMenu';

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
  const { entry } = open;
  return (
    <header className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line px-4 py-2 lg:px-5">
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
      <div className="ml-auto flex flex-wrap items-center gap-x-1 max-sm:gap-x-0 max-sm:[&_button]:w-8">
        <SaveMark save={open.save} />
        <StartButton report={report} onClick={() => commandOf('other-start').run(bench)} />
        <UndoButtons open={open} />
        <SignButton
          label={entry ? 'Entering notes: done (Esc)' : 'Enter notes (Enter)'}
          aria-pressed={entry !== null}
          className="aria-pressed:bg-band aria-pressed:text-woad"
          onClick={() => (entry ? onEndEntry() : bench.beginEntry())}
        >
          <PenTool size={18} aria-hidden />
        </SignButton>
        <EditMenu bench={bench} />
        <CommandButton id="patterns" bench={bench}>
          <Waves size={18} aria-hidden />
        </CommandButton>
        <CommandButton id="bowings" bench={bench} className="max-sm:hidden">
          <Rows3 size={18} aria-hidden />
        </CommandButton>
        <ViewMenu view={view} onView={onView} />
        <MoreMenu bench={bench} />
      </div>
      <p className="sr-only" role="status">
        {open.said}
      </p>
    </header>
  );
}

const FACT = 'rounded-sm decoration-soft underline-offset-3 hover:text-ink hover:underline';

interface CommandButtonProps {
  readonly id: string;
  readonly bench: Bench;
  readonly className?: string;
  readonly children: ReactNode;
}

/** A command as a button with a sign. */
function CommandButton({ id, bench, className, children }: CommandButtonProps) {
  const command = commandOf(id);
  return (
    <SignButton
      label={titleOf(command)}
      aria-keyshortcuts={keysSpoken(command.keys)}
      className={className}
      disabled={!command.applies(bench)}
      onClick={() => command.run(bench)}
    >
      {children}
    </SignButton>
  );
}

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
