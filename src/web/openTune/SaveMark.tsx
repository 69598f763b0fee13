import { useEffect, useState, useSyncExternalStore } from 'react';
import { failureWords } from '#words/failure';
import { type KeptHere, keptHere } from './keptHere';
import type { SaveState } from './openTuneSlice';

/** `saved 2 s ago`; there is no save button. */
export function SaveMark({ save }: { readonly save: SaveState }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const here = useSyncExternalStore(keptHere.subscribe, keptHere.get);
  const isBad = save.kind === 'failed' || save.kind === 'conflict';
  const [told, setTold] = useState<Told>('nothing');
  const next = toldNext(told, save.kind, isBad);
  if (next !== told) setTold(next);
  return (
    <>
      <p
        data-save={save.kind}
        className={`text-hint whitespace-nowrap ${isBad ? 'font-medium text-madder' : 'text-muted'}`}
      >
        {saveWords(save, here, now)}
      </p>
      <p className="sr-only" role="status">
        {isBad ? saveWords(save, here, 0) : told === 'again' ? 'saved again' : ''}
      </p>
    </>
  );
}

/** What is said aloud: only what the player must know, that edits are not saved, and once that they are again. */
type Told = 'nothing' | 'trouble' | 'again';

function toldNext(told: Told, kind: SaveState['kind'], isBad: boolean): Told {
  if (isBad) return 'trouble';
  if (kind === 'kept') return told === 'trouble' ? 'again' : told;
  return told === 'again' ? 'nothing' : told;
}

/** What is said of edits that the server does not have. */
const HERE_WORDS: Readonly<Record<KeptHere, string>> = {
  writing: 'being saved in this browser …',
  kept: 'safe in this browser',
  refused: 'and this browser cannot save it either: leave the page open',
};

function saveWords(save: SaveState, here: KeptHere, now: number): string {
  switch (save.kind) {
    case 'kept': {
      const seconds = Math.max(0, Math.round((now - save.at) / 1000));
      if (seconds < 2) return 'saved just now';
      return seconds < 60 ? `saved ${seconds} s ago` : `saved ${Math.round(seconds / 60)} min ago`;
    }
    case 'unsaved':
    case 'saving':
      return 'saving …';
    case 'conflict':
      return 'not saved: there are two versions';
    case 'failed': {
      const { code } = save.failure;
      if (code === 'not-found') return 'not saved: this tune was deleted from the book';
      const retries = ['no-connection', 'database-away', 'busy', 'internal'].includes(code);
      return retries
        ? `not saved: ${code === 'busy' ? 'the server is busy' : 'no connection'}, will retry; ${HERE_WORDS[here]}`
        : `not saved: ${failureWords(save.failure)}`;
    }
  }
}
