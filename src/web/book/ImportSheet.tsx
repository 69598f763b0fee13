import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { ImportMessage } from '#formats/text';
import type { Failure } from '../api/client';
import { failureWords } from '../api/messages';
import { useAddTunesMutation } from '../api/tunesApi';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import type { ImportOutcome, ImportedTune } from './importProtocol';
import { type RunningImport, startImport } from './startImport';

/** What is to be read: a dropped or chosen file, a pasted text, or nothing yet. */
export type ImportInput =
  { readonly kind: 'file'; readonly file: File } | { readonly kind: 'text'; readonly text: string } | null;

type Stage =
  | { readonly kind: 'input'; readonly problem: string | null }
  | { readonly kind: 'reading'; readonly count: number }
  | { readonly kind: 'read'; readonly outcome: ImportOutcome };

interface ImportSheetProps {
  readonly input: ImportInput;
  readonly onClose: () => void;
}

/** Brings tunes in: paste or choose, see what was read bar by bar with every message, then keep. */
export function ImportSheet({ input, onClose }: ImportSheetProps) {
  const [text, setText] = useState(input?.kind === 'text' ? input.text : '');
  const [fileName, setFileName] = useState(input?.kind === 'file' ? input.file.name : undefined);
  const [stage, setStage] = useState<Stage>(input ? { kind: 'reading', count: 0 } : { kind: 'input', problem: null });
  const running = useRef<RunningImport | null>(null);
  const [addTunes, { isLoading, error }] = useAddTunesMutation();
  const navigate = useNavigate();

  const begin = (source: Blob) => {
    const started = startImport(source, (count) => setStage({ kind: 'reading', count }));
    running.current = started;
    started.outcome.then(
      (outcome) => running.current === started && setStage({ kind: 'read', outcome }),
      ({ message }: Error) => running.current === started && setStage({ kind: 'input', problem: message }),
    );
  };
  const read = (source: Blob, name?: string) => {
    setFileName(name);
    setStage({ kind: 'reading', count: 0 });
    begin(source);
  };
  const cancel = () => {
    running.current?.cancel();
    running.current = null;
    setStage({ kind: 'input', problem: null });
  };

  const beginWithInput = useEffectEvent(() => {
    if (input) begin(input.kind === 'file' ? input.file : new Blob([input.text]));
  });
  useEffect(() => {
    beginWithInput();
    return () => running.current?.cancel();
  }, []);

  const keep = async (tunes: readonly ImportedTune[]) => {
    const kept = await addTunes({
      fileName,
      tunes: tunes.map(({ tune, source }) => ({ tune, source })),
    });
    if (!kept.data) return;
    onClose();
    if (kept.data.length === 1) void navigate(`/tunes/${kept.data[0]!.id}`);
  };

  return (
    <Sheet
      open
      onOpenChange={onClose}
      title="Bring tunes in"
      description="ABC text or a Morrin plan: paste it, or choose a file."
      wide
    >
      {stage.kind === 'input' && (
        <div className="flex flex-col gap-3">
          {stage.problem && (
            <p role="alert" className="text-madder">
              {stage.problem}
            </p>
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
              className="w-full rounded-md border border-soft bg-paper px-3 py-2 font-mono text-[14px]"
            />
          </label>
          <div className="flex flex-wrap items-center justify-between gap-2">
            <label className="flex items-center gap-2">
              <span>or a file</span>
              <input
                type="file"
                accept=".abc,.txt,.json,text/plain,text/vnd.abc"
                onChange={(event) => {
                  const file = event.target.files?.[0];
                  if (file) read(file, file.name);
                }}
              />
            </label>
            <Button look="main" disabled={text.trim() === ''} onClick={() => read(new Blob([text]))}>
              Read it
            </Button>
          </div>
        </div>
      )}
      {stage.kind === 'reading' && (
        <div role="status" className="flex items-center justify-between gap-4 py-6">
          <p>Reading … {stage.count > 0 && `${stage.count} tunes so far`}</p>
          <Button onClick={cancel}>Cancel</Button>
        </div>
      )}
      {stage.kind === 'read' && (
        <Outcome
          outcome={stage.outcome}
          isKeeping={isLoading}
          failure={(error as Failure | undefined) ?? null}
          onBack={() => setStage({ kind: 'input', problem: null })}
          onKeep={(tunes) => void keep(tunes)}
        />
      )}
    </Sheet>
  );
}

/** Tunes shown at once; more are kept all the same. */
const MOST_SHOWN = 60;
const MOST_MESSAGES = 30;
const MOST_BARS = 64;

function Outcome(props: {
  readonly outcome: ImportOutcome;
  readonly isKeeping: boolean;
  readonly failure: Failure | null;
  readonly onBack: () => void;
  readonly onKeep: (tunes: readonly ImportedTune[]) => void;
}) {
  const { outcome, isKeeping, failure, onBack, onKeep } = props;
  const { tunes, messages } = outcome;
  const count = `${tunes.length} tune${tunes.length === 1 ? '' : 's'}`;
  return (
    <div className="flex flex-col gap-3">
      <p className="font-serif text-[18px] font-bold" role="status">
        {tunes.length === 0 ? 'Nothing could be read.' : `${count} read.`}
      </p>
      <Messages messages={messages} />
      <ul className="flex flex-col gap-3">
        {tunes.slice(0, MOST_SHOWN).map(({ title, bars, notes, parts, messages: own }, i) => (
          <li key={i} className="border-t border-line pt-2">
            <p>
              <b className="font-serif text-[17px]">{title}</b>{' '}
              <span className="text-muted">
                {bars} bars, {notes} notes
              </span>
            </p>
            <Messages messages={own} />
            {parts.map((part) => (
              <PartRead key={part.name} part={part} />
            ))}
          </li>
        ))}
      </ul>
      {tunes.length > MOST_SHOWN && <p className="text-muted">and {tunes.length - MOST_SHOWN} more tunes</p>}
      {failure && (
        <p role="alert" className="text-madder">
          Not kept: {failureWords(failure)} What was read is still here; try again.
        </p>
      )}
      <div className="sticky bottom-0 flex justify-end gap-2 bg-surface py-2">
        <Button onClick={onBack}>Back to the text</Button>
        <Button look="main" disabled={tunes.length === 0 || isKeeping} onClick={() => onKeep(tunes)}>
          {isKeeping ? 'Keeping …' : tunes.length === 0 ? 'Keep' : `Keep ${count}`}
        </Button>
      </div>
    </div>
  );
}

const TONES = { error: 'text-madder', warning: 'text-weld-ink', info: 'text-muted' } as const;
const SEVERITIES = ['error', 'warning', 'info'] as const;
const NAMES = { error: 'Problem', warning: 'Take care', info: 'Note' } as const;

/** A part's bars in a row, those with something to say marked, and what it is. */
function PartRead({ part: { name, bars } }: { readonly part: ImportedTune['parts'][number] }) {
  const [isWhole, setWhole] = useState(false);
  const shown = isWhole ? bars : bars.slice(0, MOST_BARS);
  const spoken = bars.flatMap(({ number, messages }) => messages.map((message) => ({ number, message })));
  return (
    <div className="mt-1">
      <ol
        className="flex flex-wrap items-baseline gap-x-2 text-[14px] text-muted tabular-nums"
        aria-label={`Bars of part ${name}`}
      >
        <li className="font-serif text-[15px] font-bold text-walnut" aria-hidden>
          {name}
        </li>
        {shown.map(({ number, messages }, i) => {
          const worst = SEVERITIES.find((severity) => messages.some((message) => message.severity === severity));
          return (
            <li key={i} className={worst ? `font-bold ${TONES[worst]}` : ''}>
              {number === 0 ? 'pickup' : number}
              {worst && <span aria-hidden>{worst === 'info' ? '·' : '!'}</span>}
              {worst && <span className="sr-only"> {NAMES[worst]}</span>}
            </li>
          );
        })}
        {bars.length > shown.length && (
          <li>
            <Button look="link" onClick={() => setWhole(true)}>
              {bars.length - shown.length} more
            </Button>
          </li>
        )}
      </ol>
      <Messages
        messages={spoken.map(({ message }) => message)}
        where={(i) => (spoken[i]!.number === 0 ? `${name} pickup` : `${name} bar ${spoken[i]!.number}`)}
      />
    </div>
  );
}

function Messages(props: {
  readonly messages: readonly ImportMessage[];
  /** The bar of a message, where it stands in one. */
  readonly where?: (index: number) => string;
}) {
  const { messages, where } = props;
  const [isWhole, setWhole] = useState(false);
  if (messages.length === 0) return null;
  const shown = isWhole ? messages : messages.slice(0, MOST_MESSAGES);
  return (
    <ul className="mt-1 text-[14px]">
      {shown.map(({ line, column, severity, message }, i) => (
        <li key={i} className="flex flex-wrap gap-x-2 sm:flex-nowrap">
          <span className="w-40 shrink-0 text-muted">
            {where && <b className="font-medium text-ink">{where(i)}</b>} line {line}, col. {column}
          </span>
          <span>
            <b className={TONES[severity]}>{NAMES[severity]}.</b> {message}
          </span>
        </li>
      ))}
      {messages.length > shown.length && (
        <li>
          <Button look="link" onClick={() => setWhole(true)}>
            {messages.length - shown.length} more messages
          </Button>
        </li>
      )}
    </ul>
  );
}
