import { proxy } from 'comlink';
import { useState } from 'react';
import { clickTrack, perform, type Performance } from '#core/performance';
import type { TuneReport } from '#core/report';
import { FILE_KINDS } from '#formats/kinds';
import { writeMidi } from '#formats/midi';
import { selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { problemWords } from '../threads/problemWords';
import { useWork } from '../threads/useWork';
import { workerTask } from '../threads/workerTask';
import { Button } from '../ui/Button';
import { saveFile } from '../ui/saveFile';
import { Sheet } from '../ui/Sheet';
import type { ListenSettings } from './listenSettings';
import type { RenderWorker } from './renderProtocol';
import type { Span } from './span';

/** Sounding a long medley takes minutes on a slow machine, and tells how far it is. */
const RENDER_LIMIT_MS = 600_000;

type MakeBytes = (signal: AbortSignal, onProgress: (share: number) => void) => Promise<Uint8Array>;

interface SoundFilesSheetProps {
  readonly report: TuneReport;
  readonly settings: ListenSettings;
  /** What is selected. */
  readonly span: Span | null;
  readonly onClose: () => void;
}

interface MadeFile {
  readonly name: string;
  readonly bytes: number;
}

const startRender = () => new Worker(new URL('./render.worker.ts', import.meta.url), { type: 'module' });

/** The tune, or what is selected of it, as files that are heard elsewhere. */
export function SoundFilesSheet({ report, settings, span, onClose }: SoundFilesSheetProps) {
  const { state, begin, cancel } = useWork<MadeFile>();
  const [what, setWhat] = useState('');
  const [onlySpan, setOnlySpan] = useState(false);
  const { a4 } = useAppSelector(selectSettings).settings.listening;
  const base = fileName(report.tune.title);
  const make = (words: string, name: string, type: string, run: MakeBytes) => {
    setWhat(words);
    begin(async (signal, onProgress) => {
      const bytes = await run(signal, onProgress);
      saveFile(name, new Blob([bytes as BlobPart], { type }));
      return { name, bytes: bytes.length };
    });
  };
  const makeWav = ({ plan }: Performance, words: string, name: string) =>
    make(words, name, 'audio/wav', (signal, onProgress) =>
      workerTask<RenderWorker, Uint8Array>(
        startRender,
        (worker) => worker.render({ plan, balance: settings.balance }, proxy(onProgress)),
        { signal, timeLimitMs: RENDER_LIMIT_MS },
      ),
    );
  const chosen = onlySpan ? span : null;
  const part = chosen ? ' (selection)' : '';
  return (
    <Sheet
      open
      onOpenChange={onClose}
      title="Sound files"
      description="Made here in the browser, with the layers and the balance that are set for listening."
    >
      <div className="flex flex-col gap-4">
        {span && (
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-woad"
              checked={onlySpan}
              onChange={({ target }) => setOnlySpan(target.checked)}
            />
            only what is selected ({span.to - span.from} notes as played)
          </label>
        )}
        <ul className="flex flex-col gap-3">
          <FileRow
            name="Sound (WAV)"
            words="44.1 kHz, 16 bits, one channel; as the fiddle plays it"
            onMake={() =>
              makeWav(
                perform(report, {
                  layers: new Set(settings.layers),
                  span: chosen,
                  countIn: settings.countIn,
                  answer: false,
                  isHuman: true,
                  a4,
                }),
                'the sound',
                `${base}${part}.wav`,
              )
            }
          />
          <FileRow
            name="Click track (WAV)"
            words="one bar counted in, then bars, beats and offbeats of the whole tune"
            onMake={() => makeWav(clickTrack(report), 'the click track', `${base} click.wav`)}
          />
          <FileRow
            name="Notes (MIDI)"
            words="the whole tune as played, its loudness by the bow"
            onMake={() =>
              make('the notes', `${base}${FILE_KINDS.midi.extension}`, FILE_KINDS.midi.mime, async () =>
                writeMidi(report),
              )
            }
          />
        </ul>
        <div role="status" className="min-h-9">
          {state.kind === 'going' && (
            <div className="flex items-center gap-3">
              <progress
                className="h-2 flex-1 accent-woad"
                max={1}
                value={state.progress}
                aria-label={`Making ${what}`}
              />
              <span className="w-12 text-right">{Math.round(100 * state.progress)} %</span>
              <Button onClick={cancel}>Cancel</Button>
            </div>
          )}
          {state.kind === 'done' && state.answer && (
            <p>
              {state.answer.name} is ready ({(state.answer.bytes / 1e6).toFixed(state.answer.bytes < 1e5 ? 3 : 1)} MB).
            </p>
          )}
          {state.problem && (
            <p className="text-madder">
              No file was made of {what}. {problemWords(state.problem)}
            </p>
          )}
        </div>
      </div>
    </Sheet>
  );
}

function FileRow(props: { readonly name: string; readonly words: string; readonly onMake: () => void }) {
  return (
    <li className="flex items-center justify-between gap-4">
      <span>
        <b>{props.name}</b>
        <span className="block text-muted">{props.words}</span>
      </span>
      <Button onClick={props.onMake} aria-label={`Make: ${props.name}`}>
        Make
      </Button>
    </li>
  );
}

/** A title as the name of a file. */
function fileName(title: string): string {
  return (
    title
      .replace(/[\\/:*?"<>|\p{Cc}]+/gu, ' ')
      .trim()
      .slice(0, 80) || 'tune'
  );
}
