import { type Search, X } from 'lucide-react';
import { useEffect, useId, useRef, useState } from 'react';
import { Alert } from './Alert';

/** A search waits this long for the next letter. */
const PAUSE_MS = 180;
/** Values that may still be on their way back. */
const TOLD_KEPT = 6;

/** Words to search for: told after a pause in typing; a key goes to it, Escape empties it. */
export function SearchField(props: {
  readonly label: string;
  readonly shortcut: string;
  readonly Icon: typeof Search;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly problem?: string | null;
  readonly className: string;
}) {
  const { label, shortcut, Icon, value, onChange, problem, className } = props;
  const [text, setText] = useState(value);
  const [seen, setSeen] = useState(value);
  /** What was told of late: it comes back as the value in its time, while more may be typed already. */
  const [told, setTold] = useState<readonly string[]>([]);
  const field = useRef<HTMLInputElement>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const problemId = useId();
  // What is told after the pause belongs to the page as it is then.
  const tell = useRef(onChange);
  useEffect(() => {
    tell.current = onChange;
  });
  // A view or the way back changes it from outside.
  if (value !== seen) {
    setSeen(value);
    const at = told.indexOf(value);
    if (at < 0) setText(value);
    else setTold(told.slice(at + 1));
  }
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== shortcut || event.ctrlKey || event.metaKey || event.altKey) return;
      if ((event.target as Element).closest('input, textarea, select, [role=dialog], [role=menu]')) return;
      event.preventDefault();
      field.current?.focus();
      field.current?.select();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [shortcut]);
  useEffect(() => () => clearTimeout(timer.current), []);
  const type = (typed: string) => {
    setText(typed);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => {
      setTold((before) => [...before, typed.trim()].slice(-TOLD_KEPT));
      tell.current(typed.trim());
    }, PAUSE_MS);
  };
  return (
    <div className={className}>
      <div className="relative">
        <Icon size={16} aria-hidden className="pointer-events-none absolute top-3 left-3 text-muted" />
        <input
          ref={field}
          type="text"
          inputMode="search"
          aria-label={label}
          aria-keyshortcuts={shortcut}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem ? problemId : undefined}
          placeholder={label}
          value={text}
          maxLength={200}
          spellCheck={false}
          autoComplete="off"
          onChange={({ target }) => type(target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Escape' || text === '') return;
            event.stopPropagation();
            type('');
          }}
          className={`min-h-10 w-full rounded-md border bg-surface pr-9 pl-9 ${problem ? 'border-madder' : 'border-soft'}`}
        />
        {text !== '' && (
          <button
            type="button"
            aria-label={`Clear: ${label}`}
            className="absolute top-1 right-1 grid size-8 place-items-center rounded text-muted hover:text-ink"
            onClick={() => {
              type('');
              field.current?.focus();
            }}
          >
            <X size={15} aria-hidden />
          </button>
        )}
      </div>
      {problem && (
        <Alert look="small" id={problemId} className="mt-1">
          {problem}
        </Alert>
      )}
    </div>
  );
}
