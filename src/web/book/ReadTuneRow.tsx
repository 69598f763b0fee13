import { memo, useEffect, useMemo, useState } from 'react';
import type { LikeTune } from '#contract/imports';
import { tuneRoutes } from '#contract/tunes';
import type { Tune } from '#core/tune';
import { writeAbc } from '#formats/abc';
import { likenessWords } from '#words/alignment';
import { failureWords } from '#words/failure';
import { counted } from '#words/plural';
import type { Failure } from '../api/answer';
import { ask } from '../api/ask';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { AlignedBars } from '../versions/AlignedBars';
import { ImportMessages, SEVERITIES, SEVERITY_NAMES, TONES } from './ImportMessages';
import { type ImportedTune, tuneOf } from './importProtocol';
import { type Fate, likelySame, type ReadTuneItem } from './importQueue';

const MAX_BARS = 64;
/** Lines of music shown of a tune that was heard and not read. */
const PREVIEW_LINES = 4;

interface ReadTuneRowProps {
  readonly item: ReadTuneItem;
  /** Its place among the tunes of its file. */
  readonly index: number;
  readonly onFate: (index: number, fate: Fate) => void;
}

/**
 * A tune as it was read: its bars, what there is to say about them, and whether the book has it already. While a file is
 * read the list grows many times a second: what stands there is not drawn again.
 */
export const ReadTuneRow = memo(function ReadTuneRow({ item, index, onFate }: ReadTuneRowProps) {
  const { title, bars, notes, parts, messages, entry, kind } = item.read;
  const same = likelySame(item.like);
  const isOut = item.fate.kind === 'left-out';
  return (
    <li className="border-t border-line pt-2">
      <div className="flex flex-wrap items-baseline gap-x-2">
        <label className="flex items-baseline gap-2">
          <input
            type="checkbox"
            className="accent-woad"
            aria-label={`Bring in ${title}`}
            checked={!isOut}
            onChange={({ target }) => onFate(index, { kind: target.checked ? 'own' : 'left-out' })}
          />
          <b className={`font-serif text-lead break-words ${isOut ? 'text-muted line-through' : ''}`}>{title}</b>
        </label>
        <span className="text-muted">
          {counted(bars, 'bar')}, {counted(notes, 'note')}
          {entry === null ? '' : ` · ${entry}`}
        </span>
      </div>
      {same[0] && <Known like={same[0]} read={item.read} fate={item.fate} onFate={(fate) => onFate(index, fate)} />}
      <ImportMessages messages={messages} />
      {kind === 'midi' && <Preview read={item.read} />}
      {parts.map((part) => (
        <PartRead key={part.name} part={part} />
      ))}
    </li>
  );
});

function Preview({ read }: { readonly read: ImportedTune }) {
  const text = useMemo(() => previewText(tuneOf(read)), [read]);
  return (
    <pre
      className="mt-1 overflow-x-auto rounded-md border border-line bg-paper px-3 py-2 text-hint"
      aria-label="The first bars as they were heard"
    >
      {text}
    </pre>
  );
}

function previewText(tune: Tune): string {
  const lines = writeAbc(tune).split('\n');
  const music = lines.findIndex((line) => line.startsWith('K:'));
  return lines
    .slice(music)
    .filter((line) => !line.startsWith('P:'))
    .slice(0, PREVIEW_LINES)
    .join('\n');
}

/** What the book has that is like it, and what is to become of the two. */
function Known(props: {
  readonly like: LikeTune;
  readonly read: ImportedTune;
  readonly fate: Fate;
  readonly onFate: (fate: Fate) => void;
}) {
  const { like, read, fate, onFate } = props;
  const [isCompared, setCompared] = useState(false);
  const fates: readonly { readonly fate: Fate; readonly words: string }[] = [
    { fate: { kind: 'own' }, words: 'a tune of its own' },
    { fate: { kind: 'joins', id: like.id }, words: 'another setting of it' },
    { fate: { kind: 'left-out' }, words: 'leave it out' },
  ];
  return (
    <div className="my-1 rounded-md border border-weld bg-paper px-3 py-2">
      <p>
        The book has <b>{like.title}</b>: {likenessWords(like.share, like.semitones)}.{' '}
        <Button look="link" aria-expanded={isCompared} onClick={() => setCompared(!isCompared)}>
          {isCompared ? 'close the comparison' : 'compare them'}
        </Button>
      </p>
      <fieldset className="flex flex-wrap gap-x-5">
        <legend className="sr-only">What to do with {read.title}</legend>
        {fates.map((own) => (
          <label key={own.words} className="flex items-center gap-1.5">
            <input
              type="radio"
              className="accent-woad"
              checked={fate.kind === own.fate.kind}
              onChange={() => onFate(own.fate)}
            />
            {own.words}
          </label>
        ))}
      </fieldset>
      {isCompared && <Compared id={like.id} read={read} names={[read.title, like.title]} />}
    </div>
  );
}

const COMPARED_BARS = 32;

function Compared({
  id,
  read,
  names,
}: {
  readonly id: string;
  readonly read: ImportedTune;
  readonly names: readonly [string, string];
}) {
  const tune = useMemo(() => tuneOf(read), [read]);
  const [known, setKnown] = useState<Tune | Failure | null>(null);
  useEffect(() => {
    let isCurrent = true;
    void ask(tuneRoutes.findTune, { params: { id } }).then((answer) => {
      if (isCurrent) setKnown(answer.ok ? answer.value.tune : answer.failure);
    });
    return () => {
      isCurrent = false;
    };
  }, [id]);
  if (known === null) return <p className="mt-2 text-muted">Fetching it …</p>;
  if ('code' in known) return <Alert className="mt-2">{failureWords(known)}</Alert>;
  return (
    <div className="mt-2">
      <AlignedBars one={tune} other={known} names={names} max={COMPARED_BARS} />
    </div>
  );
}

/** A part's bars in a row, those with something to say marked, and what it is. */
function PartRead({ part: { name, bars } }: { readonly part: ImportedTune['parts'][number] }) {
  const [isWhole, setWhole] = useState(false);
  const shown = isWhole ? bars : bars.slice(0, MAX_BARS);
  const spoken = bars.flatMap(({ number, messages }) => messages.map((message) => ({ number, message })));
  return (
    <div className="mt-1">
      <ol
        className="flex flex-wrap items-baseline gap-x-2 text-small text-muted tabular-nums"
        aria-label={`Bars of part ${name}`}
      >
        <li className="font-serif text-control font-bold text-walnut" aria-hidden>
          {name}
        </li>
        {shown.map(({ number, messages }, i) => {
          const worst = SEVERITIES.find((severity) => messages.some((message) => message.severity === severity));
          return (
            <li key={i} className={worst ? `font-bold ${TONES[worst]}` : ''}>
              {number === 0 ? 'pickup' : number}
              {worst && <span aria-hidden>{worst === 'info' ? '·' : '!'}</span>}
              {worst && <span className="sr-only"> {SEVERITY_NAMES[worst]}</span>}
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
      <ImportMessages
        messages={spoken.map(({ message }) => message)}
        where={(i) => (spoken[i]!.number === 0 ? `${name} pickup` : `${name} bar ${spoken[i]!.number}`)}
      />
    </div>
  );
}
