import { X } from 'lucide-react';
import { useId, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Landmark, TunePractice } from '#contract/log';
import { type Bite, BITE_ORDERS, landmarkStretch, learningOrder } from '#core/practice';
import type { TuneReport } from '#core/report';
import { occurrencesOf } from '#core/tune';
import { failureWords } from '#words/failure';
import { counted, percentWords } from '#words/plural';
import { attemptSpanWords, knownHandWords, ORDER_WORDS } from '#words/practice';
import { reportVerdict } from '#words/verdict';
import type { Failure } from '../api/answer';
import { useKnownHandsQuery } from '../api/bookApi';
import { isSameSpan, landmarkOf } from '../log/spans';
import { OpenTunePage, type OpenTuneProps } from '../openTune/OpenTunePage';
import { RoomHeader } from '../openTune/RoomHeader';
import { Alert } from '../ui/Alert';
import { Button, SignButton } from '../ui/Button';
import { INPUT } from '../ui/Field';
import { Select } from '../ui/Select';
import { UndoRedo } from '../ui/UndoRedo';
import { useUndoKeys } from '../ui/useUndoKeys';
import { AttemptLog } from './AttemptLog';
import { BiteList } from './BiteList';
import { BiteScore } from './BiteScore';
import { CoursePlan } from './CoursePlan';
import { DrillList } from './DrillList';
import { Readiness } from './Readiness';
import { bestBpm, type KnownInBite, knownInBite, nameOfBite, useTuneInBites } from './useTuneInBites';

/** Notes in a bite that can be chosen. */
const BITE_SIZES = [4, 6, 8, 10, 12, 16].map((value) => ({ value, name: `${value} notes` }));

/** A tune in bites: what to learn next, in which order, and its drills. */
export default function PracticePage() {
  return <OpenTunePage page={TunePracticeRoom} />;
}

function TunePracticeRoom({ open, report }: OpenTuneProps) {
  const { id } = open;
  const own = useTuneInBites(id, report);
  const { practice, plan, learnt, daysOf, change, steps, error } = own;
  const navigate = useNavigate();
  const { data: hands } = useKnownHandsQuery(id);
  const [picked, setPicked] = useState<string | null>(null);
  useUndoKeys(
    () => void steps.undo(),
    () => void steps.redo(),
  );
  const names = useMemo(() => biteNames(plan.bites, practice.landmarks, report), [plan, practice.landmarks, report]);
  const byId = new Map(plan.bites.map((bite) => [bite.id, bite]));
  const next = nextBite(
    // What hurt rests, and is not offered.
    learnt.order.filter((one) => !practice.resting.some((rests) => isSameSpan(rests, byId.get(one)!))),
    byId,
    (bite) => daysOf(bite).length > 0,
    (bite) => bestBpm(daysOf(bite)),
  );
  const chosen = picked !== null && byId.has(picked) ? picked : (next?.id ?? null);
  const start = (bite: string) => void navigate(`/tunes/${id}/practice/bite-${bite}`);
  const cut = (from: string | null, to: string | null) => {
    const taken = new Set(plan.cuts.filter((one) => one.taken).map(({ before }) => before));
    if (from !== null) taken.delete(from);
    if (to !== null) taken.add(to);
    change(
      { ...practice, cuts: [...taken] },
      from === null ? 'add a cut' : to === null ? 'remove a cut' : 'move a cut',
    );
  };
  if (plan.bites.length === 0)
    return (
      <div className="flex h-full flex-col">
        <RoomHeader open={open} room="practice" />
        <main className="p-6">
          <p>There are no notes to practise yet.</p>
        </main>
      </div>
    );
  const chosenBite = chosen === null ? null : byId.get(chosen)!;
  return (
    <div className="flex h-full flex-col">
      <RoomHeader open={open} room="practice">
        <p className="text-muted">{reportVerdict(report).words}</p>
      </RoomHeader>
      <main className="relative min-h-0 flex-1 overflow-y-auto px-5 py-3 lg:px-8">
        {error !== undefined && <Alert look="banner">Not saved. {failureWords(error as Failure)}</Alert>}
        {next && (
          <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
            <p className="font-serif text-sheet leading-tight font-bold" data-next>
              {next.isNew
                ? `Begin with ${names.get(next.id)}: you can then play ${percentWords(next.total(learnt.coverage))} of the tune.`
                : `Next: ${names.get(next.id)}, clean at ${Math.floor(next.best ?? 0)} of ${Math.round(report.settings.bpm)}.`}
            </p>
            <Button look="main" onClick={() => start(next.id)}>
              Start
            </Button>
            <Link to="/practice" className="text-woad underline underline-offset-3">
              today’s session
            </Link>
          </div>
        )}
        <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
          <label className="flex items-center gap-1.5">
            learn
            <Select
              value={practice.order}
              options={BITE_ORDERS.map((value) => ({ value, name: ORDER_WORDS[value].name }))}
              onChange={(order) => change({ ...practice, order }, `learn ${ORDER_WORDS[order].name}`)}
            />
          </label>
          <label className="flex items-center gap-1.5">
            bites of about
            <Select
              value={practice.notesABite}
              options={BITE_SIZES}
              onChange={(notesABite) => change({ ...practice, notesABite }, `bites of ${notesABite} notes`)}
            />
          </label>
          {practice.cuts !== null && (
            <Button look="link" onClick={() => change({ ...practice, cuts: null }, 'best cuts')}>
              back to the best cuts
            </Button>
          )}
          <span className="flex">
            <UndoRedo
              undoes={steps.undoes}
              redoes={steps.redoes}
              onUndo={() => void steps.undo()}
              onRedo={() => void steps.redo()}
            />
          </span>
          <span className="text-small text-muted">
            {counted(plan.bites.length, 'bite')}. Drag a dashed line to cut elsewhere.
          </span>
        </div>
        <div className="grid gap-x-8 gap-y-5 lg:grid-cols-[minmax(0,1fr)_23rem]">
          <section aria-label="The tune in bites" className="min-w-0">
            <BiteScore
              report={report}
              bites={plan.bites}
              cuts={plan.cuts}
              chosen={chosen}
              names={names}
              onChoose={setPicked}
              onCut={cut}
            />
            {chosenBite && (
              <BiteFacts
                key={chosenBite.id}
                bite={chosenBite}
                report={report}
                plan={plan}
                practice={practice}
                name={names.get(chosenBite.id)!}
                names={names}
                known={knownInBite(report.tune, hands ?? [], chosenBite)}
                onChange={change}
                onCut={(before) => cut(null, before)}
              />
            )}
          </section>
          <div className="flex min-w-0 flex-col gap-5">
            <section aria-labelledby="bites">
              <h2 id="bites" className="text-xl">
                In this order
              </h2>
              <BiteList
                bites={plan.bites}
                coverage={learnt.coverage}
                names={names}
                chosen={chosen}
                goalBpm={report.settings.bpm}
                daysOf={daysOf}
                resting={practice.resting}
                onChoose={setPicked}
                onStart={start}
              />
            </section>
            <Landmarks id={id} report={report} landmarks={practice.landmarks} bites={plan.bites} />
            <Orders plan={plan} report={report} practice={practice} onChange={change} />
          </div>
        </div>
        <AttemptLog
          tuneId={id}
          revision={open.revision}
          report={report}
          plan={plan}
          names={names}
          landmarks={practice.landmarks}
        />
        <Readiness id={id} />
        <DrillList id={id} report={report} />
        <CoursePlan report={report} order={learnt.order} names={names} />
      </main>
    </div>
  );
}

/** Bites by their landmarks' names, else by where they stand. */
function biteNames(
  bites: readonly Bite[],
  landmarks: readonly Landmark[],
  report: TuneReport,
): ReadonlyMap<string, string> {
  return new Map(
    bites.map((bite) => {
      return [bite.id, nameOfBite(report, landmarks, bite)];
    }),
  );
}

/** What is to be practised next: the first bite that was never met, else the slowest. */
function nextBite(
  order: readonly string[],
  byId: ReadonlyMap<string, Bite>,
  isMet: (bite: Bite) => boolean,
  bestOf: (bite: Bite) => number | null,
) {
  const bites = order.map((id) => byId.get(id)!);
  const fresh = bites.find((bite) => bite.newNotes > 0 && !isMet(bite));
  const slowest = [...bites].sort((a, b) => (bestOf(a) ?? 0) - (bestOf(b) ?? 0))[0];
  const bite = fresh ?? slowest;
  return bite
    ? {
        id: bite.id,
        isNew: fresh !== undefined,
        best: bestOf(bite),
        total: (coverage: readonly { readonly bite: string; readonly total: number }[]) =>
          coverage.find((step) => step.bite === bite.id)?.total ?? 0,
      }
    : null;
}

interface BiteFactsProps {
  readonly bite: Bite;
  readonly report: TuneReport;
  readonly plan: ReturnType<typeof useTuneInBites>['plan'];
  readonly practice: TunePractice;
  readonly name: string;
  readonly names: ReadonlyMap<string, string>;
  readonly known: KnownInBite | null;
  readonly onChange: (next: TunePractice, label: string) => void;
  readonly onCut: (before: string) => void;
}

/** What is known of the chosen bite; it can be named, and cut in two. */
function BiteFacts({ bite, report, plan, practice, name, names, known, onChange, onCut }: BiteFactsProps) {
  const landmark = landmarkOf(practice.landmarks, bite);
  const keptName = landmark?.name ?? '';
  const [shown, setShown] = useState(keptName);
  const [typed, setTyped] = useState(keptName);
  // A name that was taken back, or removed, is not typed any more.
  if (shown !== keptName) {
    setShown(keptName);
    setTyped(keptName);
  }
  const field = useId();
  const keep = () => {
    const clean = typed.trim();
    if (clean === keptName) return;
    const others = practice.landmarks.filter((one) => one !== landmark);
    const { part, from, to } = bite;
    const landmarks =
      clean === '' ? others : [...others, { id: landmark?.id ?? crypto.randomUUID(), name: clean, part, from, to }];
    onChange({ ...practice, landmarks }, clean === '' ? `remove the name “${name}”` : `name “${clean}”`);
  };
  const met = occurrencesOf(report.unrolled);
  const inside = plan.cuts.filter(({ taken, before }) => {
    const at = met.get(before)?.[0] ?? -1;
    return !taken && at > bite.first && at <= bite.last;
  });
  const best = inside.reduce<(typeof inside)[0] | null>((one, cut) => (!one || cut.cost < one.cost ? cut : one), null);
  return (
    <div
      className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2 rounded-md border border-line bg-surface px-3 py-2"
      data-bite={bite.id}
    >
      <p className="min-w-0 flex-1 basis-72">
        <b className="font-serif text-lead">{name}</b>
        <span className="block text-small text-muted">
          {counted(bite.notes, 'note')}, {bite.seconds.toFixed(1)} s, played {counted(bite.plays, 'time')},{' '}
          {percentWords(bite.share)} of the tune. Looped by itself it{' '}
          {bite.loop === 'returns' ? 'comes back on the same bow' : 'flips every time'}.
          {bite.sharesWith.length > 0 && ` Shares notes with ${bite.sharesWith.map((id) => names.get(id)).join(', ')}.`}
        </span>
        {known && (
          <Link
            to={`/tunes/${known.id}/practice`}
            className="block text-small text-woad underline underline-offset-3"
            data-known={known.covers}
          >
            {knownHandWords(known)}
          </Link>
        )}
      </p>
      <label htmlFor={field} className="flex items-center gap-2 text-small">
        name it
        <input
          id={field}
          value={typed}
          maxLength={40}
          placeholder="the tag"
          onChange={({ target }) => setTyped(target.value)}
          onBlur={keep}
          onKeyDown={({ key }) => key === 'Enter' && keep()}
          className={`${INPUT} w-32 py-1`}
        />
        {landmark && (
          <SignButton
            label={`Remove the name “${landmark.name}”`}
            onClick={() =>
              onChange(
                { ...practice, landmarks: practice.landmarks.filter((one) => one !== landmark) },
                `remove the name “${landmark.name}”`,
              )
            }
          >
            <X size={15} aria-hidden />
          </SignButton>
        )}
      </label>
      {best && (
        <Button look="small" onClick={() => onCut(best.before)}>
          Cut it in two
        </Button>
      )}
    </div>
  );
}

interface LandmarksProps {
  readonly id: string;
  readonly report: TuneReport;
  readonly landmarks: readonly Landmark[];
  readonly bites: readonly Bite[];
}

/** Landmarks that are no bites: each is practised by its name. */
function Landmarks({ id, report, landmarks, bites }: LandmarksProps) {
  const others = landmarks.filter(
    (landmark) => !bites.some((bite) => landmarkOf([landmark], bite)) && landmarkStretch(report, landmark),
  );
  if (others.length === 0) return null;
  return (
    <section aria-labelledby="landmarks">
      <h2 id="landmarks" className="text-xl">
        Landmarks
      </h2>
      <ul>
        {others.map((landmark) => (
          <li key={landmark.id} className="flex items-baseline gap-3 border-b border-line py-1.5">
            <span className="flex-1">
              <b className="font-serif">{landmark.name}</b>{' '}
              <span className="text-small text-muted">{attemptSpanWords(report, landmark)}</span>
            </span>
            <Link
              to={`/tunes/${id}/practice/landmark-${landmark.id}`}
              className="text-woad underline underline-offset-3"
            >
              Practise<span className="sr-only"> {landmark.name}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

interface OrdersProps {
  readonly plan: ReturnType<typeof useTuneInBites>['plan'];
  readonly report: TuneReport;
  readonly practice: TunePractice;
  readonly onChange: (next: TunePractice, label: string) => void;
}

const CHART = { width: 330, height: 110 };

/** The orders side by side: how much of the tune can be played after so many new notes. */
function Orders({ plan, report, practice, onChange }: OrdersProps) {
  const curves = useMemo(
    () => BITE_ORDERS.map((order) => ({ order, coverage: learningOrder(plan, report, order).coverage })),
    [plan, report],
  );
  const notes = Math.max(
    1,
    curves[0]!.coverage.reduce((sum, step) => sum + step.newNotes, 0),
  );
  const pathOf = (coverage: (typeof curves)[0]['coverage']) => {
    let learnt = 0;
    let path = `M0 ${CHART.height}`;
    for (const { newNotes, total } of coverage) {
      learnt += newNotes;
      path += `H${((CHART.width * learnt) / notes).toFixed(1)}V${(CHART.height * (1 - total)).toFixed(1)}`;
    }
    return path;
  };
  return (
    <section aria-labelledby="orders">
      <h2 id="orders" className="text-xl">
        How soon you can play it
      </h2>
      <svg viewBox={`-2 -4 ${CHART.width + 4} ${CHART.height + 8}`} className="w-full" aria-hidden>
        {curves.map(({ order, coverage }) => (
          <path
            key={order}
            d={pathOf(coverage)}
            fill="none"
            stroke={order === practice.order ? 'var(--woad)' : 'var(--soft)'}
            strokeWidth={order === practice.order ? 2.4 : 1}
          />
        ))}
        <path d={`M0 ${CHART.height}H${CHART.width}`} stroke="var(--line)" />
      </svg>
      <p className="flex justify-between text-hint text-muted">
        <span>nothing learnt yet</span>
        <span>all {notes}</span>
      </p>
      <table className="w-full text-small">
        <caption className="sr-only">Share of the tune that can be played, by order</caption>
        <thead className="text-left text-muted">
          <tr>
            <th className="font-normal">order</th>
            <th className="text-right font-normal">after 1 bite</th>
            <th className="text-right font-normal">after 3</th>
          </tr>
        </thead>
        <tbody>
          {curves.map(({ order, coverage }) => (
            <tr key={order} className="border-t border-line">
              <td className="py-0.5">
                <button
                  type="button"
                  aria-pressed={order === practice.order}
                  className="rounded underline-offset-3 hover:underline aria-pressed:font-bold aria-pressed:text-woad"
                  onClick={() => onChange({ ...practice, order }, `learn ${ORDER_WORDS[order].name}`)}
                >
                  {ORDER_WORDS[order].name}
                </button>
              </td>
              <td className="text-right">{percentWords(coverage[0]?.total ?? 0)}</td>
              <td className="text-right">{percentWords(coverage[Math.min(2, coverage.length - 1)]?.total ?? 0)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
