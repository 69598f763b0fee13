import { ListFilter, Music, Search } from 'lucide-react';
import { type ReactNode, useEffect, useId, useRef, useState } from 'react';
import { type BookFacets, type BookQuery, NO_TYPE } from '#contract/book';
import type { Words } from '#contract/settings';
import { techniqueWords } from '#words/tuneDrill';
import { Button } from '../ui/Button';
import { SearchField } from '../ui/SearchField';
import { countConditions } from './bookQuery';
import { keySigns } from './keySigns';

interface BookFiltersProps {
  readonly query: BookQuery;
  readonly facets: BookFacets | undefined;
  /** The player’s own, for what bowings are called. */
  readonly words: Words;
  /** Where the first notes could not be read. */
  readonly notesProblem: string | null;
  readonly onChange: (query: BookQuery) => void;
  readonly children: ReactNode;
}

/** Search by words and by first notes, and the conditions that hold together. */
export function BookFilters({ query, facets, words, notesProblem, onChange, children }: BookFiltersProps) {
  const conditions = countConditions(query);
  const [isOpen, setOpen] = useState(conditions > 0);
  // Words and notes typed one after the other are told before the page has answered to the first of them.
  const latest = useRef(query);
  useEffect(() => {
    latest.current = query;
  }, [query]);
  const tell = (next: BookQuery) => {
    latest.current = next;
    onChange(next);
  };
  const with_ = (change: Partial<BookQuery>) => tell({ ...latest.current, ...change });
  const panel = useId();
  return (
    <section aria-label="Search and filter" className="mb-3 flex flex-col gap-2">
      <div className="flex flex-wrap items-start gap-2">
        <SearchField
          label="Search the book"
          shortcut="/"
          Icon={Search}
          value={query.words ?? ''}
          onChange={(words) => with_({ words: words || undefined })}
          className="min-w-48 flex-[2]"
        />
        <SearchField
          label="First notes: d f# a, or D:0 D:2"
          shortcut="n"
          Icon={Music}
          value={query.notes ?? ''}
          onChange={(notes) => with_({ notes: notes || undefined })}
          problem={notesProblem}
          className="min-w-44 flex-1"
        />
        <Button
          className="flex min-h-10 items-center gap-2"
          aria-expanded={isOpen}
          aria-controls={panel}
          onClick={() => setOpen(!isOpen)}
        >
          <ListFilter size={16} aria-hidden /> Filter{conditions > 0 && ` · ${conditions}`}
        </Button>
        {children}
      </div>
      <div id={panel} hidden={!isOpen} className="rounded-md border border-line bg-surface px-3 py-2.5">
        <div className="grid grid-cols-2 gap-x-4 gap-y-2 sm:grid-cols-3 lg:grid-cols-4 xl:grid-cols-5">
          <Choice label="Type" value={query.type} onChange={(type) => with_({ type: type as BookQuery['type'] })}>
            {facets?.types.map(({ value, count }) => (
              <option key={value} value={value}>
                {value === NO_TYPE ? 'not set' : value} ({count})
              </option>
            ))}
          </Choice>
          <Choice label="Key" value={query.key} onChange={(key) => with_({ key })}>
            {facets?.keys.map(({ value, count }) => (
              <option key={value} value={value}>
                {keySigns(value)} ({count})
              </option>
            ))}
          </Choice>
          <Choice label="Tuning" value={query.tuning} onChange={(tuning) => with_({ tuning })}>
            {facets?.tunings.map(({ value, count }) => (
              <option key={value} value={value}>
                {keySigns(value)} ({count})
              </option>
            ))}
          </Choice>
          <Choice label="Tag" value={query.tag} onChange={(tag) => with_({ tag })}>
            {facets?.tags.map(({ value, count }) => (
              <option key={value} value={value}>
                {value} ({count})
              </option>
            ))}
          </Choice>
          <Choice label="Technique" value={query.technique} onChange={(technique) => with_({ technique })}>
            {facets?.techniques.map(({ value, count }) => (
              <option key={value} value={value}>
                {techniqueWords(value, words)} ({count})
              </option>
            ))}
          </Choice>
          <Choice label="Round" value={query.round} onChange={(round) => with_({ round: round as BookQuery['round'] })}>
            <option value="yes">comes round</option>
            <option value="no">flips</option>
          </Choice>
          <Choice label="Tempo" value={query.tempo} onChange={(tempo) => with_({ tempo: tempo as BookQuery['tempo'] })}>
            <option value="stands">holds up to the wanted tempo</option>
            <option value="short">falls short of the wanted tempo</option>
          </Choice>
          <Choice
            label="Findings"
            value={query.findings}
            onChange={(findings) => with_({ findings: findings as BookQuery['findings'] })}
          >
            <option value="problems">has problems</option>
            <option value="cares">has places to watch</option>
            <option value="none">has none</option>
          </Choice>
          <Choice
            label="New to you"
            value={query.ready}
            onChange={(ready) => with_({ ready: ready as BookQuery['ready'] })}
          >
            <option value="yes">nothing</option>
            <option value="one">one skill</option>
            <option value="more">two skills or more</option>
            <option value="unknown">not known</option>
          </Choice>
          <Choice
            label="Practised"
            value={query.practised}
            onChange={(practised) => with_({ practised: practised as BookQuery['practised'] })}
          >
            <option value="never">never</option>
            <option value="not-7">not for a week</option>
            <option value="not-30">not for a month</option>
            <option value="not-90">not for three months</option>
          </Choice>
        </div>
        <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-1 text-small">
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-woad"
              checked={query.removed === 'yes'}
              onChange={({ target }) => with_({ removed: target.checked ? 'yes' : undefined })}
            />
            tunes removed from the book{facets && facets.removed > 0 ? ` (${facets.removed})` : ''}
          </label>
          {conditions > 0 && (
            <Button
              look="link"
              onClick={() => {
                const { words, notes, sort, down } = latest.current;
                tell({ words, notes, sort, down });
              }}
            >
              Clear the filter
            </Button>
          )}
        </div>
      </div>
    </section>
  );
}

function Choice(props: {
  readonly label: string;
  readonly value: string | undefined;
  readonly onChange: (value: string | undefined) => void;
  readonly children: ReactNode;
}) {
  const { label, value, onChange, children } = props;
  return (
    <label className="flex min-w-0 flex-col text-small">
      <span className="text-muted">{label}</span>
      <select
        value={value ?? ''}
        onChange={({ target }) => onChange(target.value || undefined)}
        className={`min-h-9 min-w-0 rounded-md border bg-paper px-1.5 text-control ${value === undefined ? 'border-line' : 'border-woad font-bold'}`}
      >
        <option value="">any</option>
        {children}
      </select>
    </label>
  );
}
