import { MessageSquarePlus, X } from 'lucide-react';
import { useState } from 'react';
import { type Attempt, MAX_NOTE, type Wrong, WRONGS } from '#contract/log';
import { clockWords, momentWords } from '#words/days';
import { ordinal } from '#words/ordinal';
import { LAYER_WORDS } from '#words/practice';
import { WAY_WORDS } from '#words/tuneDrill';
import { Button, SignButton } from '../ui/Button';
import { INPUT } from '../ui/Field';
import { Select } from '../ui/Select';
import { SmallTable } from '../ui/SmallTable';
import type { Corrections } from './useCorrections';

interface AttemptTableProps {
  readonly attempts: readonly Attempt[];
  readonly nameOf: (attempt: Attempt) => string;
  /** They are all of one day, which is told already. */
  readonly ofOneDay?: boolean;
  readonly onChange: Corrections['change'];
}

const WRONG_OPTIONS: readonly { readonly value: Wrong | null; readonly name: string }[] = [
  { value: null, name: '–' },
  ...WRONGS.map((value) => ({ value, name: value })),
];

/** Attempts one by one: to be put right, noted on or removed. */
export function AttemptTable({ attempts, nameOf, ofOneDay = false, onChange }: AttemptTableProps) {
  return (
    <SmallTable
      label="What you played"
      minWidth={ofOneDay ? '26rem' : '36rem'}
      heads={['when', 'what', { figures: 'tempo' }, 'how it went', { hidden: 'note and remove' }]}
    >
      {attempts.map((attempt) => {
        const called = `${nameOf(attempt)}, ${momentWords(attempt.at)}`;
        return (
          <tr key={attempt.id} className="border-t border-line">
            <td className="py-0.5 pr-3 text-small whitespace-nowrap text-muted">
              {ofOneDay ? clockWords(attempt.at) : momentWords(attempt.at)}
            </td>
            <td className="pr-3">
              {nameOf(attempt)}
              <span className="text-small text-muted">{howWords(attempt)}</span>
            </td>
            <td className="pr-3 text-right tabular-nums">{Math.round(attempt.bpm)}</td>
            <td className="pr-3">
              <Button
                look="small"
                aria-label={`${called}: ${attempt.clean ? 'clean, change to not yet' : 'not yet, change to clean'}`}
                className={attempt.clean ? 'text-lichen-ink' : 'text-madder'}
                onClick={() => onChange(attempt, attempt.clean ? { clean: false } : { clean: true, wrong: null })}
              >
                {attempt.clean ? 'clean' : 'not yet'}
              </Button>
              {!attempt.clean && (
                <Select
                  label={`What went wrong in ${called}`}
                  className="ml-1.5 rounded-md border border-line bg-surface px-1 py-0.5 text-small"
                  value={attempt.wrong}
                  options={WRONG_OPTIONS}
                  onChange={(wrong) => onChange(attempt, { wrong })}
                />
              )}
            </td>
            <td>
              <span className="flex items-center justify-end">
                <Note called={called} note={attempt.note} onNote={(note) => onChange(attempt, { note })} />
                <SignButton
                  label={`Remove ${called}`}
                  className="size-7"
                  onClick={() => onChange(attempt, { isWithdrawn: true })}
                >
                  <X size={15} aria-hidden />
                </SignButton>
              </span>
            </td>
          </tr>
        );
      })}
    </SmallTable>
  );
}

interface NoteProps {
  readonly called: string;
  readonly note: string;
  readonly onNote: (note: string) => void;
}

/** The player's own words on an attempt: kept when the field is left. */
function Note({ called, note, onNote }: NoteProps) {
  const [typed, setTyped] = useState<string | null>(null);
  if (typed === null)
    return (
      <SignButton
        label={`${note ? 'Change the note' : 'Add a note'}: ${called}`}
        className="size-7"
        onClick={() => setTyped(note)}
      >
        <MessageSquarePlus size={16} aria-hidden />
      </SignButton>
    );
  const keep = () => {
    if (typed.trim() !== note) onNote(typed.trim());
    setTyped(null);
  };
  return (
    <input
      autoFocus
      aria-label={`Note: ${called}`}
      value={typed}
      maxLength={MAX_NOTE}
      onChange={({ target }) => setTyped(target.value)}
      onBlur={keep}
      onKeyDown={({ key }) => {
        if (key === 'Enter') keep();
        if (key === 'Escape') setTyped(null);
      }}
      className={`${INPUT} mr-2 w-44 py-0.5`}
    />
  );
}

/** Layer and way, where they are not the usual ones, and a note. */
function howWords({ layer, way, note, minutes, pain }: Attempt): string {
  const how = [
    layer === 'tempo' ? '' : LAYER_WORDS[layer],
    way === 'bowed' ? '' : WAY_WORDS[way],
    minutes >= 1 ? `${Math.round(minutes)} min` : '',
    pain && `it hurt${pain.finger === null ? '' : `: ${ordinal(pain.finger)} finger`}`,
    note && `“${note}”`,
  ].filter(Boolean);
  return how.length > 0 ? ` · ${how.join(' · ')}` : '';
}
