import { useMemo } from 'react';
import { LEADING_NOTE_CHOICES } from '#core/drones';
import { centsToMm, isBanned } from '#core/fingering';
import {
  awkwardSpots,
  chordFigure,
  type ChordPair,
  DEGREES,
  type ModeCheck,
  modeCheck,
  openStrings,
  rangeOf,
  scaleOnString,
  type ScaleStop,
} from '#core/ground';
import { midiOf } from '#core/pitch';
import { PLACES, type Tune, unroll } from '#core/tune';
import { figureWords, openWords, pairWords, spotWords } from '#words/ground';
import { writtenKey, writtenPitch } from '#words/pitch';
import { percentWords } from '#words/plural';
import { OpenTunePage, type OpenTuneProps } from '../openTune/OpenTunePage';
import { RoomHeader } from '../openTune/RoomHeader';
import { useTuneUndoKeys } from '../openTune/useTuneUndoKeys';
import { selectPlayer, selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Rulers } from './Rulers';

/** The ground of a tune: its key in its tuning under the hand. */
export default function GroundPage() {
  return <OpenTunePage page={Ground} />;
}

function Ground({ open: opened }: OpenTuneProps) {
  const { tune } = opened;
  useTuneUndoKeys();
  const { instrument, hand } = useAppSelector(selectPlayer);
  const { settings } = useAppSelector(selectSettings);
  const { key, tuning } = tune;
  const scale = useMemo(
    () => PLACES.flatMap((place) => scaleOnString(key, place, tuning, instrument)),
    [key, tuning, instrument],
  );
  const mode = useMemo(() => modeCheck(key, unroll(tune)), [key, tune]);
  const spots = useMemo(() => awkwardSpots(scale, instrument.stringLengthMm), [scale, instrument]);
  // What the player keeps from the hand is in no figure that is offered.
  const allowed = scale.filter((stop) => !isBanned(hand, stop));
  const range = rangeOf(scale);
  const chords = DEGREES.map((degree) => chordFigure(key, degree, allowed));
  const open = openStrings(key, tuning);
  return (
    <div className="flex h-full flex-col">
      <RoomHeader open={opened} room="ground">
        <p className="text-muted">
          {writtenKey(key)} in {tuning.map(writtenPitch).join(' ')}, strings of {instrument.stringLengthMm} mm
        </p>
      </RoomHeader>
      <main className="min-h-0 flex-1 overflow-y-auto px-5 py-3 lg:px-8">
        <p
          className={`mb-2 font-serif text-sheet leading-tight font-bold ${mode.better ? 'text-madder' : 'text-lichen-ink'}`}
          data-mode={mode.better ?? 'agrees'}
        >
          {verdictWords(tune, mode)}
        </p>
        <div className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1.9fr)_minmax(0,1fr)]">
          <section aria-labelledby="places">
            <h2 id="places" className="mb-1 text-xl">
              Where the fingers lie{' '}
              <span className="font-sans text-small font-normal text-muted">mm from the nut, in first position</span>
            </h2>
            <Rulers scale={scale} leftHanded={settings.leftHanded} />
            {range && (
              <p className="text-small text-muted">
                From {writtenPitch(range.lowest.pitch)} ({range.lowest.place}:{range.lowest.finger}) to{' '}
                {writtenPitch(range.highest.pitch)} ({range.highest.place}:{range.highest.finger}
                {range.highest.extension === 'high' ? ', stretched' : ''}). Fingers marked − lie low, + high.
              </p>
            )}
          </section>
          <div className="flex flex-col gap-4">
            <section aria-labelledby="awkward">
              <h2 id="awkward" className="mb-1 text-xl">
                Awkward spots
              </h2>
              {spots.length === 0 ? (
                <p className="text-muted">None: every finger has one place on all strings.</p>
              ) : (
                <ul className="list-disc pl-5" data-awkward>
                  {spots.map((spot) => (
                    <li key={spotWords(spot)} className="leading-snug">
                      {spotWords(spot)}
                    </li>
                  ))}
                </ul>
              )}
            </section>
            <section aria-labelledby="open">
              <h2 id="open" className="mb-1 text-xl">
                Open strings
              </h2>
              <ul className="grid grid-cols-2 gap-x-4">
                {open.map((string) => (
                  <li key={string.place} className={string.role === null ? 'text-weld-ink' : ''}>
                    {openWords(string)}
                  </li>
                ))}
              </ul>
            </section>
            <Outside mode={mode} tune={tune} />
          </div>
        </div>
        <section aria-labelledby="chords" className="mt-4">
          <h2 id="chords" className="mb-1 text-xl">
            Double stops of the usual chords
          </h2>
          <div className="grid gap-x-8 gap-y-3 md:grid-cols-3">
            {chords.map(({ degree, name, stops, pairs }) => (
              <div key={degree} data-chord={degree}>
                <h3 className="text-lead">
                  {degree}: {name.replace('#', '♯').replace(/^([A-G])b/, '$1♭')}
                </h3>
                <ChordPairs pairs={pairs} />
                <details className="text-hint leading-snug text-muted">
                  <summary className="mt-1 w-fit cursor-pointer rounded-sm hover:text-ink">where its notes lie</summary>
                  <p>{figureWords(stops)}</p>
                </details>
              </div>
            ))}
          </div>
        </section>
        <LeadingNote tune={tune} scale={scale} stringLengthMm={instrument.stringLengthMm} />
      </main>
    </div>
  );
}

/** Pairs that are shown at first. */
const PAIRS_SHOWN = 5;

/** The pairs of a chord, those that ask least of the hand first; the rest for those who ask. */
function ChordPairs({ pairs }: { readonly pairs: readonly ChordPair[] }) {
  const sorted = [...pairs].sort((a, b) => Number(a.isBarre) - Number(b.isBarre) || a.spanMm - b.spanMm);
  const list = (some: readonly ChordPair[]) => (
    <ul className="text-small">
      {some.map((pair) => (
        <li key={pairWords(pair)} className="border-t border-line py-0.5">
          <b>
            {writtenPitch(pair.lower.pitch)} {writtenPitch(pair.upper.pitch)}
          </b>{' '}
          {pairWords(pair)}
        </li>
      ))}
    </ul>
  );
  return (
    <>
      {list(sorted.slice(0, PAIRS_SHOWN))}
      {sorted.length > PAIRS_SHOWN && (
        <details className="text-small">
          <summary className="w-fit cursor-pointer rounded-sm text-muted hover:text-ink">
            {sorted.length - PAIRS_SHOWN} more
          </summary>
          {list(sorted.slice(PAIRS_SHOWN))}
        </details>
      )}
    </>
  );
}

function verdictWords({ key }: Tune, mode: ModeCheck): string {
  if (mode.better)
    return `The notes say ${writtenKey({ ...key, mode: mode.better })}: they fit it ${percentWords(mode.fits[0]!.share)} of the time, and ${key.mode} ${percentWords(mode.stated)}.`;
  if (mode.outside.length === 0) return `It is ${writtenKey(key)}: every note belongs to it.`;
  return `It is ${writtenKey(key)}: ${percentWords(mode.stated)} of the time its notes belong to it.`;
}

/** Notes outside the key, and how the other modes on its tonic fit. */
function Outside({ mode, tune }: { readonly mode: ModeCheck; readonly tune: Tune }) {
  const told = mode.fits.slice(0, 3);
  return (
    <section aria-labelledby="mode">
      <h2 id="mode" className="mb-1 text-xl">
        Notes against the key
      </h2>
      {mode.outside.length > 0 && (
        <p>
          Outside it:{' '}
          {mode.outside
            .map(
              ({ pitch, share }) =>
                `${writtenPitch(pitch).replace(/\d$/, '')} ${Math.max(1, Math.round(100 * share))} %`,
            )
            .join(', ')}{' '}
          of the time.
        </p>
      )}
      <p className="text-small text-muted">
        {told
          .map(({ mode: name, share }) => `${writtenKey({ ...tune.key, mode: name })} ${Math.round(100 * share)} %`)
          .join(' · ')}
      </p>
    </section>
  );
}

/** Where the leading note may stand on each string: a choice in cents, not an error. */
function LeadingNote({
  tune,
  scale,
  stringLengthMm,
}: {
  readonly tune: Tune;
  readonly scale: readonly ScaleStop[];
  readonly stringLengthMm: number;
}) {
  const tonic = midiOf({ letter: tune.key.letter, alter: tune.key.alter, octave: 4 });
  const leading = scale.filter(
    ({ pitch, finger, extension }) => finger > 0 && extension !== 'high' && (midiOf(pitch) + 1 - tonic) % 12 === 0,
  );
  if (leading.length === 0) return null;
  return (
    <section aria-labelledby="leading" className="mt-4 mb-6">
      <h2 id="leading" className="mb-1 text-xl">
        The leading note <span className="font-sans text-small font-normal text-muted">is yours to place</span>
      </h2>
      <ul className="text-small">
        {leading.map(({ place, pitch, finger, semitones }) => (
          <li key={place}>
            <b>
              {writtenPitch(pitch)}, {place}:{finger}
            </b>
            :{' '}
            {LEADING_NOTE_CHOICES.filter(({ cents }) => cents !== 0)
              .map(
                ({ name, cents }) =>
                  `${name} by ${Math.abs(cents).toFixed(0)} ¢ is ${Math.abs(centsToMm(cents, semitones, stringLengthMm)).toFixed(1)} mm ${cents < 0 ? 'nearer the nut' : 'nearer the bridge'}`,
              )
              .join('; ')}
          </li>
        ))}
      </ul>
    </section>
  );
}
