import { FileInput, FilePlus2, Music3, X } from 'lucide-react';
import { useNavigate } from 'react-router';
import type { TuneSummary } from '#contract/tunes';
import { Button, SignButton } from '../ui/Button';
import { summaryVerdict } from './summaryVerdict';

interface WelcomeProps {
  /** A tune to begin with; one with something to mend, where there is one. */
  readonly tune: TuneSummary;
  readonly onImport: () => void;
  readonly onBegin: () => void;
  readonly onDone: () => void;
}

/** The first minute: what Morrin tells, what these tunes are, and three ways in. */
export function Welcome({ tune, onImport, onBegin, onDone }: WelcomeProps) {
  const navigate = useNavigate();
  const { words } = summaryVerdict(tune, false);
  const doors = [
    {
      Icon: Music3,
      deed: 'Look at one',
      words: `“${tune.title}”: ${words}. See where and why, and mend it with one press.`,
      onClick: () => void navigate(`/tunes/${tune.id}`),
    },
    {
      Icon: FileInput,
      deed: 'Bring a tune',
      words: 'From a file or pasted text: ABC, MusicXML or MIDI.',
      onClick: onImport,
    },
    {
      Icon: FilePlus2,
      deed: 'Begin one',
      words: 'Call it out by string and finger, or by letters.',
      onClick: onBegin,
    },
  ];
  return (
    <section className="relative mb-3 rounded-lg border border-line bg-surface px-5 py-4" aria-labelledby="welcome">
      <SignButton label="Close the welcome" className="absolute top-2 right-2" onClick={onDone}>
        <X size={17} aria-hidden />
      </SignButton>
      <h2 id="welcome" className="mb-1 text-xl">
        Does the bowing work?
      </h2>
      <p className="mb-3 max-w-3xl pr-8">
        Morrin plans a tune note by note and tells you whether it comes round on the right bow, what your arm and hand
        have to do, and up to which tempo it holds. The tunes here are a demo, made up for trying things out: whatever
        you do, undo brings it back.
      </p>
      <ul className="grid gap-x-6 gap-y-3 md:grid-cols-3">
        {doors.map(({ Icon, deed, words: about, onClick }) => (
          <li key={deed} className="flex items-start gap-3">
            <Icon size={22} strokeWidth={1.6} className="mt-1 shrink-0 text-walnut" aria-hidden />
            <div>
              <Button
                look="small"
                onClick={() => {
                  onDone();
                  onClick();
                }}
              >
                {deed}
              </Button>
              <p className="mt-1 text-small leading-snug text-muted">{about}</p>
            </div>
          </li>
        ))}
      </ul>
      <p className="mt-3 text-small text-muted">
        Press <b>?</b> in any room for help.
      </p>
    </section>
  );
}

const KEY = 'morrin.welcome';

export function isWelcomeSeen(): boolean {
  try {
    return localStorage.getItem(KEY) === 'seen';
  } catch {
    return true;
  }
}

export function keepWelcomeSeen(): void {
  try {
    localStorage.setItem(KEY, 'seen');
  } catch {
    // Without storage it is shown again next time.
  }
}
