import { Fragment, useState } from 'react';
import { Link } from 'react-router';
import {
  type ChangedTune,
  INSTRUMENT_RANGES,
  playerSettings,
  type SavedSettings,
  type StoredSettings,
} from '#contract/settings';
import { learntLimits } from '#core/ability';
import { drillFor } from '#core/drills';
import { FULL_SIZE, type Instrument } from '#core/instrument';
import type { Finding } from '#core/report';
import { SCHOOL_CHOICES, SCHOOL_NAMES, type Schools } from '#core/schools';
import { type EventKind, GUESSED_LIMITS, LIMIT_KEYS, type LimitKey } from '#core/tempo';
import { dayWords, today } from '#words/days';
import { kindWords } from '#words/eventKind';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import { FINDING_NAMES, INSTRUMENT_WORDS, LIMIT_WORDS, SCHOOL_WORDS } from '#words/settings';
import type { Failure } from '../api/answer';
import { useSaveSettingsMutation, useSettingsQuery } from '../api/settingsApi';
import { useAbility } from '../api/useAbility';
import { useRecordUndo } from '../api/useRecordUndo';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { NumberField } from '../ui/NumberField';
import { PageOpening, PageProblem } from '../ui/PageState';
import { ThemeButton } from '../ui/ThemeButton';
import { UndoRedo } from '../ui/UndoRedo';
import { useTitle } from '../ui/useTitle';
import { useUndoKeys } from '../ui/useUndoKeys';
import { BandsSection } from './BandsSection';
import { DottedSection } from './DottedSection';
import { HandSection } from './HandSection';
import { kindOfLimit, LearntLine } from './LearntLine';
import { ListeningSection } from './ListeningSection';
import { MeasureSheet } from './MeasureSheet';
import { WordsSection } from './WordsSection';

/** The player: how things are done, the fiddle and the limits; every change says what it did to the book. */
export function SettingsPage() {
  const { data: record, error, isLoading, refetch } = useSettingsQuery();
  const [save, { isLoading: isSaving, error: saveError }] = useSaveSettingsMutation();
  const [outcome, setOutcome] = useState<{ readonly label: string; readonly saved: SavedSettings } | null>(null);
  const [measuring, setMeasuring] = useState<LimitKey | null>(null);
  const { ability, isLearning } = useAbility();
  useTitle('Settings');
  const steps = useRecordUndo<StoredSettings, SavedSettings>('settings', save);
  const undo = () =>
    void steps.undo().then((done) => done && setOutcome({ label: `Undone: ${done.label}`, saved: done.data }));
  const redo = () =>
    void steps.redo().then((done) => done && setOutcome({ label: `Redone: ${done.label}`, saved: done.data }));
  useUndoKeys(undo, redo);

  if (isLoading && error === undefined) return <PageOpening>Opening the settings …</PageOpening>;
  if (!record)
    return (
      <PageProblem title="The settings cannot be shown" onRetry={() => void refetch()}>
        <p>{error ? failureWords(error as Failure) : ''}</p>
      </PageProblem>
    );

  const { settings, revision } = record;
  const change = async (next: StoredSettings, label: string) => {
    const saved = await steps.change({ before: settings, next }, label);
    if (saved) setOutcome({ label, saved });
  };
  const player = playerSettings(settings);

  const setLimit = (key: LimitKey, value: number | null) => {
    const { [key]: _old, ...others } = settings.limits;
    const measured = value !== null && { value, source: 'measured' as const, date: today() };
    const limits = measured ? { ...others, [key]: measured } : others;
    void change({ ...settings, limits }, `${LIMIT_WORDS[key].name.toLowerCase()}`);
  };

  const takeLearnt = (kind: EventKind) => {
    const { mean, attempts } = ability.kinds[kind]!;
    const learnt = Object.entries(learntLimits(kind, mean, player.limits)).map(([key, value]) => [
      key,
      { value: Math.round(100 * value) / 100, source: 'learnt' as const, date: today(), attempts },
    ]);
    const limits = { ...settings.limits, ...(Object.fromEntries(learnt) as StoredSettings['limits']) };
    void change({ ...settings, limits }, `${kindWords(kind)} as you play them`);
  };

  return (
    <main className="h-full overflow-y-auto px-5 py-5 lg:px-8">
      <header className="mb-4 flex flex-wrap items-center gap-4">
        <div>
          <h1 className="text-page leading-tight">Settings</h1>
          <p className="text-muted">Changes are saved as you make them, and every tune in the book is checked again.</p>
        </div>
        <div className="ml-auto flex items-center gap-3">
          <ThemeButton inWords className="sm:hidden" />
          <span
            className="text-muted"
            role="status"
            data-settings={isSaving ? 'saving' : saveError ? 'failed' : 'kept'}
          >
            {isSaving ? 'checking the book again …' : revision > 0 ? 'saved' : 'usual settings'}
          </span>
          <UndoRedo undoes={steps.undoes} redoes={steps.redoes} isBusy={isSaving} onUndo={undo} onRedo={redo} />
        </div>
      </header>
      {saveError !== undefined && (
        <Alert look="banner">
          {(saveError as Failure).code === 'stale-save'
            ? 'The settings were changed in another window, and those are shown now. Make your change again.'
            : failureWords(saveError as Failure)}
        </Alert>
      )}
      {outcome && <Outcome {...outcome} />}
      <div className="grid gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
        <div className="flex flex-col gap-6">
          <section aria-labelledby="schools">
            <h2 id="schools" className="mb-2 text-xl">
              How you were taught
            </h2>
            <div className="flex flex-col gap-3">
              {SCHOOL_NAMES.map((name) => (
                <SchoolField
                  key={name}
                  name={name}
                  chosen={settings.schools[name]}
                  onChoose={(choice, words) =>
                    void change({ ...settings, schools: { ...settings.schools, [name]: choice } }, words)
                  }
                />
              ))}
              <WordsSection
                words={settings.words}
                onWords={(words, label) => void change({ ...settings, words }, label)}
              />
            </div>
          </section>
          <BandsSection settings={settings} onChange={(next, label) => void change(next, label)} />
          <DottedSection settings={settings} onChange={(next, label) => void change(next, label)} />
          <ListeningSection settings={settings} onChange={(next, label) => void change(next, label)} />
        </div>
        <div className="flex flex-col gap-6">
          <HandSection settings={settings} onChange={(next, label) => void change(next, label)} />
          <section aria-labelledby="fiddle">
            <h2 id="fiddle" className="mb-2 text-xl">
              Fiddle and bow
            </h2>
            <div className="flex flex-col gap-1">
              {(Object.keys(INSTRUMENT_WORDS) as (keyof Instrument)[]).map((name) => (
                <NumberField
                  key={name}
                  {...INSTRUMENT_WORDS[name]}
                  value={player.instrument[name]}
                  usual={defaultFigure(name, player.instrument)}
                  low={INSTRUMENT_RANGES[name][0]}
                  high={INSTRUMENT_RANGES[name][1]}
                  onChange={(value) => {
                    const { [name]: _old, ...others } = settings.instrument;
                    const instrument = value === null ? others : { ...others, [name]: value };
                    void change({ ...settings, instrument }, `${INSTRUMENT_WORDS[name].name.toLowerCase()}`);
                  }}
                />
              ))}
            </div>
          </section>
          <section aria-labelledby="limits">
            <h2 id="limits" className="mb-2 text-xl">
              What your hands need
            </h2>
            <p className="mb-2 text-small text-muted">
              A guess holds until you take what your log says, or measure it: the surest is what was measured.
              {isLearning && ' Your log is being read …'}
            </p>
            <div className="flex flex-col gap-1">
              {LIMIT_KEYS.map((key) => {
                const kind = kindOfLimit(key);
                const learnt = kind && ability.kinds[kind];
                return (
                  <Fragment key={key}>
                    <NumberField
                      beside={
                        <Button
                          look="small"
                          aria-label={`Measure: ${LIMIT_WORDS[key].name}`}
                          onClick={() => setMeasuring(key)}
                        >
                          measure
                        </Button>
                      }
                      {...LIMIT_WORDS[key]}
                      why={limitWords(settings.limits[key])}
                      value={player.limits[key].value}
                      usual={GUESSED_LIMITS[key]}
                      low={0.1}
                      high={10_000}
                      onChange={(value) => {
                        setLimit(key, value);
                      }}
                    />
                    {kind && learnt && (
                      <LearntLine kind={kind} ability={learnt} limits={player.limits} onTake={() => takeLearnt(kind)} />
                    )}
                  </Fragment>
                );
              })}
            </div>
          </section>
        </div>
      </div>
      {measuring && (
        <MeasureSheet
          limit={measuring}
          drill={drillFor(measuring)}
          player={player}
          onMeasured={(value) => setLimit(measuring, value)}
          onClose={() => setMeasuring(null)}
        />
      )}
    </main>
  );
}

/** The usual figure; sweet spot and window go with the hair. */
function defaultFigure(name: keyof Instrument, { hairCm }: Instrument): number {
  const share = name === 'sweetSpotCm' || name === 'windowHalfCm' ? hairCm / FULL_SIZE.hairCm : 1;
  return Math.round(FULL_SIZE[name] * share * 100) / 100;
}

function limitWords(limit: StoredSettings['limits'][string] | undefined): string {
  if (!limit || limit.source === 'guess') return 'a guess';
  if (limit.source === 'learnt')
    return `learnt from ${counted(limit.attempts ?? 0, 'attempt')}${limit.date ? `, ${dayWords(limit.date)}` : ''}`;
  return limit.date ? `measured ${dayWords(limit.date)}` : 'measured';
}

function SchoolField<K extends keyof Schools>(props: {
  readonly name: K;
  readonly chosen: Schools[K];
  readonly onChoose: (choice: Schools[K], words: string) => void;
}) {
  const { name, chosen, onChoose } = props;
  const { title, choices } = SCHOOL_WORDS[name];
  return (
    <fieldset className="rounded-md border border-line px-3 pt-1 pb-2">
      <legend className="px-1 font-bold">{title}</legend>
      <div className="grid gap-x-4 gap-y-1 sm:grid-cols-2">
        {(SCHOOL_CHOICES[name] as readonly string[] as readonly Schools[K][]).map((choice) => (
          <label key={choice} className="flex items-start gap-2">
            <input
              type="radio"
              name={name}
              className="mt-1.5 accent-woad"
              checked={choice === chosen}
              onChange={() => onChoose(choice, `${title.toLowerCase()} ${choices[choice].name}`)}
            />
            <span>
              {choices[choice].name}
              <span className="block text-hint leading-snug text-muted">{choices[choice].means}</span>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** What a change did to the book. */
function Outcome({ label, saved }: { readonly label: string; readonly saved: SavedSettings }) {
  const { changed, compared } = saved;
  return (
    <section aria-live="polite" className="mb-5 rounded-md bg-band px-4 py-2.5" data-outcome>
      <p className="font-bold">
        {label}:{' '}
        {compared === 0
          ? 'this changes no figures.'
          : changed.length === 0
            ? 'this changes no figures, only suggestions.'
            : `${changed.length} of ${counted(compared, 'tune')} changed.`}
      </p>
      <ul>
        {changed.map((tune) => (
          <li key={tune.id}>
            <Link to={`/tunes/${tune.id}`} className="text-woad underline">
              {tune.title}
            </Link>
            : {changeWords(tune)}
          </li>
        ))}
      </ul>
    </section>
  );
}

function changeWords({
  ceilingBpm: { before, after },
  armDegrees,
  strayCm,
  refingered,
  came,
  went,
}: ChangedTune): string {
  const bpm = (value: number | null) => (value === null ? 'any tempo' : String(Math.floor(value)));
  const names = (codes: readonly Finding['code'][]) =>
    [...new Set(codes)].map((code) => FINDING_NAMES[code]).join(', ');
  return [
    ...(before === after ? [] : [`held up to ${bpm(before)}, now up to ${bpm(after)}`]),
    ...(armDegrees.before === armDegrees.after
      ? []
      : [`the arm turns ${armDegrees.after.toFixed(0)}°, turned ${armDegrees.before.toFixed(0)}°`]),
    ...(strayCm.before === strayCm.after
      ? []
      : [`the bow strays ${strayCm.after.toFixed(0)} cm, strayed ${strayCm.before.toFixed(0)}`]),
    ...(refingered.notes === 0
      ? []
      : [
          `${counted(refingered.notes, 'note')} refingered (${refingered.first
            .map(
              ({ part, bar, before: was, after: is }) =>
                `${part} ${bar === 0 ? 'pickup' : `bar ${bar}`}: ${was} → ${is}`,
            )
            .join('; ')}${refingered.notes > refingered.first.length ? '; …' : ''})`,
        ]),
    ...(came.length > 0 ? [`new: ${names(came)}`] : []),
    ...(went.length > 0 ? [`gone: ${names(went)}`] : []),
  ].join('; ');
}
