import { proxy, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { type Performance, clickTrack, perform } from '#core/performance';
import type { TuneReport } from '#core/report';
import { writeMidi } from '#formats/midi';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { saveFile } from '../ui/saveFile';
import type { ListenSettings } from './listenSettings';
import type { Span } from './player';
import type { RenderWorker } from './renderProtocol';

interface SoundFilesSheetProps {
  readonly report: TuneReport;
  readonly settings: ListenSettings;
  /** What is selected. */
  readonly span: Span | null;
  readonly onClose: () => void;
}

type Rendering =
  | { readonly kind: 'none' }
  | { readonly kind: 'going'; readonly what: string; readonly share: number }
  | { readonly kind: 'done'; readonly name: string; readonly bytes: number }
  | { readonly kind: 'failed'; readonly what: string };

/** The tune, or what is selected of it, as files that are heard elsewhere. */
export function SoundFilesSheet({ report, settings, span, onClose }: SoundFilesSheetProps) {
  const [rendering, setRendering] = useState<Rendering>({ kind: 'none' });
  const [onlySpan, setOnlySpan] = useState(false);
  const worker = useRef<Worker | null>(null);
  const cancel = () => {
    worker.current?.terminate();
    worker.current = null;
    setRendering({ kind: 'none' });
  };
  useEffect(() => () => worker.current?.terminate(), []);
  const base = fileName(report.tune.title);
  const keep = (name: string, bytes: Uint8Array, type: string) => {
    saveFile(name, new Blob([bytes as BlobPart], { type }));
    setRendering({ kind: 'done', name, bytes: bytes.length });
  };
  const renderWav = ({ plan }: Performance, what: string, name: string) => {
    cancel();
    const started = new Worker(new URL('./render.worker.ts', import.meta.url), { type: 'module' });
    worker.current = started;
    setRendering({ kind: 'going', what, share: 0 });
    // What it said last may come in after it was given up.
    const tell = (now: Rendering) => {
      if (worker.current === started) setRendering(now);
    };
    const fail = () => {
      tell({ kind: 'failed', what });
      started.terminate();
    };
    started.onerror = fail;
    wrap<RenderWorker>(started)
      .render(
        { plan, balance: settings.balance },
        proxy((share: number) => tell({ kind: 'going', what, share })),
      )
      .then((file) => {
        started.terminate();
        if (worker.current !== started) return;
        // Its progress comes by a way of its own, and may come in after the file.
        worker.current = null;
        keep(name, file, 'audio/wav');
      }, fail);
  };
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
              renderWav(
                perform(report, {
                  layers: new Set(settings.layers),
                  span: chosen,
                  countIn: settings.countIn,
                  answer: false,
                  isHuman: true,
                }),
                'the sound',
                `${base}${part}.wav`,
              )
            }
          />
          <FileRow
            name="Click track (WAV)"
            words="one bar counted in, then bars, beats and offbeats of the whole tune"
            onMake={() => renderWav(clickTrack(report), 'the click track', `${base} click.wav`)}
          />
          <FileRow
            name="Notes (MIDI)"
            words="the whole tune as played, its loudness by the bow"
            onMake={() => keep(`${base}.mid`, writeMidi(report), 'audio/midi')}
          />
        </ul>
        <div role="status" className="min-h-9">
          {rendering.kind === 'going' && (
            <div className="flex items-center gap-3">
              <progress
                className="h-2 flex-1 accent-woad"
                max={1}
                value={rendering.share}
                aria-label={`Making ${rendering.what}`}
              />
              <span className="w-12 text-right">{Math.round(100 * rendering.share)} %</span>
              <Button onClick={cancel}>Cancel</Button>
            </div>
          )}
          {rendering.kind === 'done' && (
            <p>
              {rendering.name} is ready ({(rendering.bytes / 1e6).toFixed(rendering.bytes < 1e5 ? 3 : 1)} MB).
            </p>
          )}
          {rendering.kind === 'failed' && (
            <p className="text-madder">
              {rendering.what} could not be made: the page could not load what makes it. Try again once the server
              answers.
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
