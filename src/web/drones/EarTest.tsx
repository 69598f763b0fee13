import { Volume2 } from 'lucide-react';
import { useState } from 'react';
import { type Answer, DEFAULT_EAR, explained, fitEar, listeningPairs, type Sample } from '#core/drones';
import { failureWords } from '#words/failure';
import type { Failure } from '../api/answer';
import { useSaveSettingsMutation } from '../api/settingsApi';
import { playTones } from '../audio/tones';
import { selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';

const PAIRS = listeningPairs();

/** A short listening test: which of two is liked better; the weights of a drone's rank are fitted to the answers. */
export function EarTest() {
  const { settings } = useAppSelector(selectSettings);
  const [save, { isLoading, error }] = useSaveSettingsMutation();
  const [answers, setAnswers] = useState<readonly Answer[]>([]);
  const [isOn, setOn] = useState(false);
  const [isSilent, setSilent] = useState(false);
  const pair = PAIRS[answers.length];
  const keep = (ear: typeof DEFAULT_EAR) => void save({ before: settings, next: { ...settings, ear } });
  const hear = ({ melody, drone }: Sample) => setSilent(!playTones([melody, drone], settings.listening.a4));
  const answer = (liked: Sample, other: Sample) => {
    const next = [...answers, { liked, other }];
    setAnswers(next);
    if (next.length === PAIRS.length) {
      setOn(false);
      keep(fitEar(next));
    }
  };
  const { ear } = settings;
  const isDefault = ear.roughness === 1 && ear.class === 1 && ear.role === 1;
  return (
    <section aria-label="Your ear">
      <p className="mb-2">
        {isDefault ? 'The usual weights:' : 'Adjusted to your ear:'} roughness × <b>{ear.roughness.toFixed(2)}</b>,
        class × <b>{ear.class.toFixed(2)}</b>, chord × <b>{ear.role.toFixed(2)}</b>.
        {answers.length === PAIRS.length && (
          <span className="text-muted">
            {' '}
            They explain {Math.round(100 * explained(answers, ear))} % of your answers.
          </span>
        )}
      </p>
      {error !== undefined && (
        <Alert className="mb-2">The weights were not saved. {failureWords(error as Failure)}</Alert>
      )}
      {!isOn ? (
        <div className="flex flex-wrap gap-2">
          <Button
            look="main"
            onClick={() => {
              setAnswers([]);
              setOn(true);
            }}
          >
            {answers.length === PAIRS.length ? 'Listen again' : `Listen to ${PAIRS.length} pairs`}
          </Button>
          <Button disabled={isDefault || isLoading} onClick={() => keep(DEFAULT_EAR)}>
            Back to the usual
          </Button>
        </div>
      ) : (
        pair && (
          <div className="rounded-md border border-line px-4 py-3">
            <p className="mb-2 font-bold" aria-live="polite">
              {answers.length + 1} of {PAIRS.length}: which would you rather have beside a melody?
            </p>
            <div className="grid gap-3 @lg:grid-cols-2">
              {(['a', 'b'] as const).map((name) => (
                <div key={name} className="flex gap-2">
                  <Button onClick={() => hear(pair[name])}>
                    <Volume2 size={16} className="mr-1.5 inline align-[-2px]" aria-hidden />
                    hear the {name === 'a' ? 'first' : 'second'}
                  </Button>
                  <Button look="main" onClick={() => answer(pair[name], pair[name === 'a' ? 'b' : 'a'])}>
                    this one
                    <span className="sr-only">, the {name === 'a' ? 'first' : 'second'}</span>
                  </Button>
                </div>
              ))}
            </div>
            {isSilent && <Alert className="mt-2">No sound device was found: the test needs one.</Alert>}
            <Button look="link" className="mt-3" onClick={() => setOn(false)}>
              Cancel: nothing changes
            </Button>
          </div>
        )
      )}
    </section>
  );
}
