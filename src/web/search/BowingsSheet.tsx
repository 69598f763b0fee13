import { ChevronLeft, ChevronRight } from 'lucide-react';
import { use, useMemo, useState } from 'react';
import { type BowedNote, type BowedTune, bowedTune } from '#core/bowing';
import type { TuneReport } from '#core/report';
import { adoptBowing, type BowingFigures, type Candidate, planFigures } from '#core/search';
import type { UnrolledNote } from '#core/tune';
import { ideaInBars } from '#words/idea';
import { counted } from '#words/plural';
import { NO_BOWING } from '#words/reportJson';
import { holdsWords } from '#words/tempo';
import { Adopt } from '../openTune/Adopt';
import type { SheetProps } from '../openTune/sheetProps';
import { StrokeRow, strokeWords } from '../score/StrokeRow';
import { problemWords } from '../threads/problemWords';
import { Button, SignButton } from '../ui/Button';
import { Select } from '../ui/Select';
import { Sheet } from '../ui/Sheet';
import { SheetPlace } from '../ui/SheetPlace';
import { Why } from '../ui/Why';
import { type Search, useSearch, WANTED } from './useSearch';
import { keepWishes, readWishes } from './wishesKept';
import { WishFields } from './WishFields';

/** Bars shown one over the other, and the width in which their strokes are laid out: fewer beside the score. */
const WIDE = { bars: 4, width: 780 };
const BESIDE = { bars: 2, width: 370 };
const NONE: readonly Candidate[] = [];

/** Looks for other bowings and lays them side by side on the same bars, to be taken whole or for one part. */
export function BowingsSheet({
  report,
  part: partAtStart,
  onClose,
  ...taking
}: Pick<SheetProps, 'report' | 'part' | 'onApply' | 'onClose' | 'onPreview' | 'onHear'>) {
  const [wishes, setWishes] = useState(() => ({ ...readWishes(), downbeat: report.settings.schools.downbeat }));
  const [part, setPart] = useState(partAtStart);
  const [from, setFrom] = useState(1);
  const isBeside = use(SheetPlace) === 'panel';
  const room = isBeside ? BESIDE : WIDE;
  const { state, again, cancel } = useSearch(report, wishes);
  const candidates = state.answer ?? NONE;
  const bars = useMemo(() => barsOfPart(report, part), [report, part]);
  const shown = useMemo(
    () =>
      bars.length === 0
        ? []
        : bars.filter(({ bar }) => (from === 1 ? bar >= 0 : bar >= from) && bar < from + room.bars),
    [bars, from, room],
  );
  const last = Math.max(1, ...bars.map(({ bar }) => bar));
  const to = Math.min(last, from + room.bars - 1);
  const now = useMemo(() => planFigures(report), [report]);

  return (
    <Sheet
      open
      onOpenChange={onClose}
      title="Other bowings"
      description="Searched among all bowings that come round every time. Locked notes keep their direction."
      wide
    >
      <WishFields
        wishes={wishes}
        onWishes={(next) => {
          keepWishes(next);
          setWishes(next);
        }}
      />
      <div className="mt-3 mb-2 flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-line pt-3">
        <label className="flex items-center gap-1.5">
          part
          <Select
            value={part}
            options={report.tune.parts.map(({ name }) => name)}
            onChange={(name) => {
              setPart(name);
              setFrom(1);
            }}
          />
        </label>
        <div className="flex items-center">
          <SignButton label="Bars before" disabled={from === 1} onClick={() => setFrom(Math.max(1, from - room.bars))}>
            <ChevronLeft size={18} aria-hidden />
          </SignButton>
          <span aria-live="polite">{from === to ? `bar ${from}` : `bars ${from}–${to}`}</span>
          <SignButton label="Bars after" disabled={to >= last} onClick={() => setFrom(from + room.bars)}>
            <ChevronRight size={18} aria-hidden />
          </SignButton>
        </div>
        <span className="text-small text-muted">
          <span className="mr-1.5 inline-block h-[2.4px] w-5 bg-weld align-middle" aria-hidden />
          different from now
        </span>
        <SearchState state={state} found={candidates.length} onCancel={cancel} onAgain={again} />
      </div>
      <ol
        aria-busy={state.kind === 'going'}
        className={`flex flex-col gap-2 ${state.kind === 'going' ? '[&>li]:border-dashed [&_svg]:opacity-50' : ''}`}
      >
        <BowingRow name="As it is now" figures={now} notes={shown} bowed={report.figures.bowed} width={room.width} />
        {candidates.map((candidate, i) => (
          <CandidateRow
            key={`${i} ${candidate.cost}`}
            {...{ candidate, report, part, taking }}
            name={`Bowing ${i + 1}`}
            notes={shown}
            width={room.width}
          />
        ))}
      </ol>
    </Sheet>
  );
}

function SearchState(props: {
  readonly state: Search['state'];
  readonly found: number;
  readonly onCancel: () => void;
  readonly onAgain: () => void;
}) {
  const { state, found, onCancel, onAgain } = props;
  const words = {
    none: '',
    going: `looking … ${state.progress} of ${WANTED}`,
    done:
      found === 0
        ? NO_BOWING
        : found < WANTED
          ? `${found} found; no others differ enough to compare`
          : `${found} found`,
    cancelled: 'stopped',
    failed: state.problem ? problemWords(state.problem) : '',
  }[state.kind];
  return (
    <div className="ml-auto flex items-center gap-2">
      <span role="status" data-search={state.kind} className={state.kind === 'failed' ? 'text-madder' : 'text-muted'}>
        {words}
      </span>
      {state.kind === 'going' && <Button onClick={onCancel}>Stop</Button>}
      {(state.kind === 'cancelled' || state.kind === 'failed') && <Button onClick={onAgain}>Look again</Button>}
    </div>
  );
}

function CandidateRow(props: {
  readonly name: string;
  readonly candidate: Candidate;
  readonly report: TuneReport;
  readonly part: string;
  readonly notes: readonly UnrolledNote[];
  readonly width: number;
  readonly taking: Pick<SheetProps, 'onApply' | 'onPreview' | 'onHear'>;
}) {
  const { name, candidate, report, part, notes, width, taking } = props;
  const { tune } = report;
  // Strokes and verdict by themselves: a row shows no more, and four whole reports would hold up the page.
  const adopted = useMemo(() => adoptBowing(tune, candidate), [tune, candidate]);
  const after = useMemo(() => bowedTune(adopted), [adopted]);
  const forPart = useMemo(() => adoptBowing(tune, candidate, [part]), [tune, candidate, part]);
  const partAfter = useMemo(() => bowedTune(forPart), [forPart]);
  const marked = useMemo(() => changedLinks(report, after), [report, after]);
  const isMany = tune.parts.length > 1;
  return (
    <BowingRow
      name={name}
      idea={ideaOf(report, candidate)}
      figures={candidate.figures}
      notes={notes}
      bowed={after.bowed}
      marked={marked}
      width={width}
    >
      <div className="flex flex-wrap items-center justify-end gap-2">
        {isMany && (
          <Adopt
            {...taking}
            next={forPart}
            label={`${name.toLowerCase()} for part ${part}`}
            name={`${name} for part ${part}`}
            isSilent
          >
            only for {part}
            {partAfter.comesRound ? '' : ', flips'}
          </Adopt>
        )}
        <Adopt {...taking} next={adopted} label={`${name.toLowerCase()} for the whole tune`} name={name} />
      </div>
    </BowingRow>
  );
}

function BowingRow(props: {
  readonly name: string;
  /** What it keeps to; left out for the plan at hand. */
  readonly idea?: string;
  readonly figures: BowingFigures;
  readonly notes: readonly UnrolledNote[];
  readonly bowed: readonly BowedNote[];
  readonly width: number;
  readonly marked?: ReadonlySet<number>;
  readonly children?: React.ReactNode;
}) {
  const { name, idea, figures, notes, bowed, width, marked, children } = props;
  const words = strokeWords(notes, bowed);
  return (
    <li className="rounded-md border border-line px-3 py-2" data-bowing={name}>
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h3 className="font-serif text-lead font-bold">{name}</h3>
        {idea !== undefined && <p>{idea}</p>}
        <p className={`font-bold ${figures.comesRound ? 'text-lichen-ink' : 'text-madder'}`}>
          {figures.comesRound ? 'comes round' : 'does not come round'}, {holdsWords(figures.ceilingBpm)}
        </p>
        <div className="ml-auto">{children}</div>
      </div>
      <StrokeRow
        notes={notes}
        bowed={bowed}
        barLines
        width={width}
        {...(marked ? { marked } : {})}
        label={`${name}, strokes: ${words}`}
        withNotes
      />
      <Why>{figureWords(figures, marked !== undefined)}</Why>
    </li>
  );
}

/** The idea of a proposal, with what its meter had to say where the dance is not told. */
function ideaOf({ tune }: TuneReport, { template, barTemplates }: Candidate): string {
  return `${ideaInBars(template, [...barTemplates.values()])}${tune.danceType ? '' : ', chosen by its meter'}`;
}

function figureWords(figures: BowingFigures, withLikeness: boolean): string {
  const { strokesPerSecond, slurCrossings, armDegreesPerBar, driftCm, likeness, locksContradicted } = figures;
  return [
    `${strokesPerSecond.toFixed(1)} strokes a second`,
    `${counted(slurCrossings, 'crossing')} in slurs`,
    `arm ${armDegreesPerBar.toFixed(0)}° a bar`,
    `drifts ${driftCm.toFixed(0)} cm`,
    ...(withLikeness ? [`${Math.round(100 * likeness)} % as it is now`] : []),
    ...(locksContradicted > 0
      ? [`${locksContradicted} locked ${locksContradicted === 1 ? 'note' : 'notes'} turned`]
      : []),
  ].join(' · ');
}

/** Notes of the first pass of a part. */
function barsOfPart({ unrolled }: TuneReport, part: string): readonly UnrolledNote[] {
  const pass = unrolled.passes.findIndex((candidate) => candidate.part === part);
  return unrolled.notes.filter(({ passIndex }) => passIndex === pass);
}

/** Indices of notes that are joined to the one before otherwise. */
function changedLinks({ figures }: TuneReport, after: BowedTune): ReadonlySet<number> {
  const changed = new Set<number>();
  for (const [i, { link }] of figures.bowed.entries()) if (link !== after.bowed[i]!.link) changed.add(i);
  return changed;
}
