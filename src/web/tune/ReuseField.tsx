import { useState } from 'react';
import { releaseBars, reuseBars, type ReusedRun } from '#core/editing';
import { barNumbers, type Tune, writtenBars } from '#core/tune';
import { counted } from '#words/plural';
import { barSpan, reuseWords } from '#words/spot';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';

interface ReuseProps {
  readonly tune: Tune;
  readonly onEdit: (tune: Tune, label: string) => void;
}

/** Bars of a part that take up others. */
export function ReusedRow({ tune, run, onEdit }: ReuseProps & { readonly run: ReusedRun }) {
  const bars = `bar${run.from === run.to ? '' : 's'} ${barSpan(run.from, run.to)}`;
  return (
    <p className="flex w-full items-center gap-2 pl-10 text-small">
      <span>
        {bars} {reuseWords(run)}
      </span>
      <Button
        className="px-2 py-0.5 text-small"
        onClick={() => onEdit(releaseBars(tune, new Set(run.barIds)), `${bars} of ${run.part} made independent`)}
      >
        Let {run.from === run.to ? 'it' : 'them'} go {run.from === run.to ? 'its' : 'their'} own way
        <span className="sr-only">: {bars}</span>
      </Button>
    </p>
  );
}

interface BarChoice {
  readonly id: string;
  readonly words: string;
}

/** The bars of a part as they can be chosen; second endings and their like are told apart. */
function barChoices(tune: Tune, part: string): BarChoice[] {
  const bars = writtenBars(tune).get(part) ?? [];
  const numbers = barNumbers(bars, tune.form.filter((name) => name === part).length);
  return bars.map(({ event }, i) => {
    const number = numbers.get(event.id) ?? i + 1;
    const ending = event.ending ? `, ending ${event.onPlays!.join(', ')}` : '';
    return { id: event.id, words: `${number === 0 ? 'pickup' : number}${ending}` };
  });
}

const AT_END = 'end';

/** Lets bars of one part stand in another too. */
export function ReuseField({ tune, onEdit }: ReuseProps) {
  const [isOpen, setOpen] = useState(false);
  const [into, setInto] = useState(tune.parts[tune.parts.length - 1]!.name);
  const [from, setFrom] = useState(tune.parts[0]!.name);
  const [first, setFirst] = useState<string | null>(null);
  const [last, setLast] = useState<string | null>(null);
  const [at, setAt] = useState(AT_END);
  if (!isOpen)
    return (
      <Button className="self-start" onClick={() => setOpen(true)}>
        Reuse bars of another part
      </Button>
    );
  const choices = barChoices(tune, from);
  const targets = barChoices(tune, into);
  const indexOf = (id: string | null, otherwise: number) => {
    const found = choices.findIndex((choice) => choice.id === id);
    return found < 0 ? otherwise : found;
  };
  const begin = indexOf(first, 0);
  const end = Math.max(begin, indexOf(last, choices.length - 1));
  const barIds = choices.slice(begin, end + 1).map(({ id }) => id);
  const place = targets.some(({ id }) => id === at) ? at : AT_END;
  const next = reuseBars(tune, barIds, into, place === AT_END ? null : place);
  const select = (label: string, value: string, options: readonly BarChoice[], onChoose: (id: string) => void) => (
    <Select
      label={label}
      value={value}
      options={options.map(({ id, words }) => ({ value: id, name: words }))}
      onChange={onChoose}
    />
  );
  const parts = tune.parts.map(({ name }) => ({ id: name, words: name }));
  return (
    <fieldset className="rounded-md border border-line px-3 py-2">
      <legend className="px-1 font-bold">Reuse bars of another part</legend>
      <p className="flex flex-wrap items-center gap-1.5">
        {select('Part to reuse from', from, parts, setFrom)} from bar{' '}
        {select('First bar to reuse', choices[begin]?.id ?? '', choices, setFirst)} to{' '}
        {select('Last bar to reuse', choices[end]?.id ?? '', choices.slice(begin), setLast)} are reused in{' '}
        {select('Part that reuses them', into, parts, setInto)} from bar{' '}
        {select('First bar they replace', place, [...targets, { id: AT_END, words: 'after the last' }], setAt)}
      </p>
      <p className="mt-1 text-small text-muted">
        {next
          ? 'They replace the notes there. From then on, editing the notes in one place changes both; each place keeps its own bowing.'
          : 'Bars cannot reuse themselves: choose other bars.'}
      </p>
      <div className="mt-2 flex justify-end gap-2">
        <Button onClick={() => setOpen(false)}>Cancel</Button>
        <Button
          look="main"
          disabled={next === null}
          onClick={() => {
            onEdit(next!, `reuse ${counted(barIds.length, 'bar')} of ${from} in ${into}`);
            setOpen(false);
          }}
        >
          Reuse
        </Button>
      </div>
    </fieldset>
  );
}
