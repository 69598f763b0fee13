import { Trash2 } from 'lucide-react';
import { useId, useState } from 'react';
import { formatFraction } from '#core/base';
import {
  addPart,
  firstRun,
  movePart,
  parseForm,
  removePart,
  renamePart,
  reusedRuns,
  setForm,
  setPlays,
} from '#core/editing';
import { reportTune } from '#core/report';
import { barSumFaults, type Part, type Tune, writtenBars } from '#core/tune';
import { counted } from '#words/plural';
import type { SheetProps } from '../openTune/sheetProps';
import { Button, SignButton } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { SortableList, SortableRow } from '../ui/SortableList';
import { ReusedRow, ReuseField } from './ReuseField';

/** Parts, how often each is played, and their order; what comes of it in bars and seconds is told at once. */
export function FormSheet({ tune, onEdit, onClose }: Pick<SheetProps, 'tune' | 'onEdit' | 'onClose'>) {
  const names = tune.parts.map(({ name }) => name);
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title="Form"
      description="The parts, how often each is played, and in which order."
    >
      <div className="flex flex-col gap-4">
        <SortableList
          ids={names}
          onMove={(from, to) => onEdit(movePart(tune, names[from]!, to), `move part ${names[from]}`)}
        >
          <ol className="flex flex-col gap-1.5">
            {tune.parts.map((part) => (
              <PartRow key={part.name} tune={tune} part={part} onEdit={onEdit} />
            ))}
          </ol>
        </SortableList>
        <Button
          className="self-start"
          onClick={() => {
            const added = addPart(tune, names[names.length - 1]!);
            onEdit(added.tune, `a new part ${added.name}`);
          }}
        >
          Add a part
        </Button>
        <ReuseField tune={tune} onEdit={onEdit} />
        <OrderField key={tune.form.join(' ')} tune={tune} onEdit={onEdit} />
        <Sums tune={tune} />
        <div className="flex justify-end">
          <Button look="main" onClick={onClose}>
            Done
          </Button>
        </div>
      </div>
    </Sheet>
  );
}

function PartRow({
  tune,
  part,
  onEdit,
}: {
  readonly tune: Tune;
  readonly part: Part;
  readonly onEdit: SheetProps['onEdit'];
}) {
  const { name } = part;
  const [typed, setTyped] = useState(name);
  const plays = firstRun(tune.form, name);
  const bars = writtenBars(tune).get(name)!.length;
  const rename = () => {
    const renamed = renamePart(tune, name, typed);
    if (renamed === tune) setTyped(name);
    else onEdit(renamed, `part ${name} is now ${typed.trim()}`);
  };
  return (
    <SortableRow
      id={name}
      name={`part ${name}`}
      className="flex flex-wrap items-center gap-2 rounded-md border border-line bg-surface px-2 py-1"
    >
      {(handle) => (
        <>
          {handle}
          <input
            data-part={name}
            aria-label={`Name of part ${name}`}
            value={typed}
            onChange={({ target }) => setTyped(target.value)}
            onBlur={rename}
            onKeyDown={(event) => event.key === 'Enter' && rename()}
            maxLength={24}
            className="w-20 rounded-md border border-line bg-surface px-2 py-1 font-serif font-bold"
          />
          <label className="flex items-center gap-1.5">
            <input
              type="number"
              min={1}
              max={64}
              value={Math.max(1, plays)}
              onChange={({ target }) => {
                const number = Number(target.value);
                if (Number.isInteger(number) && number >= 1)
                  onEdit(setPlays(tune, name, number), `part ${name} ${number} times`);
              }}
              className="w-14 rounded-md border border-line bg-surface px-2 py-1"
              aria-label={`Times through part ${name}`}
            />
            {plays === 1 ? 'play' : 'plays'}
          </label>
          <span className="text-small text-muted">
            {bars} written bar{bars === 1 ? '' : 's'}
            {plays === 0 && ', not in the order'}
          </span>
          <SignButton
            className="ml-auto"
            label={`Delete part ${name}`}
            disabled={tune.parts.length === 1}
            onClick={() => onEdit(removePart(tune, name), `delete part ${name}`)}
          >
            <Trash2 size={16} aria-hidden />
          </SignButton>
          {reusedRuns(tune)
            .filter((run) => run.part === name)
            .map((run) => (
              <ReusedRow key={run.barIds[0]} tune={tune} run={run} onEdit={onEdit} />
            ))}
        </>
      )}
    </SortableRow>
  );
}

function OrderField({ tune, onEdit }: Pick<SheetProps, 'tune' | 'onEdit'>) {
  const isShort = tune.form.every((name) => name.length === 1);
  const [typed, setTyped] = useState(tune.form.join(isShort ? '' : ' '));
  const order = parseForm(tune, typed);
  const hint = useId();
  const take = () => {
    if (order && order.join(' ') !== tune.form.join(' ')) onEdit(setForm(tune, order), `order ${typed.trim()}`);
  };
  return (
    <label className="flex flex-col gap-1">
      <span className="font-bold">Playing order</span>
      <input
        value={typed}
        onChange={({ target }) => setTyped(target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
        aria-invalid={order === null}
        aria-describedby={hint}
        className="rounded-md border border-soft bg-surface px-2 py-1.5 font-serif text-lead tracking-wide"
        spellCheck={false}
      />
      <span id={hint} className={`text-small ${order ? 'text-muted' : 'text-madder'}`}>
        {order
          ? `${counted(order.length, 'pass', 'passes')}`
          : `Expected parts by name: ${tune.parts.map(({ name }) => name).join(', ')}.`}
      </span>
    </label>
  );
}

/** Length and what does not add up, on every path through the repeats. */
function Sums({ tune }: { readonly tune: Tune }) {
  const report = reportTune(tune);
  const faults = barSumFaults(tune);
  const joins = faults.filter((fault) => fault.kind === 'join');
  const bars = faults.length - joins.length;
  const strokes = report.figures.ledger.passes.reduce((sum, pass) => sum + pass.strokes, 0);
  return (
    <div className="rounded-md bg-band px-3 py-2" aria-live="polite" data-sums>
      <p>
        <b>{counted(report.bars, 'bar')}</b>, {report.timing.total.toFixed(0)} s, {strokes} strokes,{' '}
        {report.square ? 'square' : 'crooked'}
      </p>
      {bars > 0 && (
        <p className="text-weld-ink">
          {bars} bar{bars === 1 ? ' does' : 's do'} not add up: they are named beside their lines.
        </p>
      )}
      {joins.map((fault) => (
        <p key={`${fault.barId} ${fault.nextBarId}`} className="text-weld-ink">
          Last bar and pickup make {formatFraction(fault.length)} instead of {formatFraction(fault.expected)}{' '}
          {fault.again
            ? 'when the tune begins again'
            : `from ${fault.from.part}${fault.from.pass} to ${fault.to.part}${fault.to.pass}`}
          .
        </p>
      ))}
    </div>
  );
}
