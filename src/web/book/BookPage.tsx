import { FileInput, FilePlus2 } from 'lucide-react';
import { type DragEvent, useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Tune } from '#core/tune';
import type { Failure } from '../api/client';
import { failureWords } from '../api/messages';
import { useAddTunesMutation, useBookQuery } from '../api/tunesApi';
import { TuneSheet } from '../tune/TuneSheet';
import { blankTune } from '../tune/blankTune';
import { Button } from '../ui/Button';
import { BookTable } from './BookTable';
import { type ImportInput, ImportSheet } from './ImportSheet';

/** All tunes, and the way in for new ones: drop, paste or choose. */
export function BookPage() {
  const { data: tunes, error, isLoading, refetch } = useBookQuery();
  const [importing, setImporting] = useState<{ input: ImportInput } | null>(null);
  const [isOver, setOver] = useState(false);
  const [isBeginning, setBeginning] = useState(false);
  const [addTunes, { error: beginError }] = useAddTunesMutation();
  const navigate = useNavigate();
  const begin = async (tune: Tune) => {
    const added = await addTunes({ tunes: [{ tune }] });
    if (added.data) void navigate(`/tunes/${added.data[0]!.id}`);
  };

  useEffect(() => {
    document.title = 'Book · Morrin';
    const onPaste = (event: ClipboardEvent) => {
      if ((event.target as Element).closest('input, textarea')) return;
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (/^[XTK]:/m.test(text)) setImporting((current) => current ?? { input: { kind: 'text', text } });
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, []);

  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    const file = event.dataTransfer.files[0];
    const text = event.dataTransfer.getData('text/plain');
    if (file) setImporting({ input: { kind: 'file', file } });
    else if (text) setImporting({ input: { kind: 'text', text } });
  };

  return (
    <main
      className={`h-full overflow-y-auto px-5 py-5 lg:px-8 ${isOver ? 'bg-band' : ''}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <header className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <div>
          <h1 className="text-[28px] leading-tight">Book</h1>
          <p className="text-muted" role="status">
            {summary(tunes)}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          <Button className="flex items-center gap-2" onClick={() => setBeginning(true)}>
            <FilePlus2 size={17} aria-hidden /> Begin a tune
          </Button>
          <Button look="main" className="flex items-center gap-2" onClick={() => setImporting({ input: null })}>
            <FileInput size={17} aria-hidden /> Bring tunes in
          </Button>
        </div>
      </header>
      {isLoading && <p className="py-8 text-muted">Opening the book …</p>}
      {error !== undefined && (
        <div role="alert" className="py-6">
          <p className="mb-3 text-madder">The book cannot be shown. {failureWords(error as Failure)}</p>
          <Button onClick={() => void refetch()}>Try again</Button>
        </div>
      )}
      {tunes?.length === 0 && (
        <div className="max-w-lg py-10">
          <h2 className="mb-1 text-xl">The book is empty</h2>
          <p className="text-muted">
            Drop an ABC file here, paste its text anywhere on this page, or press <i>Bring tunes in</i>; or begin one of
            your own.
          </p>
        </div>
      )}
      {tunes && tunes.length > 0 && (
        <>
          <BookTable tunes={tunes} />
          <p className="py-4 text-[13.5px] text-muted">
            Drop ABC files anywhere on this page, or paste their text. <b>Stands to</b> is the highest tempo at which
            every stroke and crossing has its time, in the dance’s own beat; the shaded stretch is the usual band.
          </p>
        </>
      )}
      {beginError !== undefined && (
        <p role="alert" className="text-madder">
          The tune could not be begun. {failureWords(beginError as Failure)}
        </p>
      )}
      {isBeginning && (
        <TuneSheet
          tune={blankTune()}
          heading="Begin a tune"
          deed="Begin"
          hasNotes={false}
          onClose={() => setBeginning(false)}
          onDone={(tune) => {
            setBeginning(false);
            void begin(tune);
          }}
        />
      )}
      {importing && <ImportSheet input={importing.input} onClose={() => setImporting(null)} />}
    </main>
  );
}

function summary(
  tunes: readonly { comesRound: boolean | null; ceilingBpm: number | null; wishBpm: number }[] | undefined,
): string {
  if (!tunes || tunes.length === 0) return '';
  const flipping = tunes.filter(({ comesRound }) => comesRound === false).length;
  const slow = tunes.filter(({ ceilingBpm, wishBpm }) => ceilingBpm !== null && ceilingBpm < wishBpm).length;
  const count = `${tunes.length} tune${tunes.length === 1 ? '' : 's'}`;
  return `${count}; ${flipping} ${flipping === 1 ? 'does' : 'do'} not come round, ${slow} ${slow === 1 ? 'breaks' : 'break'} below ${slow === 1 ? 'its' : 'their'} tempo`;
}
