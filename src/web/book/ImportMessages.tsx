import { useState } from 'react';
import type { ImportMessage } from '#formats/text';
import { importWords } from '#words/importMessage';
import { Button } from '../ui/Button';

export const TONES = { error: 'text-madder', warning: 'text-weld-ink', info: 'text-muted' } as const;
export const SEVERITIES = ['error', 'warning', 'info'] as const;
export const SEVERITY_NAMES = { error: 'Problem', warning: 'Take care', info: 'Note' } as const;
const MAX_MESSAGES = 30;

interface ImportMessagesProps {
  readonly messages: readonly ImportMessage[];
  /** The bar of a message, where it stands in one. */
  readonly where?: (index: number) => string;
}

/** What a reader had to say, each with its line and column. */
export function ImportMessages({ messages, where }: ImportMessagesProps) {
  const [isWhole, setWhole] = useState(false);
  if (messages.length === 0) return null;
  const shown = isWhole ? messages : messages.slice(0, MAX_MESSAGES);
  return (
    <ul className="mt-1 text-small">
      {shown.map((message, i) => (
        <li key={i} className="flex flex-wrap gap-x-2 sm:flex-nowrap">
          <span className="w-40 shrink-0 text-muted">
            {where && <b className="font-medium text-ink">{where(i)}</b>} line {message.line}, col. {message.column}
          </span>
          <span className="min-w-0 break-words">
            <b className={TONES[message.severity]}>{SEVERITY_NAMES[message.severity]}.</b> {importWords(message)}
          </span>
        </li>
      ))}
      {messages.length > shown.length && (
        <li>
          <Button look="link" onClick={() => setWhole(true)}>
            {messages.length - shown.length} more messages
          </Button>
        </li>
      )}
    </ul>
  );
}
