import { Fragment, type RefObject, useEffect, useRef, useState } from 'react';
import type { Bite, Cut } from '#core/practice';
import type { TuneReport } from '#core/report';
import { counted } from '#words/plural';
import { countWords, spotWords } from '#words/spot';
import { PlainScore } from '../score/PlainScore';

interface BiteScoreProps {
  readonly report: TuneReport;
  readonly bites: readonly Bite[];
  readonly cuts: readonly Cut[];
  readonly chosen: string | null;
  readonly names: ReadonlyMap<string, string>;
  readonly onChoose: (id: string) => void;
  /** A cut put elsewhere, taken out (`to` null), or put in (`from` null). */
  readonly onCut: (from: string | null, to: string | null) => void;
}

/** The tune with its bites: a bracket over each, and a handle at every cut that can be dragged or moved by keys. */
export function BiteScore(props: BiteScoreProps) {
  const { report } = props;
  return (
    <PlainScore
      report={report}
      zoom={0.9}
      lanes={{ bow: false, fingers: false }}
      leadPx={LEAD_PX}
      label={`${report.tune.title} in ${counted(props.bites.length, 'bite')}`}
    >
      <Brackets {...props} />
    </PlainScore>
  );
}

/** Room over each line for the brackets. */
const LEAD_PX = 26;

/** Where a note stands on the page, from the score's corner. */
interface Place {
  readonly x: number;
  readonly top: number;
  readonly line: string;
  /** Ends of its line: the first note and the edge. */
  readonly left: number;
  readonly right: number;
}

function Brackets({ report, bites, cuts, chosen, names, onChoose, onCut }: BiteScoreProps) {
  const layer = useRef<HTMLDivElement>(null);
  const places = usePlaces(layer, report);
  const at = (id: string) => places.get(id);
  const allowed = cuts.map(({ before }) => before);
  const spotOf = (id: string) => {
    const note = report.unrolled.notes.find((played) => played.note.id === id)!;
    return `${spotWords(note)}, ${countWords(note)}`;
  };
  const taken = new Set(cuts.filter((cut) => cut.taken).map(({ before }) => before));
  /** The nearest place where a cut may stand. */
  const nearest = (clientX: number, clientY: number): string | null => {
    const box = layer.current?.getBoundingClientRect();
    if (!box) return null;
    let best: { readonly id: string; readonly far: number } | null = null;
    for (const id of allowed) {
      const place = at(id);
      if (!place) continue;
      const far = Math.hypot(place.x - (clientX - box.left), 3 * (place.top - (clientY - box.top)));
      if (!best || far < best.far) best = { id, far };
    }
    return best?.id ?? null;
  };
  return (
    <div ref={layer} className="pointer-events-none absolute inset-0">
      {bites.map((bite, i) => {
        const from = at(bite.from);
        const to = at(bite.to);
        if (!from || !to) return null;
        const isOneLine = from.line === to.line;
        const label = names.get(bite.id) ?? String(i + 1);
        return (
          <Fragment key={bite.id}>
            <button
              type="button"
              aria-pressed={chosen === bite.id}
              aria-label={`Bite ${label}`}
              onClick={() => onChoose(bite.id)}
              className="group pointer-events-auto absolute flex h-6 items-start border-t-2 border-walnut text-left text-hint text-walnut aria-pressed:border-woad aria-pressed:font-bold aria-pressed:text-woad"
              style={{
                left: from.x - 8,
                top: from.top - LEAD_PX,
                width: Math.max(24, (isOneLine ? to.x + 14 : from.right) - from.x + 4),
              }}
            >
              {/* Under a finger the button reaches down over the bow signs, its ground does not. */}
              <span className="block h-5.5 w-full truncate pt-0.5 pl-1 group-hover:bg-band group-aria-pressed:bg-band">
                {label}
              </span>
            </button>
            {!isOneLine && (
              <span
                aria-hidden
                className={`absolute h-2 border-t-2 ${chosen === bite.id ? 'border-woad' : 'border-walnut'}`}
                style={{ left: to.left - 8, top: to.top - LEAD_PX, width: to.x - to.left + 22 }}
              />
            )}
          </Fragment>
        );
      })}
      {allowed.map((id, i) => {
        const place = at(id);
        if (!place || !taken.has(id)) return null;
        return (
          <CutHandle
            key={id}
            place={place}
            label={`Cut before ${spotOf(id)}: arrows move it, Delete removes it`}
            onStep={(step) => {
              let to = i + step;
              while (taken.has(allowed[to] ?? '')) to += step;
              const next = allowed[to];
              if (next !== undefined) onCut(id, next);
            }}
            onDelete={() => onCut(id, null)}
            onDrop={(x, y) => {
              const to = nearest(x, y);
              if (to !== null && to !== id && !taken.has(to)) onCut(id, to);
            }}
          />
        );
      })}
    </div>
  );
}

interface CutHandleProps {
  readonly place: Place;
  readonly label: string;
  readonly onStep: (step: 1 | -1) => void;
  readonly onDelete: () => void;
  readonly onDrop: (clientX: number, clientY: number) => void;
}

/** A cut: a dashed line before its note that is dragged, or moved by arrows. */
function CutHandle({ place, label, onStep, onDelete, onDrop }: CutHandleProps) {
  const [by, setBy] = useState<number | null>(null);
  const [start, setStart] = useState(0);
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className="pointer-events-auto absolute z-10 h-20 w-4 -translate-x-1/2 cursor-ew-resize touch-none hover:bg-band/60 focus-visible:bg-band/60"
      style={{ left: place.x - 10 + (by ?? 0), top: place.top - 4 }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setStart(event.clientX);
        setBy(0);
      }}
      onPointerMove={(event) => by !== null && setBy(event.clientX - start)}
      onPointerUp={(event) => {
        const moved = Math.abs(by ?? 0) > 4;
        setBy(null);
        if (moved) onDrop(event.clientX, event.clientY);
      }}
      onPointerCancel={() => setBy(null)}
      onKeyDown={(event) => {
        if (event.key === 'ArrowRight' || event.key === 'ArrowLeft') onStep(event.key === 'ArrowRight' ? 1 : -1);
        else if (event.key === 'Delete' || event.key === 'Backspace') onDelete();
        else return;
        event.preventDefault();
      }}
    >
      <span aria-hidden className="mx-auto block h-full w-0 border-l-2 border-dashed border-woad" />
    </button>
  );
}

/** Places of the notes as they are drawn now, from the corner of the score that a layer lies over. */
function usePlaces(layer: RefObject<HTMLDivElement | null>, report: TuneReport): ReadonlyMap<string, Place> {
  const [places, setPlaces] = useState<ReadonlyMap<string, Place>>(new Map());
  useEffect(() => {
    const score = layer.current?.parentElement;
    if (!score) return;
    const measure = () => {
      const box = score.getBoundingClientRect();
      const found = new Map<string, Place>();
      for (const note of score.querySelectorAll<SVGElement>('[data-note]')) {
        const line = note.closest<HTMLElement>('[data-line]');
        const svg = note.ownerSVGElement;
        if (!line || !svg) continue;
        const own = svg.getBoundingClientRect();
        const scale = own.width / svg.viewBox.baseVal.width;
        found.set(note.dataset['note']!, {
          x: own.left - box.left + Number(note.dataset['x']) * scale,
          top: line.getBoundingClientRect().top - box.top,
          line: line.dataset['line']!,
          left: Infinity,
          right: own.right - box.left,
        });
      }
      const firsts = new Map<string, number>();
      for (const { line, x } of found.values()) firsts.set(line, Math.min(firsts.get(line) ?? Infinity, x));
      setPlaces(new Map([...found].map(([id, place]) => [id, { ...place, left: firsts.get(place.line)! }])));
    };
    // Lines grow to their height when their notes are drawn, and once more when their signs stand.
    const observer = new ResizeObserver(measure);
    observer.observe(score);
    const timer = setTimeout(measure, SETTLED_MS);
    return () => {
      observer.disconnect();
      clearTimeout(timer);
    };
  }, [layer, report]);
  return places;
}

/** By then a score that keeps its size is drawn anew. */
const SETTLED_MS = 80;
