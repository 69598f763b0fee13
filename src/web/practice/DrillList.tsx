import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { chosenDrill, DRILL_KINDS, type DrillKind, drillsFor, type TuneDrill } from '#core/drills';
import type { TuneReport } from '#core/report';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import { causeWords, DRILL_NAMES, STAGE_WORDS, WAY_WORDS } from '#words/tuneDrill';
import type { Failure } from '../api/answer';
import { useAddTunesMutation } from '../api/bookApi';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';

interface DrillListProps {
  readonly id: string;
  readonly report: TuneReport;
}

/** The drills that the tune asks for, and any other in its key and tuning. */
export function DrillList({ id, report }: DrillListProps) {
  const drills = useMemo(() => drillsFor(report), [report]);
  const [more, setMore] = useState<readonly DrillKind[]>([]);
  const asked = new Set(drills.map(({ kind }) => kind));
  const added = useMemo(() => more.flatMap((kind) => chosenDrill(report, kind) ?? []), [more, report]);
  const others = DRILL_KINDS.filter((kind) => !asked.has(kind) && !more.includes(kind));
  return (
    <section aria-labelledby="drills" className="mt-6">
      <div className="mb-1 flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2 id="drills" className="text-xl">
          Drills from this tune
        </h2>
        {others.length > 0 && (
          <Select
            label="Another drill"
            value=""
            options={[
              { value: '', name: 'another drill …' },
              ...others.map((kind) => ({ value: kind as string, name: DRILL_NAMES[kind].name })),
            ]}
            onChange={(kind) => kind !== '' && setMore([kind as DrillKind, ...more])}
          />
        )}
      </div>
      <ul className="grid gap-x-8 md:grid-cols-2">
        {[...added, ...drills].map((drill) => (
          <DrillRow key={drill.kind} id={id} drill={drill} report={report} />
        ))}
      </ul>
    </section>
  );
}

function DrillRow({ id, drill, report }: DrillListProps & { readonly drill: TuneDrill }) {
  const { kind, because, stages } = drill;
  const { name, about } = DRILL_NAMES[kind];
  const [isOpen, setOpen] = useState(false);
  const [addTunes, { error }] = useAddTunesMutation();
  const navigate = useNavigate();
  const open = async (stage: TuneDrill['stages'][number], number: number) => {
    const title = `${name} ${number}, from ${report.tune.title}`;
    const added = await addTunes({ tunes: [{ tune: { ...stage.tune, title } }] });
    if (added.data) void navigate(`/tunes/${added.data[0]!.id}`);
  };
  return (
    <li className="border-t border-line py-1.5" data-drill={kind}>
      <div className="flex flex-wrap items-start gap-x-3 gap-y-1">
        <p className="min-w-0 flex-1">
          <b className="font-serif">{name}</b> <span className="text-small">{about}</span>
          <span className="block text-small text-muted">{causeWords(because, kind, report)}</span>
        </p>
        <Button look="small" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {counted(stages.length, 'stage')}
        </Button>
        <Button look="small" onClick={() => void navigate(`/tunes/${id}/practice/drill-${kind}`)}>
          Practise<span className="sr-only"> {name}</span>
        </Button>
      </div>
      {isOpen && (
        <ol className="mt-1 list-decimal pl-6 text-small">
          {stages.map((stage, i) => (
            <li key={i} className="py-0.5">
              {STAGE_WORDS[stage.code]}{' '}
              <span className="text-muted">
                {stage.way === 'bowed' ? '' : `${WAY_WORDS[stage.way]}, `}at {Math.round(stage.bpm)},{' '}
                {counted(stage.clean, 'clean time')} in a row, {counted(stage.minutes, 'minute')}
              </span>{' '}
              <Button look="link" className="text-small" onClick={() => void open(stage, i + 1)}>
                add to the book<span className="sr-only">: stage {i + 1}</span>
              </Button>
            </li>
          ))}
        </ol>
      )}
      {error !== undefined && <Alert look="small">Not added. {failureWords(error as Failure)}</Alert>}
    </li>
  );
}
