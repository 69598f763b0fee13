import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { type ReactNode, useState } from 'react';
import type { TuneSummary } from '#contract/tunes';
import { failureWords } from '#words/failure';
import type { Failure } from '../api/answer';
import { useFoundTunesQuery } from '../api/bookApi';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { INPUT } from '../ui/Field';

interface TunePickerProps {
  readonly children: ReactNode;
  readonly disabled?: boolean;
  /** It stays open, for one tune after another. */
  readonly picksMany?: boolean;
  readonly onPick: (tune: TuneSummary) => void;
}

/** A tune of the book, found by its words: typed, walked by arrows, picked by Enter. */
export function TunePicker({ children, disabled, picksMany = false, onPick }: TunePickerProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <Button disabled={disabled} className="flex items-center gap-1.5">
          {children}
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          aria-label="Tunes of the book"
          className="z-30 flex max-h-(--radix-popover-content-available-height) w-96 max-w-[94vw] flex-col rounded-md border border-line bg-surface p-2 text-ink shadow-xl"
        >
          <FoundTunes
            onPick={(tune) => {
              onPick(tune);
              if (!picksMany) setOpen(false);
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function FoundTunes({ onPick }: Pick<TunePickerProps, 'onPick'>) {
  const [words, setWords] = useState('');
  const { data: last, currentData, error } = useFoundTunesQuery(words.trim());
  // Until the answer is there, what is left of the last one.
  const tunes = currentData ?? last?.filter(({ title }) => holdsWords(title, words));
  const [walkedTo, setWalkedTo] = useState('');
  // What was walked to before the list changed may be in it no more.
  const selected = tunes?.some(({ id }) => id === walkedTo) ? walkedTo : (tunes?.[0]?.id ?? '');
  return (
    <Command
      shouldFilter={false}
      label="Tunes"
      value={selected}
      onValueChange={setWalkedTo}
      className="flex min-h-0 flex-col gap-2"
    >
      <Command.Input
        autoFocus
        value={words}
        onValueChange={setWords}
        placeholder="title, type, tag …"
        className={INPUT}
      />
      {error !== undefined && <Alert look="small">{failureWords(error as Failure)}</Alert>}
      <Command.List className={`min-h-0 overflow-y-auto ${currentData === undefined ? 'opacity-60' : ''}`}>
        {tunes?.length === 0 && <p className="px-2 py-1 text-muted">No tune matches.</p>}
        {tunes?.map((tune) => (
          <Command.Item
            key={tune.id}
            value={tune.id}
            onSelect={() => onPick(tune)}
            className="flex cursor-pointer items-baseline justify-between gap-4 rounded px-2 py-1.5 data-[selected=true]:bg-band"
          >
            <span className="min-w-0 font-serif font-bold break-words">{tune.title}</span>
            <span className="text-hint whitespace-nowrap text-muted">{tune.danceType ?? ''}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}

function holdsWords(title: string, words: string): boolean {
  const text = title.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
