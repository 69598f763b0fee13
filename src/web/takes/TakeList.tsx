import { Download, Play, Square, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { writeWav } from '#formats/wav';
import { momentWords } from '#words/days';
import { counted } from '#words/plural';
import { sizeWords } from '#words/size';
import { Button, SignButton } from '../ui/Button';
import { saveFile } from '../ui/saveFile';
import { changeTake, deleteTake, type KeptTake, soundOf, type TakeSource } from './keptTakes';
import { playTake, stopTake } from './playTake';
import { showTake, useShownTake } from './shownTake';

const SOURCE_WORDS: Readonly<Record<TakeSource, string>> = {
  microphone: 'played',
  file: 'from a file',
  simulated: 'simulated',
};

interface TakeListProps {
  readonly takes: readonly KeptTake[];
  readonly shown: KeptTake | null;
  readonly compared: KeptTake | null;
  readonly onCompare: (take: KeptTake | null) => void;
  readonly onChanged: () => void;
}

/** Takes of the tune that this browser keeps, the newest first, with how much room they take. */
export function TakeList({ takes, shown, compared, onCompare, onChanged }: TakeListProps) {
  const [bringBack, setBringBack] = useState<(() => Promise<void>) | null>(null);
  const { playing } = useShownTake(shown?.tuneId ?? '');
  useEffect(() => stopTake, []);
  if (takes.length === 0 && !bringBack)
    return <p className="text-small text-muted">No takes of this tune are kept in this browser yet.</p>;
  const bytes = takes.reduce((sum, take) => sum + take.bytes, 0);
  const [last, first] = [takes[0], takes[takes.length - 1]];
  const remove = async (take: KeptTake) => {
    const back = await deleteTake(take);
    if (shown?.id === take.id) showTake(null);
    if (compared?.id === take.id) onCompare(null);
    setBringBack(() => back);
    onChanged();
  };
  return (
    <section aria-label="Takes kept here">
      <h3 className="font-bold">
        {counted(takes.length, 'take')} kept here{' '}
        <span className="text-small font-normal text-muted">{sizeWords(bytes)}, in this browser only</span>
      </h3>
      {bringBack && (
        <p role="status" className="flex gap-3 text-small">
          Deleted.
          <Button
            look="link"
            onClick={() => {
              void bringBack().then(onChanged);
              setBringBack(null);
            }}
          >
            Undo
          </Button>
        </p>
      )}
      {takes.length > 1 && first && last && (
        <Button
          look="link"
          className="text-small"
          onClick={() => {
            showTake(last);
            onCompare(first);
          }}
        >
          Compare the first with the last
        </Button>
      )}
      <ul className="mt-1 flex flex-col divide-y divide-line">
        {takes.map((take) => {
          const isShown = shown?.id === take.id;
          const when = momentWords(take.at);
          const { findings, clean } = take.result;
          return (
            <li
              key={take.id}
              className={`flex flex-wrap items-center gap-x-2 py-1 text-small ${isShown ? 'bg-band' : ''}`}
            >
              <button
                type="button"
                aria-pressed={isShown}
                className="min-h-8 min-w-0 flex-1 text-left hover:underline"
                onClick={() => showTake(isShown ? null : take)}
              >
                {when} <span className="text-muted">{SOURCE_WORDS[take.source]}</span>,{' '}
                <b className={`font-medium ${clean ? 'text-lichen-ink' : ''}`}>
                  {clean ? 'clean' : `${findings.length} to mend`}
                </b>
              </button>
              {isShown && (
                <SignButton
                  label={playing ? 'Stop' : `Hear the take of ${when}`}
                  className="size-8"
                  onClick={() => (playing ? stopTake() : void playTake(take))}
                >
                  {playing ? (
                    <Square size={14} fill="currentColor" aria-hidden />
                  ) : (
                    <Play size={15} fill="currentColor" aria-hidden />
                  )}
                </SignButton>
              )}
              <SignButton
                label={`Save the take of ${when} as WAV`}
                className="size-8"
                onClick={() => void saveWav(take)}
              >
                <Download size={15} aria-hidden />
              </SignButton>
              <SignButton label={`Delete the take of ${when}`} className="size-8" onClick={() => void remove(take)}>
                <Trash2 size={15} aria-hidden />
              </SignButton>
              {(isShown || take.isAccepted) && (
                <label className="flex min-h-6 w-full items-center gap-1.5 text-muted">
                  <input
                    type="checkbox"
                    className="size-4 accent-woad"
                    checked={take.isAccepted}
                    onChange={({ target }) => {
                      const next = { ...take, isAccepted: target.checked };
                      void changeTake(next).then(() => {
                        if (isShown) showTake(next);
                        onChanged();
                      });
                    }}
                  />
                  my tone is as I want it here: judge bite and low string by it
                </label>
              )}
              {shown && !isShown && (
                <Button
                  look="link"
                  className="text-small"
                  aria-pressed={compared?.id === take.id}
                  onClick={() => onCompare(compared?.id === take.id ? null : take)}
                >
                  {compared?.id === take.id ? 'do not compare' : 'compare'}
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

async function saveWav(take: KeptTake): Promise<void> {
  const samples = await soundOf(take.id);
  if (!samples) return;
  const file = writeWav(samples, take.sampleRate);
  saveFile(
    `take-${take.at.slice(0, 16).replace(/[:T]/g, '-')}.wav`,
    new Blob([Uint8Array.from(file)], { type: 'audio/wav' }),
  );
}
