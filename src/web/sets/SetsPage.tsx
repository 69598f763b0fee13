import { Plus } from 'lucide-react';
import { Link, NavLink, useNavigate, useParams } from 'react-router';
import { freeName, newSet, NO_SETS, type SavedSets, type Sets, type TuneSet } from '#contract/sets';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import type { Failure } from '../api/answer';
import { useSaveSetsMutation, useSetsQuery } from '../api/setsApi';
import { useRecordUndo } from '../api/useRecordUndo';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { PageOpening, PageProblem } from '../ui/PageState';
import { UndoRedo } from '../ui/UndoRedo';
import { useTitle } from '../ui/useTitle';
import { useUndoKeys } from '../ui/useUndoKeys';
import { hasRoomForSet, withoutSet, withSet } from './editSet';
import { SetPanel } from './SetPanel';

/** Sets: tunes in an order of one's own, played, printed and saved as one. */
export default function SetsPage() {
  const { setId } = useParams();
  const { data: record, error, isLoading, refetch } = useSetsQuery();
  const [save, { error: saveError }] = useSaveSetsMutation();
  const navigate = useNavigate();
  const steps = useRecordUndo<Sets, SavedSets>('sets', save);
  useUndoKeys(
    () => void steps.undo(),
    () => void steps.redo(),
  );
  const all = record?.sets ?? NO_SETS;
  const sets = [...all.sets].sort((a, b) => a.name.localeCompare(b.name));
  const open = sets.find(({ id }) => id === setId) ?? null;
  useTitle(open?.name ?? null, 'Sets');

  if (isLoading && error === undefined) return <PageOpening>Opening the sets …</PageOpening>;
  if (!record)
    return (
      <PageProblem title="Your sets cannot be shown" onRetry={() => void refetch()}>
        <p>{error ? failureWords(error as Failure) : ''}</p>
      </PageProblem>
    );
  const change = (next: Sets, label: string) => void steps.change({ before: all, next }, label);
  const begin = () => {
    const set = newSet(crypto.randomUUID(), freeName(all));
    change(withSet(all, set), `new set “${set.name}”`);
    void navigate(`/sets/${set.id}`);
  };
  return (
    <main className="flex h-full min-h-0 flex-col overflow-y-auto px-5 pt-4 pb-6 lg:px-8">
      <header className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <div className="mr-auto">
          <h1 className="text-page leading-tight">Sets</h1>
          <p className="text-muted">
            Tunes played one after another ·{' '}
            {open && (
              <Link to="/sets" className="mr-2 text-woad underline underline-offset-3 md:hidden">
                all sets
              </Link>
            )}
            <Link to="/" className="text-woad underline underline-offset-3">
              back to the book
            </Link>
          </p>
        </div>
        <span className="flex">
          <UndoRedo
            undoes={steps.undoes}
            redoes={steps.redoes}
            onUndo={() => void steps.undo()}
            onRedo={() => void steps.redo()}
          />
        </span>
        <Button look="main" className="flex items-center gap-2" disabled={!hasRoomForSet(all)} onClick={begin}>
          <Plus size={17} aria-hidden /> New set
        </Button>
      </header>
      {saveError !== undefined && (
        <Alert look="banner">
          {(saveError as Failure).code === 'stale-save'
            ? 'Your sets were changed in another window, and those are shown now. Make your change again.'
            : `Not saved. ${failureWords(saveError as Failure)}`}
        </Alert>
      )}
      <div className="flex flex-col gap-x-8 gap-y-4 md:flex-row">
        <nav aria-label="Your sets" className={`md:w-56 md:shrink-0 ${open ? 'max-md:hidden' : ''}`}>
          {sets.length === 0 ? (
            <p className="text-muted">
              No sets yet. Begin one here, or choose tunes in the book and press “Make a set”.
            </p>
          ) : (
            <ul className="flex flex-col gap-0.5">
              {sets.map((set) => (
                <li key={set.id}>
                  <SetLink set={set} />
                </li>
              ))}
            </ul>
          )}
        </nav>
        {open ? (
          <SetPanel
            key={open.id}
            set={open}
            onChange={(set, label) => change(withSet(all, set), label)}
            onDelete={() => {
              change(withoutSet(all, open.id), `delete “${open.name}”`);
              void navigate('/sets');
            }}
          />
        ) : (
          sets.length > 0 && (
            <p className="text-muted max-md:hidden">
              {setId === undefined ? 'Choose a set.' : 'This set is gone: undo brings a deleted one back.'}
            </p>
          )
        )}
      </div>
    </main>
  );
}

function SetLink({ set: { id, name, tunes } }: { readonly set: TuneSet }) {
  return (
    <NavLink
      to={`/sets/${id}`}
      className={({ isActive }) =>
        `flex min-h-10 flex-col rounded-md border-l-3 px-3 py-1.5 hover:bg-band ${
          isActive ? 'border-woad bg-surface font-bold' : 'border-transparent'
        }`
      }
    >
      <span className="font-serif break-words">{name}</span>
      <span className="text-hint font-normal text-muted">{counted(tunes.length, 'tune')}</span>
    </NavLink>
  );
}
