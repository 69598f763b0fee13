import { type KeyboardEvent, useEffect, useRef } from 'react';
import type { EntryState } from './entryState';

interface EntryFieldProps {
  readonly entry: EntryState;
  readonly onKey: (key: string) => boolean;
  readonly onPaste: (text: string) => void;
  readonly onEnd: () => void;
}

const NAMES = { calls: 'calls: strings and fingers', letters: 'letters', staff: 'the pencil on the staff' } as const;

/** The place that listens while notes are entered; it shows nothing itself, the score shows what was entered. */
export function EntryField({ entry, onKey, onPaste, onEnd }: EntryFieldProps) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.key === 'Tab' || event.key === 'Shift') return;
    if (event.key === 'Escape') {
      event.preventDefault();
      onEnd();
      return;
    }
    if (onKey(event.key)) event.preventDefault();
  };
  return (
    <input
      ref={field}
      data-entry-field
      className="sr-only"
      aria-label={`Entering notes by ${NAMES[entry.way]}. Escape ends.`}
      autoComplete="off"
      autoCapitalize="off"
      spellCheck={false}
      value=""
      onKeyDown={onKeyDown}
      onPaste={(event) => {
        event.preventDefault();
        onPaste(event.clipboardData.getData('text/plain'));
      }}
      // Keyboards on glass send text where they send no keys.
      onChange={({ target }) => {
        for (const key of target.value) onKey(key);
      }}
    />
  );
}
