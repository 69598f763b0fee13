import { ChevronLeft, ChevronRight, X } from 'lucide-react';
import { memo, type ReactNode, useDeferredValue, useMemo } from 'react';
import type { StoredSettings } from '#contract/settings';
import type { NamedTuning } from '#core/crossTuning';
import { writtenNotes } from '#core/tune';
import { writtenPitch } from '#words/pitch';
import type { Bench } from '../commands/command';
import { commandOf } from '../commands/commands';
import { keysShown } from '../commands/keys';
import { type SheetName, SHEETS, TOOLS } from '../commands/sheetList';
import type { SheetProps } from '../openTune/sheetProps';
import { useAppStore } from '../store/store';
import { SignButton } from '../ui/Button';
import { SheetPlace } from '../ui/SheetPlace';
import { focusScore } from './focus';
import { OpenSheet } from './sheets';

/** What the panel holds: the findings, which else stand beside their lines, or a tool. */
export type PanelName = SheetName | 'findings';

interface ToolPanelProps {
  readonly bench: Bench;
  readonly name: PanelName;
  readonly onName: (name: PanelName | null) => void;
  readonly onPreview: SheetProps['onPreview'];
  readonly onHear: SheetProps['onHear'];
  readonly settings: StoredSettings;
  readonly tunings: readonly NamedTuning[];
  readonly findings: ReactNode;
}

/** Tools beside the live score: it follows the selection, and everything in it is seen in the score before it is taken. */
export function ToolPanel({ bench, name, onName, findings, ...rest }: ToolPanelProps) {
  // The score answers an edit first; what the tool makes of it comes after.
  const late = useDeferredValue(bench);
  const close = () => {
    rest.onPreview(null);
    onName(null);
    focusScore();
  };
  return (
    <aside
      data-panel={name}
      onKeyDown={(event) => {
        if (event.key !== 'Escape' || event.defaultPrevented) return;
        event.preventDefault();
        close();
      }}
      aria-label="Tools"
      className="flex min-h-0 shrink-0 flex-col border-line bg-surface max-md:h-[44dvh] max-md:border-t md:w-92 md:border-l xl:w-104"
    >
      <div className="flex items-start gap-1 border-b border-line px-2 py-1">
        <div
          role="toolbar"
          aria-label="Choose a tool"
          className="flex flex-1 flex-wrap gap-x-0.5 max-md:flex-nowrap max-md:overflow-x-auto"
        >
          <ToolButton words="Findings" isOn={name === 'findings'} onClick={() => onName('findings')} />
          {TOOLS.map((tool) => (
            <ToolButton
              key={tool}
              words={SHEETS[tool].tool!}
              keys={commandOf(tool).keys[0]}
              isOn={name === tool}
              isOff={!SHEETS[tool].applies(bench)}
              onClick={() => onName(tool)}
            />
          ))}
        </div>
        <SignButton label="Close the tools (Esc)" className="size-8" onClick={close}>
          <X size={17} aria-hidden />
        </SignButton>
      </div>
      <Stepper bench={bench} />
      {name === 'findings' ? (
        <div className="min-h-0 flex-1 overflow-y-auto px-4 py-3">{findings}</div>
      ) : SHEETS[name].applies(late) ? (
        <PanelBody key={name} bench={late} name={name} onClose={close} {...rest} />
      ) : (
        <p className="px-4 py-3 text-muted">This needs notes in the tune first.</p>
      )}
    </aside>
  );
}

interface ToolButtonProps {
  readonly words: string;
  readonly keys?: string | undefined;
  readonly isOn: boolean;
  readonly isOff?: boolean;
  readonly onClick: () => void;
}

function ToolButton({ words, keys, isOn, isOff = false, onClick }: ToolButtonProps) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      disabled={isOff}
      title={keys === undefined ? words : `${words} (${keysShown(keys)})`}
      onClick={onClick}
      className="min-h-7 shrink-0 rounded px-1.5 py-0.5 text-small whitespace-nowrap text-muted hover:bg-band hover:text-ink disabled:opacity-40 aria-pressed:bg-band aria-pressed:font-bold aria-pressed:text-ink max-md:min-h-9"
    >
      {words}
    </button>
  );
}

/** The note at hand, and the way to its neighbours. */
function Stepper({ bench }: { readonly bench: Bench }) {
  const { ids, where, tune } = bench;
  const note = useMemo(() => writtenNotes(tune).find(({ id }) => id === ids[0]), [tune, ids]);
  const step = (way: 'previous' | 'next') => commandOf(way).run(bench);
  return (
    <div className="flex items-center gap-1 border-b border-line px-2 text-small">
      <SignButton label="Previous note (←)" className="size-8" onClick={() => step('previous')}>
        <ChevronLeft size={17} aria-hidden />
      </SignButton>
      <p className="min-w-0 flex-1 truncate text-center" aria-live="polite" data-at-hand>
        {note ? (
          <>
            <b>{ids.length === 1 ? writtenPitch(note.pitch) : `${ids.length} notes`}</b>{' '}
            <span className="text-muted">{where}</span>
          </>
        ) : (
          <span className="text-muted">no note selected</span>
        )}
      </p>
      <SignButton label="Next note (→)" className="size-8" onClick={() => step('next')}>
        <ChevronRight size={17} aria-hidden />
      </SignButton>
    </div>
  );
}

interface PanelBodyProps extends Pick<ToolPanelProps, 'bench' | 'onPreview' | 'onHear' | 'settings' | 'tunings'> {
  readonly name: SheetName;
  readonly onClose: () => void;
}

/** The tool itself, a moment behind the score where it has much to count. */
const PanelBody = memo(
  function PanelBody({ name, bench, onPreview, onHear, settings, tunings, onClose }: PanelBodyProps) {
    const { open, tune, report, states, ids, barIds, where, part } = bench;
    const store = useAppStore();
    const apply = (next: SheetProps['tune'], label: string) => {
      // What was worked out for the tune of a moment ago must not undo what was done since.
      if (store.getState().openTune.open?.tune !== tune) return;
      onPreview(null);
      bench.edit(next, label);
    };
    return (
      <SheetPlace value="panel">
        <OpenSheet
          sheet={name}
          {...{ id: open.id, tune, report, states, ids, barIds, where, part, settings, tunings }}
          {...{ onPreview, onHear, onClose }}
          onEdit={apply}
          onApply={apply}
          onShow={(chosen) => bench.select({ anchor: chosen[0]!, focus: chosen[chosen.length - 1]! })}
        />
      </SheetPlace>
    );
  },
  (before, after) =>
    before.bench === after.bench &&
    before.name === after.name &&
    before.settings === after.settings &&
    before.tunings === after.tunings,
);
