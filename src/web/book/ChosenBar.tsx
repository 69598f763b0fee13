import { CalendarCheck, FileOutput, ListMusic, Tag, Trash2, Undo2, X } from 'lucide-react';
import { type FormEvent, useState } from 'react';
import { type BulkDeed, MAX_TAG_LETTERS } from '#contract/book';
import { Button, SignButton } from '../ui/Button';

interface ChosenBarProps {
  readonly count: number;
  readonly tags: readonly string[];
  /** Tunes that are out of the book: they can only be brought back. */
  readonly areRemoved: boolean;
  readonly isBusy: boolean;
  readonly onDeed: (deed: BulkDeed) => void;
  readonly onFiles: () => void;
  /** Makes a set of them; null: they are too many. */
  readonly onSet: (() => void) | null;
  readonly onClear: () => void;
}

/** What can be done with the chosen tunes, all at once. */
export function ChosenBar({ count, tags, areRemoved, isBusy, onDeed, onFiles, onSet, onClear }: ChosenBarProps) {
  const [isTagging, setTagging] = useState(false);
  return (
    <div
      role="toolbar"
      aria-label="Chosen tunes"
      className="mb-2 flex flex-wrap items-center gap-2 rounded-md border border-woad bg-surface px-3 py-2"
    >
      <b className="mr-1" role="status">
        {count} chosen
      </b>
      {areRemoved ? (
        <Button className="flex items-center gap-1.5" disabled={isBusy} onClick={() => onDeed({ kind: 'bring-back' })}>
          <Undo2 size={16} aria-hidden /> Restore
        </Button>
      ) : (
        <>
          <Button
            className="flex items-center gap-1.5"
            aria-expanded={isTagging}
            disabled={isBusy}
            onClick={() => setTagging(!isTagging)}
          >
            <Tag size={16} aria-hidden /> Tag
          </Button>
          <Button
            className="flex items-center gap-1.5"
            disabled={isBusy}
            onClick={() => onDeed({ kind: 'practised', at: new Date().toISOString() })}
          >
            <CalendarCheck size={16} aria-hidden /> Practised today
          </Button>
          {onSet && (
            <Button className="flex items-center gap-1.5" disabled={isBusy} onClick={onSet}>
              <ListMusic size={16} aria-hidden /> Make a set
            </Button>
          )}
          <Button className="flex items-center gap-1.5" onClick={onFiles}>
            <FileOutput size={16} aria-hidden /> As files
          </Button>
          <Button className="flex items-center gap-1.5" disabled={isBusy} onClick={() => onDeed({ kind: 'remove' })}>
            <Trash2 size={16} aria-hidden /> Remove
          </Button>
        </>
      )}
      <SignButton label="Clear selection" className="ml-auto" onClick={onClear}>
        <X size={17} aria-hidden />
      </SignButton>
      {isTagging && !areRemoved && (
        <TagForm
          tags={tags}
          onTag={(tag, isOff) => {
            onDeed({ kind: isOff ? 'untag' : 'tag', tag });
            setTagging(false);
          }}
        />
      )}
    </div>
  );
}

function TagForm({
  tags,
  onTag,
}: {
  readonly tags: readonly string[];
  readonly onTag: (tag: string, isOff: boolean) => void;
}) {
  const [tag, setTag] = useState('');
  const clean = tag.trim().replace(/,/g, '');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (clean !== '') onTag(clean, false);
  };
  return (
    <form className="flex w-full flex-wrap items-center gap-2" onSubmit={submit}>
      <label className="flex items-center gap-2">
        <span>Tag</span>
        <input
          autoFocus
          list="known-tags"
          value={tag}
          maxLength={MAX_TAG_LETTERS}
          onChange={({ target }) => setTag(target.value)}
          className="rounded-md border border-soft bg-paper px-2 py-1"
        />
      </label>
      <datalist id="known-tags">
        {tags.map((known) => (
          <option key={known} value={known} />
        ))}
      </datalist>
      <Button look="main" type="submit" disabled={clean === ''}>
        Put it on
      </Button>
      <Button disabled={clean === ''} onClick={() => onTag(clean, true)}>
        Take it off
      </Button>
    </form>
  );
}
