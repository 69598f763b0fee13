import { useCallback, useEffect, useEffectEvent, useState } from 'react';
import { useDispatch } from 'react-redux';
import { useNavigate } from 'react-router';
import type { FileChoice } from '#formats/file';
import { CHOSEN_EXTENSIONS } from '#formats/kinds';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import { serverApi } from '../api/serverApi';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { ImportMessages } from './ImportMessages';
import type { ImportInput } from './importProtocol';
import { type Fate, type QueueAction, type QueuedFile, toKeep } from './importQueue';
import { ReadingChoice } from './ReadingChoice';
import { ReadTuneRow } from './ReadTuneRow';
import { useImportQueue } from './useImportQueue';

const tuneCount = (count: number) => counted(count, 'tune');
const PASTED = 'pasted text.abc';

interface ImportSheetProps {
  readonly input: ImportInput;
  readonly onClose: () => void;
}

/** Brings tunes in: paste, or choose files; see what was read bar by bar and what the book has already; then keep. */
export function ImportSheet({ input, onClose }: ImportSheetProps) {
  const [text, setText] = useState(input?.kind === 'text' ? input.text : '');
  const { files, dispatch, stopReading, empty, choose, keepFile, stopKeeping } = useImportQueue();
  const [isKeeping, setKeeping] = useState(false);
  const store = useDispatch();
  const navigate = useNavigate();

  const addFiles = (list: readonly File[]) =>
    dispatch({ type: 'added', files: list.map((file) => ({ name: file.name, source: file })) });
  const beginWithInput = useEffectEvent(() => {
    if (input?.kind === 'files') addFiles(input.files);
    if (input?.kind === 'text') dispatch({ type: 'added', files: [{ name: PASTED, source: new Blob([input.text]) }] });
  });
  useEffect(() => beginWithInput(), []);

  const isReading = files.some(({ stage }) => stage.kind === 'reading' || stage.kind === 'waiting');
  const ready = files.filter(({ stage }) => stage.kind === 'read' || stage.kind === 'not-kept');
  const readCount = files.reduce((sum, { items }) => sum + items.length, 0);
  const keepCount = ready.reduce((sum, file) => sum + toKeep(file).length, 0);
  const [only] = files;
  const isRefused = files.length === 1 && only!.stage.kind === 'refused';

  const keep = async () => {
    setKeeping(true);
    let first: string | null = null;
    let tunes = 0;
    let isDone = true;
    for (const file of ready) {
      if (toKeep(file).length === 0) continue;
      const kept = await keepFile(file);
      if (kept.kind !== 'kept') isDone = false;
      else {
        tunes += kept.finished.tunes;
        first ??= kept.finished.first;
      }
    }
    setKeeping(false);
    store(serverApi.util.invalidateTags(['Book', 'Versions']));
    if (!isDone) return;
    onClose();
    if (tunes === 1 && first !== null) void navigate(`/tunes/${first}`);
  };
  const close = () => {
    for (const { key, stage } of files) if (stage.kind === 'keeping') stopKeeping(key);
    onClose();
  };

  return (
    <Sheet
      open
      onOpenChange={close}
      title="Bring tunes in"
      description="ABC, MusicXML, MIDI, Morrin plans, or archives of them: paste, drop, or choose files."
      mustAnswer={isKeeping}
      wide
    >
      {files.length === 0 || isRefused ? (
        <div className="flex flex-col gap-3">
          {isRefused && only!.stage.kind === 'refused' && (
            <Alert>
              {only!.name === PASTED ? '' : `${only!.name}: `}
              {only!.stage.problem}
            </Alert>
          )}
          <label className="flex flex-col gap-1">
            <span className="font-bold">Text</span>
            <textarea
              data-autofocus
              value={text}
              onChange={(event) => setText(event.target.value)}
              rows={11}
              spellCheck={false}
              placeholder={'X:1\nT:Name of the tune\nR:reel\nM:4/4\nL:1/8\nK:D\n|: …'}
              className="w-full rounded-md border border-soft bg-paper px-3 py-2 font-mono text-small"
            />
          </label>
          <div className="flex flex-wrap items-center justify-between gap-2">
            <label className="flex flex-wrap items-center gap-2">
              <span>or files</span>
              <input
                type="file"
                multiple
                className="file:mr-2 file:rounded-md file:border file:border-line file:bg-surface file:px-3 file:py-1.5 hover:file:border-soft"
                accept={CHOSEN_EXTENSIONS.join(',')}
                onChange={({ target }) => {
                  const list = [...(target.files ?? [])];
                  if (list.length === 0) return;
                  empty();
                  addFiles(list);
                }}
              />
            </label>
            <Button
              look="main"
              disabled={text.trim() === ''}
              onClick={() => {
                empty();
                dispatch({ type: 'added', files: [{ name: PASTED, source: new Blob([text]) }] });
              }}
            >
              Read it
            </Button>
          </div>
        </div>
      ) : (
        <div className="flex flex-col gap-3">
          <p className="font-serif text-section font-bold" role="status">
            {isReading
              ? `Reading … ${readCount > 0 ? `${tuneCount(readCount)} so far` : ''}`
              : readCount === 0
                ? 'Nothing could be read.'
                : `${tuneCount(readCount)} read.`}
          </p>
          {files.map((file) => (
            <FileRead
              key={file.key}
              file={file}
              isNamed={files.length > 1 || file.name !== PASTED}
              dispatch={dispatch}
              onChoose={(choice) => choose(file.key, choice)}
              onStopReading={() => stopReading(file.key)}
              onStopKeeping={() => stopKeeping(file.key)}
            />
          ))}
          <div className="sticky -bottom-4 flex flex-wrap justify-end gap-2 border-t border-line bg-surface py-2">
            <Button onClick={empty} disabled={isKeeping}>
              Back to the text
            </Button>
            <Button look="main" disabled={keepCount === 0 || isReading || isKeeping} onClick={() => void keep()}>
              {isKeeping ? 'Saving …' : keepCount === 0 ? 'Add' : `Add ${tuneCount(keepCount)}`}
            </Button>
          </div>
        </div>
      )}
    </Sheet>
  );
}

/** Tunes shown at once; more are kept all the same. */
const MAX_SHOWN = 60;

function FileRead(props: {
  readonly file: QueuedFile;
  readonly isNamed: boolean;
  readonly dispatch: (action: QueueAction) => void;
  readonly onChoose: (choice: FileChoice) => void;
  readonly onStopReading: () => void;
  readonly onStopKeeping: () => void;
}) {
  const { file, isNamed, dispatch, onChoose, onStopReading, onStopKeeping } = props;
  const { key, name, stage, items, messages } = file;
  const [isWhole, setWhole] = useState(false);
  const setFate = useCallback(
    (index: number, fate: Fate) => dispatch({ type: 'fated', key, index, fate }),
    [dispatch, key],
  );
  const shown = isWhole ? items : items.slice(0, MAX_SHOWN);
  return (
    <section aria-label={name}>
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
        {isNamed && <h3 className="min-w-0 text-control font-bold break-words">{name}</h3>}
        <StageWords file={file} onStopReading={onStopReading} onStopKeeping={onStopKeeping} />
      </div>
      {(stage.kind === 'keeping' || stage.kind === 'reading') && (
        <progress
          className="h-1.5 w-full accent-woad"
          aria-label={stage.kind === 'keeping' ? `Adding ${name}` : `Reading ${name}`}
          {...(stage.kind === 'keeping' ? { value: stage.sent, max: Math.max(1, items.length) } : {})}
        />
      )}
      <ImportMessages messages={messages} />
      {items.length > 0 && <ReadingChoice file={file} onChoose={onChoose} />}
      <ul className="flex flex-col gap-3">
        {shown.map((item, index) => (
          <ReadTuneRow key={index} item={item} index={index} onFate={setFate} />
        ))}
      </ul>
      {items.length > shown.length && (
        <Button look="link" onClick={() => setWhole(true)}>
          and {items.length - shown.length} more tunes
        </Button>
      )}
    </section>
  );
}

function StageWords({
  file,
  onStopReading,
  onStopKeeping,
}: {
  readonly file: QueuedFile;
  readonly onStopReading: () => void;
  readonly onStopKeeping: () => void;
}) {
  const { stage, items } = file;
  switch (stage.kind) {
    case 'waiting':
      return <span className="text-muted">waits</span>;
    case 'reading':
      return (
        <span className="flex items-center gap-3 text-muted">
          {stage.count > 0 ? `${stage.count} tunes so far` : 'reading'}
          <Button look="small" onClick={onStopReading}>
            Cancel
          </Button>
        </span>
      );
    case 'read':
      return (
        <span className="text-muted">
          {items.length > toKeep(file).length ? `${items.length - toKeep(file).length} left out` : ''}
        </span>
      );
    case 'refused':
      return (
        <span role="alert" className="text-madder">
          {stage.problem}
        </span>
      );
    case 'keeping':
      return (
        <span className="flex items-center gap-3 text-muted">
          {stage.sent} of {items.length} sent
          <Button look="small" onClick={onStopKeeping}>
            Cancel
          </Button>
        </span>
      );
    case 'kept':
      return (
        <span className="text-lichen-ink">
          added: {tuneCount(stage.tunes)}
          {stage.settings > 0 && `, ${counted(stage.settings, 'setting')}`}
        </span>
      );
    case 'not-kept':
      return (
        <span role="alert" className="text-madder">
          Not saved: {failureWords(stage.failure)} Nothing is lost: what was read is still here. Try again.
        </span>
      );
    case 'aborted':
      return <span className="text-muted">cancelled</span>;
  }
}
