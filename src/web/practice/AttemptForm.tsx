import { format, parseISO } from 'date-fns';
import { useState } from 'react';
import { z } from 'zod';
import { type Attempt, WRONGS } from '#contract/log';
import { WAYS } from '#core/drills';
import type { Bite } from '#core/practice';
import type { TuneReport } from '#core/report';
import { beatWords } from '#words/tempo';
import { WAY_WORDS } from '#words/tuneDrill';
import { Button } from '../ui/Button';
import { Field, INPUT } from '../ui/Field';
import { Select } from '../ui/Select';
import { useChecked } from '../ui/useChecked';

interface AttemptFormProps {
  readonly tune: { readonly id: string; readonly title: string; readonly revision: number };
  readonly report: TuneReport;
  readonly bites: readonly Bite[];
  readonly names: ReadonlyMap<string, string>;
  readonly onAdd: (attempt: Attempt) => void;
}

const WHOLE = 'whole';
const LOCAL = "yyyy-MM-dd'T'HH:mm";

const attemptFormSchema = z.object({
  span: z.string(),
  at: z
    .string()
    .refine((text) => !Number.isNaN(Date.parse(text)), 'expected a day and a time')
    .refine((text) => !(Date.parse(text) > Date.now()), 'expected a time that is past'),
  bpm: z.coerce.number('expected a number').min(10, 'expected 10 to 400').max(400, 'expected 10 to 400'),
  minutes: z.coerce.number('expected a number').min(0, 'expected 0 to 600').max(600, 'expected 0 to 600'),
  way: z.enum(WAYS),
  came: z.enum(['clean', ...WRONGS, 'not-yet']),
  note: z.string().max(600, 'at most 600 characters'),
});

const CAME = [
  { value: 'clean' as const, name: 'clean' },
  { value: 'not-yet' as const, name: 'not yet' },
  ...WRONGS.map((value) => ({ value, name: `not yet: ${value}` })),
];

/** What was played away from the screen, put into the log by hand. */
export function AttemptForm({ tune, report, bites, names, onAdd }: AttemptFormProps) {
  const { bpm: goal, beat } = report.settings;
  const [first] = useState(() => ({
    span: WHOLE,
    at: format(new Date(), LOCAL),
    bpm: String(Math.round(goal)) as unknown,
    minutes: '1' as unknown,
    way: 'bowed' as const,
    came: 'clean' as const,
    note: '',
  }));
  const { fields, errors, set, submit } = useChecked(attemptFormSchema, first);
  const add = submit(({ span, at, bpm, minutes, way, came, note }) => {
    const bite = bites.find(({ id }) => id === span);
    const { notes } = report.unrolled;
    const whole = { part: notes[0]!.part, from: notes[0]!.note.id, to: notes[notes.length - 1]!.note.id };
    onAdd({
      id: crypto.randomUUID(),
      at: parseISO(at).toISOString(),
      tuneId: tune.id,
      title: tune.title,
      revision: tune.revision,
      span: bite ? { part: bite.part, from: bite.from, to: bite.to } : whole,
      what: bite ? 'bite' : 'run-through',
      drill: null,
      layer: 'tempo',
      way,
      bpm,
      wishBpm: goal,
      clean: came === 'clean',
      wrong: came === 'clean' || came === 'not-yet' ? null : came,
      minutes,
      note: note.trim(),
      pain: null,
      corrects: null,
      isWithdrawn: false,
    });
  });
  return (
    <form
      onSubmit={add}
      noValidate
      className="mb-3 grid gap-3 rounded-md border border-line bg-surface p-3 sm:grid-cols-2 lg:grid-cols-4"
    >
      <Field label="What">
        <Select
          name="span"
          value={fields.span}
          options={[
            { value: WHOLE, name: 'the whole tune' },
            ...bites.map(({ id }) => ({ value: id, name: names.get(id) ?? id })),
          ]}
          onChange={(span) => set({ span })}
        />
      </Field>
      <Field label="When" error={errors.at}>
        <input
          name="at"
          type="datetime-local"
          className={INPUT}
          value={fields.at}
          onChange={({ target }) => set({ at: target.value })}
        />
      </Field>
      <Field label={`Tempo, ${beatWords(beat)} a minute`} error={errors.bpm}>
        <input
          name="bpm"
          inputMode="decimal"
          className={INPUT}
          value={String(fields.bpm)}
          onChange={({ target }) => set({ bpm: target.value })}
        />
      </Field>
      <Field label="Minutes" error={errors.minutes}>
        <input
          name="minutes"
          inputMode="decimal"
          className={INPUT}
          value={String(fields.minutes)}
          onChange={({ target }) => set({ minutes: target.value })}
        />
      </Field>
      <Field label="It was">
        <Select name="came" value={fields.came} options={CAME} onChange={(came) => set({ came })} />
      </Field>
      <Field label="How">
        <Select
          name="way"
          value={fields.way}
          options={WAYS.map((value) => ({ value, name: WAY_WORDS[value] }))}
          onChange={(way) => set({ way })}
        />
      </Field>
      <Field label="Note" error={errors.note} wide>
        <input
          name="note"
          className={INPUT}
          value={fields.note}
          onChange={({ target }) => set({ note: target.value })}
        />
      </Field>
      <div>
        <Button look="main" type="submit">
          Put it in the log
        </Button>
      </div>
    </form>
  );
}
