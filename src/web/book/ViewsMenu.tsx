import { Bookmark, Trash2 } from 'lucide-react';
import { Popover } from 'radix-ui';
import { type FormEvent, useState } from 'react';
import type { BookQuery } from '#contract/book';
import { failureWords } from '#words/failure';
import type { Failure } from '../api/answer';
import { useKeepViewMutation, useRemoveViewMutation, useViewsQuery } from '../api/bookApi';
import { Alert } from '../ui/Alert';
import { Button, SignButton } from '../ui/Button';

/** Views under names: a search with its filter and order, to be taken up again. */
export function ViewsMenu({
  query,
  onOpen,
}: {
  readonly query: BookQuery;
  readonly onOpen: (query: BookQuery) => void;
}) {
  const { data: views, error } = useViewsQuery();
  const [keepView, { error: keepError }] = useKeepViewMutation();
  const [removeView] = useRemoveViewMutation();
  const [isOpen, setOpen] = useState(false);
  const [name, setName] = useState('');
  const problem = (error ?? keepError) as Failure | undefined;
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    const { after: _after, limit: _limit, ...kept } = query;
    const answer = await keepView({ name: name.trim(), query: kept });
    if (answer.data) setName('');
  };
  return (
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <Button className="flex min-h-10 items-center gap-2">
          <Bookmark size={16} aria-hidden /> Views
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          aria-label="Views"
          className="z-30 max-h-(--radix-popover-content-available-height) w-80 max-w-[94vw] overflow-y-auto rounded-md border border-line bg-surface p-3 text-ink shadow-xl"
        >
          {views?.length === 0 && <p className="mb-2 text-muted">No saved views yet.</p>}
          <ul className="mb-2 max-h-72 overflow-y-auto" aria-label="Saved views">
            {views?.map((view) => (
              <li key={view.id} className="flex items-center gap-1">
                <button
                  type="button"
                  className="min-h-9 min-w-0 flex-1 truncate rounded px-2 text-left hover:bg-band"
                  onClick={() => {
                    onOpen(view.query);
                    setOpen(false);
                  }}
                >
                  {view.name}
                </button>
                <SignButton label={`Delete the view “${view.name}”`} onClick={() => void removeView(view.id)}>
                  <Trash2 size={15} aria-hidden />
                </SignButton>
              </li>
            ))}
          </ul>
          <form className="flex items-end gap-2 border-t border-line pt-2" onSubmit={(event) => void keep(event)}>
            <label className="flex min-w-0 flex-1 flex-col text-small">
              <span>Save what is shown as</span>
              <input
                value={name}
                maxLength={80}
                placeholder="reels to mend"
                onChange={({ target }) => setName(target.value)}
                className="min-w-0 rounded-md border border-soft bg-paper px-2 py-1.5 text-control"
              />
            </label>
            <Button type="submit" disabled={name.trim() === ''}>
              Save
            </Button>
          </form>
          {problem && (
            <Alert look="small" className="mt-2">
              {failureWords(problem)}
            </Alert>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
