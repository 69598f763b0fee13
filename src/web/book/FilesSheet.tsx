import { useId, useState } from 'react';
import { Link } from 'react-router';
import type { BookFilter, TuneChoice } from '#contract/book';
import { EXPORT_FORMATS, type ExportFormat, exportRoutes } from '#contract/exports';
import { FILE_KINDS } from '#formats/kinds';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import type { Failure } from '../api/answer';
import { ask } from '../api/ask';
import { useRestoreBackupMutation } from '../api/backupApi';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { saveFile } from '../ui/saveFile';
import { Sheet } from '../ui/Sheet';
import { BookSizeWords } from './BookSizeWords';
import { KeptCopiesList } from './KeptCopiesList';

const nameOf = (format: ExportFormat) => (format === 'csv' ? 'Table (CSV)' : FILE_KINDS[format].label);

const WORDS: Readonly<Record<ExportFormat, string>> = {
  abc: 'plain text; other programs read the notes, Morrin reads everything back',
  musicxml: 'for notation programs, with bow marks, strings, fingers and the tuning',
  midi: 'as it is played, with lilt and accents',
  json: 'the documents themselves',
  csv: 'the list with its figures, for a spreadsheet',
};

interface FilesSheetProps {
  /** The chosen tunes; null where none is. */
  readonly choice: TuneChoice | null;
  readonly chosen: number;
  /** The filter in force; null where everything is shown. */
  readonly filter: BookFilter | null;
  readonly shown: number;
  readonly total: number;
  readonly onClose: () => void;
}

type Scope = 'chosen' | 'shown' | 'all';

/** Tunes out as files, a printed book, and the whole book as a backup and back. */
export function FilesSheet({ choice, chosen, filter, shown, total, onClose }: FilesSheetProps) {
  const [scope, setScope] = useState<Scope>(choice ? 'chosen' : filter ? 'shown' : 'all');
  const [format, setFormat] = useState<ExportFormat>('abc');
  const [isMaking, setMaking] = useState(false);
  const [failure, setFailure] = useState<Failure | null>(null);
  const [made, setMade] = useState<string | null>(null);
  const wanted: TuneChoice =
    scope === 'chosen' && choice ? choice : scope === 'shown' && filter ? { filter } : { filter: {} };
  const make = async () => {
    setMaking(true);
    setFailure(null);
    const answer = await ask(exportRoutes.exportTunes, { body: { format, choice: wanted } });
    setMaking(false);
    if (!answer.ok) {
      setFailure(answer.failure);
      return;
    }
    saveFile(answer.value.name, answer.value.file);
    setMade(answer.value.name);
  };
  const scopes = [
    ...(choice ? [{ scope: 'chosen' as const, words: `the ${chosen} chosen` }] : []),
    ...(filter ? [{ scope: 'shown' as const, words: `the ${shown} that are shown` }] : []),
    { scope: 'all' as const, words: `the whole book, ${total}` },
  ];
  return (
    <Sheet open onOpenChange={onClose} title="Files and backup" wide>
      <div className="flex flex-col gap-6">
        <section aria-labelledby="out">
          <h3 id="out" className="mb-2 text-lg">
            Tunes as files
          </h3>
          <fieldset className="mb-3 flex flex-wrap gap-x-5 gap-y-1">
            <legend className="float-left mr-3 font-bold">Which</legend>
            {scopes.map((own) => (
              <label key={own.scope} className="flex items-center gap-1.5">
                <input
                  type="radio"
                  name="scope"
                  className="accent-woad"
                  checked={scope === own.scope}
                  onChange={() => setScope(own.scope)}
                />
                {own.words}
              </label>
            ))}
          </fieldset>
          <fieldset className="mb-3 flex flex-col gap-1">
            <legend className="mb-1 font-bold">As</legend>
            {EXPORT_FORMATS.map((own) => (
              <label key={own} className="flex items-baseline gap-2">
                <input
                  type="radio"
                  name="format"
                  className="accent-woad"
                  checked={format === own}
                  onChange={() => setFormat(own)}
                />
                <span>
                  <b>{nameOf(own)}</b> <span className="text-muted">{WORDS[own]}</span>
                </span>
              </label>
            ))}
          </fieldset>
          <div className="flex flex-wrap items-center gap-3">
            <Button look="main" disabled={isMaking} onClick={() => void make()}>
              {isMaking ? 'Making the file …' : 'Save as a file'}
            </Button>
            <Link to="/printed-book" state={{ choice: wanted }} className="text-woad underline">
              as a printed book with contents (PDF)
            </Link>
            {made && !isMaking && <span role="status">{made} is made.</span>}
          </div>
          {failure && <Alert className="mt-2">The file could not be made. {failureWords(failure)}</Alert>}
        </section>
        <Backup />
      </div>
    </Sheet>
  );
}

function Backup() {
  const [file, setFile] = useState<File | null>(null);
  const [isSure, setSure] = useState(false);
  const [restore, { data: restored, error, isLoading }] = useRestoreBackupMutation();
  const id = useId();
  return (
    <section aria-labelledby={id} className="border-t border-line pt-4">
      <h3 id={id} className="mb-2 text-lg">
        Backup
      </h3>
      <p className="mb-2">
        Everything in one file: tunes with their history, versions, sources, settings, fiddles, views.{' '}
        <a href="/api/backup" download className="text-woad underline">
          Save a backup
        </a>
      </p>
      <label className="mb-2 flex flex-wrap items-center gap-2">
        <span>Restore a backup</span>
        <input
          type="file"
          className="file:mr-2 file:rounded-md file:border file:border-line file:bg-surface file:px-3 file:py-1.5 hover:file:border-soft"
          accept=".gz,application/gzip"
          onChange={({ target }) => {
            setFile(target.files?.[0] ?? null);
            setSure(false);
          }}
        />
      </label>
      {file && !restored && (
        <div className="flex flex-col gap-2 rounded-md border border-madder px-3 py-2">
          <label className="flex items-baseline gap-2">
            <input
              type="checkbox"
              className="accent-woad"
              checked={isSure}
              onChange={({ target }) => setSure(target.checked)}
            />
            <span>
              This replaces everything now in the book with what is in “{file.name}”. If anything is wrong with the
              file, nothing changes.
            </span>
          </label>
          <span>
            <Button disabled={!isSure || isLoading} onClick={() => void restore(file)}>
              {isLoading ? 'Restoring …' : 'Restore this backup'}
            </Button>
          </span>
        </div>
      )}
      {restored && (
        <p role="status">
          The backup is restored: {counted(restored.tunes, 'tune')}. The book as it was before is among the copies
          below.
        </p>
      )}
      {error !== undefined && (
        <Alert className="mt-2">The book has not changed. {failureWords(error as Failure)}</Alert>
      )}
      <KeptCopiesList />
      <BookSizeWords />
    </section>
  );
}
