import { z } from 'zod';
import { implausibleTuning } from '#contract/pegs';
import { transposeToKey } from '#core/editing';
import { keyFifths, keyName, LETTERS, MODES } from '#core/pitch';
import { DANCE_TYPES, meterName, type Tune } from '#core/tune';
import { parseTuning, tuningName, TUNINGS } from '#core/tuning';
import { Button } from '../ui/Button';
import { Field, INPUT } from '../ui/Field';
import { Select } from '../ui/Select';
import { Sheet } from '../ui/Sheet';
import { useChecked } from '../ui/useChecked';

export const METERS = ['4/4', '2/2', '2/4', '3/4', '3/2', '6/8', '9/8', '12/8', '3/8', '6/4', '5/4', '7/8'] as const;
export const ALTERS = { '': 0, '♯': 1, '♭': -1 } as const;

const schema = z.object({
  title: z.string().trim().min(1, 'a tune has a title').max(300, 'at most 300 characters'),
  composer: z.string().trim().max(300, 'at most 300 characters'),
  danceType: z.union([z.enum(DANCE_TYPES), z.literal('')]),
  meter: z.string().regex(/^([1-9]|[1-5]\d|6[0-4])\/(1|2|4|8|16|32)$/, 'expected a meter such as 4/4 or 6/8'),
  letter: z.enum(LETTERS),
  alter: z.enum(['', '♯', '♭']),
  mode: z.enum(MODES),
  tuning: z
    .string()
    .refine((text) => parseTuning(text) !== null, 'expected four pitches low to high with octaves, such as A3 E4 A4 E5')
    .superRefine((text, context) => {
      const message = implausibleTuning(text);
      if (message) context.addIssue({ code: 'custom', message });
    }),
  tempo: z
    .string()
    .trim()
    .refine(
      (text) => text === '' || (Number(text) >= 10 && Number(text) <= 400),
      'expected dance beats a minute from 10 to 400, or nothing for the middle of the band',
    ),
  moves: z.boolean(),
});
type Fields = z.output<typeof schema>;

interface TuneSheetProps {
  readonly tune: Tune;
  readonly heading: string;
  readonly deed: string;
  /** Whether there are notes that could go along to another key. */
  readonly hasNotes: boolean;
  readonly onDone: (tune: Tune) => void;
  readonly onClose: () => void;
}

/** What a tune is: its name, dance, meter, key and tuning. */
export function TuneSheet({ tune, heading, deed, hasNotes, onDone, onClose }: TuneSheetProps) {
  const { fields, set, errors, submit } = useChecked(schema, {
    title: tune.title,
    composer: tune.composer ?? '',
    danceType: tune.danceType ?? '',
    meter: meterName(tune.meter),
    letter: tune.key.letter,
    alter: tune.key.alter === 1 ? '♯' : tune.key.alter === -1 ? '♭' : '',
    mode: tune.key.mode,
    tuning: tuningName(tune.tuning),
    tempo: tune.tempoBpm === null ? '' : String(tune.tempoBpm),
    moves: hasNotes,
  });
  const { letter, alter, mode } = fields;
  const isOtherTonic = letter !== tune.key.letter || ALTERS[alter] !== tune.key.alter;
  const canMove = hasNotes && isOtherTonic && mode === tune.key.mode;

  return (
    <Sheet open onOpenChange={onClose} title={heading}>
      <form
        className="grid gap-x-4 gap-y-3 sm:grid-cols-2"
        onSubmit={submit((checked) => onDone(tuneOf(tune, checked, canMove)))}
      >
        <Field label="Title" error={errors.title} wide>
          <input
            data-autofocus
            className={`${INPUT} w-full`}
            name="title"
            value={fields.title}
            onChange={({ target }) => set({ title: target.value })}
          />
        </Field>
        <Field label="By, or from" error={errors.composer} wide>
          <input
            className={`${INPUT} w-full`}
            name="composer"
            value={fields.composer}
            onChange={({ target }) => set({ composer: target.value })}
          />
        </Field>
        <Field label="Dance">
          <Select
            className={`${INPUT} w-full`}
            name="danceType"
            value={fields.danceType}
            options={[{ value: '', name: 'not set' }, ...DANCE_TYPES]}
            onChange={(danceType) => set({ danceType })}
          />
        </Field>
        <Field label="Meter" error={errors.meter}>
          <input
            className={`${INPUT} w-full`}
            list="meters"
            name="meter"
            value={fields.meter}
            onChange={({ target }) => set({ meter: target.value })}
          />
          <datalist id="meters">
            {METERS.map((meter) => (
              <option key={meter} value={meter} />
            ))}
          </datalist>
        </Field>
        <fieldset className="flex flex-col gap-1">
          <legend className="mb-1 font-bold">Key</legend>
          <div className="flex gap-1.5">
            <Select
              label="Tonic"
              className={`${INPUT} w-full`}
              name="letter"
              value={fields.letter}
              options={LETTERS}
              onChange={(chosen) => set({ letter: chosen })}
            />
            <Select
              label="Sharp or flat"
              className={`${INPUT} w-full`}
              name="alter"
              value={fields.alter}
              options={[{ value: '', name: 'natural' }, '♯', '♭']}
              onChange={(chosen) => set({ alter: chosen })}
            />
            <Select
              label="Mode"
              className={`${INPUT} w-full`}
              name="mode"
              value={fields.mode}
              options={MODES}
              onChange={(chosen) => set({ mode: chosen })}
            />
          </div>
          {canMove && (
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="accent-woad"
                checked={fields.moves}
                onChange={({ target }) => set({ moves: target.checked })}
              />{' '}
              the notes go along, from {keyName(tune.key)}
            </label>
          )}
        </fieldset>
        <Field label="Tuning, low to high" error={errors.tuning}>
          <input
            className={`${INPUT} w-full`}
            list="tunings"
            name="tuning"
            value={fields.tuning}
            onChange={({ target }) => set({ tuning: target.value })}
          />
          <datalist id="tunings">
            {TUNINGS.map(({ name, tuning }) => (
              <option key={name} value={tuningName(tuning)}>
                {name}
              </option>
            ))}
          </datalist>
        </Field>
        <Field label="Tempo wanted, in dance beats a minute" error={errors.tempo} wide>
          <input
            className={`${INPUT} w-full max-w-40`}
            inputMode="decimal"
            placeholder="middle of the band"
            name="tempo"
            value={fields.tempo}
            onChange={({ target }) => set({ tempo: target.value })}
          />
        </Field>
        <div className="flex justify-end gap-2 sm:col-span-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" type="submit">
            {deed}
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

function tuneOf(tune: Tune, fields: Fields, canMove: boolean): Tune {
  const [num, den] = fields.meter.split('/').map(Number) as [number, number];
  const tonic = { letter: fields.letter, alter: ALTERS[fields.alter] };
  const moved = canMove && fields.moves ? transposeToKey(tune, tonic) : tune;
  const { composer: _composer, ...rest } = moved;
  const isSameMeter = meterName(tune.meter) === fields.meter;
  const key = { ...tonic, mode: fields.mode };
  const keptExtra = keyFifths(key) === keyFifths(tune.key) && tune.key.extra ? { extra: tune.key.extra } : {};
  return {
    ...rest,
    title: fields.title,
    ...(fields.composer ? { composer: fields.composer } : {}),
    danceType: fields.danceType === '' ? null : fields.danceType,
    meter: isSameMeter ? tune.meter : { num, den },
    key: { ...key, ...keptExtra },
    tuning: parseTuning(fields.tuning)!,
    tempoBpm: fields.tempo === '' ? null : Number(fields.tempo),
  };
}
