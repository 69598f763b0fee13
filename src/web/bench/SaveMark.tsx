import { useEffect, useState } from 'react';
import { failureWords } from '../api/messages';
import type { SaveState } from './benchSlice';

/** `kept 2 s ago`; there is no save button. */
export function SaveMark({ save }: { readonly save: SaveState }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  const isBad = save.kind === 'failed' || save.kind === 'conflict';
  return (
    <p
      role="status"
      data-save={save.kind}
      className={`text-[13.5px] whitespace-nowrap ${isBad ? 'font-medium text-madder' : 'text-muted'}`}
    >
      {saveWords(save, now)}
    </p>
  );
}

function saveWords(save: SaveState, now: number): string {
  switch (save.kind) {
    case 'kept': {
      const seconds = Math.max(0, Math.round((now - save.at) / 1000));
      if (seconds < 2) return 'kept just now';
      return seconds < 60 ? `kept ${seconds} s ago` : `kept ${Math.round(seconds / 60)} min ago`;
    }
    case 'unsaved':
    case 'saving':
      return 'keeping …';
    case 'conflict':
      return 'not kept: two versions';
    case 'failed': {
      const { code } = save.failure;
      const retries = code === 'no-connection' || code === 'database-away' || code === 'internal';
      return retries
        ? 'not kept: no connection, will retry; safe in this browser'
        : `not kept: ${failureWords(save.failure)}`;
    }
  }
}
