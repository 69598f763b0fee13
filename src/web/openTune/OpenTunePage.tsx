import isEqual from 'fast-deep-equal';
import { type ComponentType, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { exportRoutes } from '#contract/exports';
import { tuneRoutes } from '#contract/tunes';
import type { NoteState } from '#core/noteStates';
import type { TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { failureWords } from '#words/failure';
import type { Failure } from '../api/answer';
import { ask } from '../api/ask';
import { selectPlayer } from '../store/selectSettings';
import { useAppDispatch, useAppSelector, useAppStore } from '../store/store';
import { Button } from '../ui/Button';
import { PageOpening, PageProblem } from '../ui/PageState';
import { saveFile } from '../ui/saveFile';
import { removeDraft, takeOverDraft } from './drafts';
import { historyOf } from './histories';
import { canBeJudged } from './judgeFirst';
import { KeepAsNew } from './KeepAsNew';
import {
  conflictFound,
  type OpenTune,
  selectNoteStates,
  selectOpen,
  selectReport,
  tuneClosed,
  tuneOpened,
} from './openTuneSlice';
import { settled } from './settling';

/** What a room about one tune is given. */
export interface OpenTuneProps {
  readonly open: OpenTune;
  readonly report: TuneReport;
  readonly states: ReadonlyMap<string, NoteState>;
}

/** Loads the tune of the address and opens it, with edits that an earlier visit left in this browser, for the room about it. */
export function OpenTunePage({ page: Page }: { readonly page: ComponentType<OpenTuneProps> }) {
  const { id = '' } = useParams();
  const dispatch = useAppDispatch();
  const open = useAppSelector(selectOpen);
  const report = useAppSelector(selectReport);
  const states = useAppSelector(selectNoteStates);
  const [failure, setFailure] = useState<Failure | null>(null);
  const [tries, setTries] = useState(0);
  /** A tune that would keep the page from answering. */
  const [tooLong, setTooLong] = useState<{ readonly id: string; readonly title: string } | null>(null);
  const store = useAppStore();
  /** Edits of a tune that is gone from the book. */
  const [left, setLeft] = useState<Tune | null>(null);

  const [isExporting, setExporting] = useState(false);
  const [exportFailure, setExportFailure] = useState<Failure | null>(null);
  const keepAsFile = async () => {
    setExporting(true);
    const answer = await ask(exportRoutes.exportTunes, { body: { format: 'json', choice: { ids: [id] } } });
    setExporting(false);
    setExportFailure(answer.ok ? null : answer.failure);
    if (answer.ok) saveFile(answer.value.name, answer.value.file);
  };

  useEffect(() => {
    let isCurrent = true;
    const load = async () => {
      await settled(id);
      const answer = await ask(tuneRoutes.findTune, { params: { id } });
      const isThere = answer.ok || answer.failure.code === 'not-found';
      const draft = isThere && isCurrent ? await takeOverDraft(id) : null;
      const history = answer.ok ? await historyOf(id) : null;
      if (!isCurrent) return;
      if (!answer.ok) {
        setLeft(draft?.tune ?? null);
        setFailure(answer.failure);
        return;
      }
      const record = answer.value;
      // The database keeps the fields of a document in an order of its own.
      const isSame = draft !== null && isEqual(draft.tune, record.tune);
      if (isSame) void removeDraft(id, draft.at);
      const unsaved = draft && !isSame ? draft.tune : null;
      const isQuick = await canBeJudged(unsaved ?? record.tune, selectPlayer(store.getState()));
      if (!isCurrent) return;
      if (!isQuick) {
        setTooLong({ id, title: record.tune.title });
        return;
      }
      setFailure(null);
      dispatch(tuneOpened({ record, unsaved, history, at: Date.now() }));
      if (unsaved && draft!.baseRevision !== record.revision) dispatch(conflictFound(record));
    };
    void load();
    return () => {
      isCurrent = false;
      dispatch(tuneClosed());
    };
  }, [id, tries, dispatch, store]);

  if (tooLong?.id === id && !open)
    return (
      <PageProblem title={`“${tooLong.title}” is too long for the bench`}>
        <p className="mb-4">
          It is far longer than any tune that is played, and checking it would freeze this page. It is safe in the book:
          save it as a file, or bring it in again in parts.
        </p>
        <div className="flex gap-2">
          <Button look="main" disabled={isExporting} onClick={() => void keepAsFile()}>
            {isExporting ? 'Writing …' : 'Save it as a file'}
          </Button>
          <Link to="/" className="self-center text-woad underline">
            Back to the book
          </Link>
        </div>
        {exportFailure && <p className="mt-3 text-madder">{failureWords(exportFailure)}</p>}
      </PageProblem>
    );
  if (failure && !open)
    return (
      <PageProblem
        title="This tune cannot be opened"
        onRetry={() => setTries((count) => count + 1)}
        ways={left && <KeepAsNew id={id} tune={left} />}
      >
        <p>
          {failureWords(failure)}
          {left
            ? ' Your edits are still saved in this browser.'
            : failure.code !== 'not-found' && ' Edits saved in this browser are still here.'}{' '}
          <Link to="/" className="text-woad underline">
            Back to the book
          </Link>
        </p>
      </PageProblem>
    );
  if (!open || !report || !states || open.id !== id) return <PageOpening>Opening the tune …</PageOpening>;
  const isGone = open.save.kind === 'failed' && open.save.failure.code === 'not-found';
  if (!isGone) return <Page open={open} report={report} states={states} />;
  return (
    <div className="flex h-full flex-col">
      <div role="alert" className="flex flex-wrap items-center gap-3 bg-band px-5 py-2">
        This tune was deleted from the book while you had it open. What you see is only in this browser.
        <KeepAsNew id={id} tune={open.tune} />
      </div>
      <div className="min-h-0 flex-1">
        <Page open={open} report={report} states={states} />
      </div>
    </div>
  );
}
