import { Ear, Mic, MicOff } from 'lucide-react';
import type { Creep, Minutes } from '#core/creep';
import { type Place, PLACES } from '#core/tune';
import { type Tuning } from '#core/tuning';
import { writtenPitch } from '#words/pitch';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';
import { PitchChart } from './PitchChart';
import { shownCents, STANDS_CENTS, type StringForecast, type StringSession } from './tuningSession';

/** What the fiddle is heard through: nothing, the simulated one, or a microphone. */
export type Listening = 'off' | 'simulated' | 'microphone';

interface PitchPanelProps {
  readonly listening: Listening;
  readonly problem: string | null;
  readonly place: Place;
  readonly tuning: Tuning;
  readonly session: StringSession;
  readonly now: Minutes;
  readonly forecast: StringForecast;
  readonly leftHanded: boolean;
  readonly speed: number;
  readonly onListen: (listening: Listening) => void;
  readonly onPlace: (place: Place) => void;
  readonly onTurn: (cents: number) => void;
  readonly onSpeed: (speed: number) => void;
  readonly onStands: () => void;
  readonly onCheck: () => void;
}

/** How far a peg of the simulated fiddle is turned at a time. */
const TURNS: readonly { readonly cents: number; readonly name: string }[] = [
  { cents: -100, name: 'a semitone down' },
  { cents: -20, name: 'down' },
  { cents: -3, name: 'a touch down' },
  { cents: 3, name: 'a touch up' },
  { cents: 20, name: 'up' },
  { cents: 100, name: 'a semitone up' },
];
const SPEEDS = [1, 10, 60] as const;

/** The string you are tuning: where it stands, its line over time, and the pegs of the simulated fiddle. */
export function PitchPanel(props: PitchPanelProps) {
  const { listening, problem, place, tuning, session, now, forecast, leftHanded } = props;
  const cents = shownCents(session);
  const at = PLACES.indexOf(place);
  const strings = leftHanded ? [...PLACES].reverse() : PLACES;
  const isTuned = session.tunedAt !== null;
  const words = standsWords(cents);
  return (
    <section aria-labelledby="pitch">
      <h2 id="pitch" className="sr-only">
        The string you are tuning
      </h2>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <Button
          aria-pressed={listening === 'simulated'}
          className={PRESSED}
          onClick={() => props.onListen(listening === 'simulated' ? 'off' : 'simulated')}
        >
          <Ear size={16} className="mr-1.5 inline align-[-2px]" aria-hidden />
          simulated fiddle
        </Button>
        <Button
          aria-pressed={listening === 'microphone'}
          className={PRESSED}
          onClick={() => props.onListen(listening === 'microphone' ? 'off' : 'microphone')}
        >
          {listening === 'microphone' ? (
            <MicOff size={16} className="mr-1.5 inline align-[-2px]" aria-hidden />
          ) : (
            <Mic size={16} className="mr-1.5 inline align-[-2px]" aria-hidden />
          )}
          your fiddle, by microphone
        </Button>
        <span className="text-hint text-muted">Nothing is recorded.</span>
      </div>
      {problem !== null && <Alert className="mb-2 rounded-md bg-band px-3 py-2">{problem}</Alert>}
      <div className="mb-1 flex gap-1" role="radiogroup" aria-label="String being bowed">
        {strings.map((name) => (
          <button
            key={name}
            type="button"
            role="radio"
            aria-checked={name === place}
            onClick={() => props.onPlace(name)}
            className="rounded-md border border-line px-3 py-1 aria-checked:border-woad aria-checked:bg-band aria-checked:font-bold"
          >
            {name} <span className="text-muted">{writtenPitch(tuning[PLACES.indexOf(name)]!)}</span>
          </button>
        ))}
      </div>
      <p className="font-serif text-room leading-tight font-bold" data-stands={words.kind}>
        {listening === 'off' ? (
          <span className="text-muted">Bow the {place} string: choose what to listen to.</span>
        ) : (
          <span className={words.tone}>
            {place} string, {writtenPitch(tuning[at]!)}: {words.text}
          </span>
        )}
      </p>
      <PitchChart
        session={session}
        now={now}
        creep={isTuned ? forecast.creep : null}
        check={isTuned ? forecast.check : null}
        words={`Pitch of the ${place} string over time: ${words.text}`}
      />
      {listening === 'simulated' && (
        <div
          className="mt-1 flex flex-wrap items-center gap-1.5"
          role="group"
          aria-label={`Peg of the ${place} string`}
        >
          <span className="mr-1 text-muted">Peg:</span>
          {TURNS.map(({ cents: by, name }) => (
            <Button key={by} look="small" onClick={() => props.onTurn(by)}>
              {name}
            </Button>
          ))}
          <label className="ml-auto text-small text-muted">
            time goes{' '}
            <Select
              className="rounded-md border border-line bg-surface px-1 py-0.5"
              value={props.speed}
              options={SPEEDS.map((speed) => ({
                value: speed as number,
                name: speed === 1 ? 'as it does' : `${speed} times as fast`,
              }))}
              onChange={props.onSpeed}
            />
          </label>
        </div>
      )}
      <div className="mt-3 flex flex-wrap items-center gap-2">
        <Button disabled={cents === null} onClick={props.onStands}>
          {isTuned ? 'Start tracking drift from now' : 'In tune: track its drift'}
        </Button>
        <Button disabled={cents === null || !isTuned} onClick={props.onCheck}>
          Record this check
        </Button>
        <p className="text-small" role="status" data-forecast>
          {isTuned ? forecastWords(forecast, now - session.tunedAt) : ''}
        </p>
      </div>
    </section>
  );
}

const PRESSED = 'aria-pressed:border-woad aria-pressed:bg-band aria-pressed:font-bold';

/** Whole steps between what is said, so that the line does not flicker. */
function standsWords(cents: number | null): { readonly text: string; readonly tone: string; readonly kind: string } {
  if (cents === null) return { text: 'not heard yet', tone: 'text-muted', kind: 'silent' };
  const size = Math.abs(cents);
  if (size <= STANDS_CENTS)
    return {
      text: `in tune, within ${Math.max(1, Math.ceil(size))} cent${Math.ceil(size) > 1 ? 's' : ''}`,
      tone: 'text-lichen-ink',
      kind: 'stands',
    };
  const far = size >= 95 ? `${(size / 100).toFixed(1)} semitones` : `${Math.round(size)} cents`;
  return {
    text: `${far} ${cents < 0 ? 'low: turn up' : 'high: turn down'}`,
    tone: 'text-ink',
    kind: cents < 0 ? 'low' : 'high',
  };
}

function forecastWords(
  { creep, check }: { readonly creep: Creep; readonly check: Minutes | null },
  since: Minutes,
): string {
  const basis = creep.readings === 0 ? 'a guess' : `from ${creep.readings} readings`;
  if (check === null) return `It is not expected to drift as far as 5 cents (${basis}).`;
  if (check <= since) return `It has drifted by 5 cents: retune it now (${basis}).`;
  const left = check - since;
  return `Check again in ${left < 1 ? 'less than a minute' : `${left.toFixed(1)} minutes`}: by then it will be 5 cents off (${basis}).`;
}
