import { useNavigate } from 'react-router';
import type { Tune } from '#core/tune';
import { failureWords } from '#words/failure';
import type { Failure } from '../api/answer';
import { useAddTunesMutation } from '../api/bookApi';
import { Button } from '../ui/Button';
import { removeDraft } from './drafts';

/** Puts a tune that is gone from the book back into it as a new one. */
export function KeepAsNew({ id, tune }: { readonly id: string; readonly tune: Tune }) {
  const [addTunes, { isLoading, error }] = useAddTunesMutation();
  const navigate = useNavigate();
  const keep = async () => {
    const answer = await addTunes({ tunes: [{ tune }] });
    const [added] = answer.data ?? [];
    if (!added) return;
    await removeDraft(id, Date.now());
    void navigate(`/tunes/${added.id}`, { replace: true });
  };
  return (
    <>
      <Button look="main" disabled={isLoading} onClick={() => void keep()}>
        {isLoading ? 'Saving …' : 'Save it as a new tune'}
      </Button>
      {error !== undefined && <span className="text-madder">Not saved. {failureWords(error as Failure)}</span>}
    </>
  );
}
